import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { itemSorts, itemViews } from '@/services/catalogue/findItems';
import { readItemForm } from '@/services/catalogue/readItemForm';
import { openItems, readItemRows } from '@/services/catalogue/readItems';
import { readViews } from '@/services/views/readViews';
import { Refused } from '@/ui/frame/refused';
import { ItemList } from '@/ui/items/item-list.client';

export const metadata: Metadata = { title: 'Items' };

export default async function ItemsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor, frame } = await frameOf();
  const format = await requestFormat();
  const locationId = await placeOf(params);
  const asked = {
    search: text(params.q).slice(0, 100),
    view: choiceOf(itemViews, params.view),
    category: text(params.category).slice(0, 250),
    supplier: text(params.supplier).slice(0, 20),
    sort: choiceOf(itemSorts, params.sort),
  };
  const { value: head, failure } = shown(await openItems(deps(), actor, { ...asked, locationId }));
  if (failure) return <Refused failure={failure} format={format} />;
  const { value: page } = shown(await readItemRows(deps(), actor, { list: head.list, from: 0 }));
  const { value: saved } = shown(await readViews(deps(), actor, 'items'));
  const { value: form } = shown(await readItemForm(deps(), actor, format.decimal));
  return (
    <ItemList
      key={`${locationId}`}
      head={head}
      first={page?.rows ?? []}
      places={frame.locations}
      one={locationId !== null}
      query={{
        ...{ q: asked.search, at: text(params.at), sort: asked.sort, view: asked.view },
        ...{ category: asked.category, supplier: asked.supplier, cols: text(params.cols).slice(0, 200) },
      }}
      saved={saved ?? []}
      fields={form?.view ?? null}
      patterns={form?.patterns ?? []}
      categories={form?.categories ?? []}
    />
  );
}
