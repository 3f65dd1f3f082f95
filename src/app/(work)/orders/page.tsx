import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { openOrders, orderShows, orderSorts, readOrderRows } from '@/services/purchase/readOrders';
import { readViews } from '@/services/views/readViews';
import { Refused } from '@/ui/frame/refused';
import { OrderList } from '@/ui/orders/order-list.client';

export const metadata: Metadata = { title: 'Orders' };

export default async function OrdersPage({ searchParams }: { searchParams: SearchParams }) {
  const { actor } = await frameOf();
  const params = await searchParams;
  const show = choiceOf(orderShows, params.show);
  const sort = choiceOf(orderSorts, params.sort);
  const search = text(params.q).slice(0, 200);
  const { value: head, failure } = shown(await openOrders(deps(), actor, { show, sort, search }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: views } = shown(await readViews(deps(), actor, 'orders'));
  const { value: page } = shown(await readOrderRows(deps(), actor, { list: head.list, from: 0 }));
  return (
    <OrderList
      key={`${show}/${sort}/${search}`}
      head={head}
      first={page?.rows ?? []}
      show={show}
      sort={sort}
      search={search}
      views={views ?? []}
    />
  );
}
