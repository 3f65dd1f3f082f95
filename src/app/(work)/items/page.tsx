import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { itemSorts, openItems, readItemRows } from '@/services/catalogue/readItems';
import { Refused } from '@/ui/frame/refused';
import { ItemList } from '@/ui/items/item-list.client';

export const metadata: Metadata = { title: 'Items' };

export default async function ItemsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor, frame } = await frameOf();
  const search = text(params.q).slice(0, 100);
  const locationId = await placeOf(params);
  const sort = choiceOf(itemSorts, params.sort);
  const { value: head, failure } = shown(await openItems(deps(), actor, { search, locationId, sort }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readItemRows(deps(), actor, { list: head.list, from: 0 }));
  return (
    <ItemList
      key={`${search}/${locationId}/${sort}`}
      head={head}
      first={page?.rows ?? []}
      places={frame.locations}
      one={locationId !== null}
      search={search}
      at={text(params.at)}
      sort={sort}
    />
  );
}
