import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { openOrders, orderSorts, readOrderRows } from '@/services/purchase/readOrders';
import { Refused } from '@/ui/frame/refused';
import { OrderList } from '@/ui/orders/order-list.client';

export const metadata: Metadata = { title: 'Orders' };

export default async function OrdersPage({ searchParams }: { searchParams: SearchParams }) {
  const { actor } = await frameOf();
  const params = await searchParams;
  const all = text(params.show) === 'all';
  const sort = choiceOf(orderSorts, params.sort);
  const { value: head, failure } = shown(await openOrders(deps(), actor, { all, sort }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readOrderRows(deps(), actor, { list: head.list, from: 0 }));
  return <OrderList key={`${all}/${sort}`} head={head} first={page?.rows ?? []} all={all} sort={sort} />;
}
