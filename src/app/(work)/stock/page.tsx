import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readCategories } from '@/services/catalogue/readCategories';
import { openStock, readStockRows, stockShows, stockSorts } from '@/services/stock/readStock';
import { readStockReasons } from '@/services/stock/readStockReasons';
import { Refused } from '@/ui/frame/refused';
import { StockList } from '@/ui/stock/stock-list.client';

export const metadata: Metadata = { title: 'Stock' };

export default async function StockPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const locationId = await placeOf(params);
  const days = Number(text(params.days));
  const asked = {
    search: text(params.q).slice(0, 100),
    locationId,
    sort: choiceOf(stockSorts, params.sort),
    category: text(params.category).slice(0, 250),
    show: choiceOf(stockShows, params.show),
    days: Number.isInteger(days) && days >= 1 && days <= 999 ? days : 90,
  };
  const { value: head, failure } = shown(await openStock(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readStockRows(deps(), actor, { list: head.list, from: 0 }));
  const { value: categories } = shown(await readCategories(deps(), actor));
  const { value: reasons } = shown(await readStockReasons(deps(), actor));
  return (
    <StockList
      key={`${locationId}`}
      head={head}
      first={page?.rows ?? []}
      query={{
        ...{ q: asked.search, at: text(params.at), sort: asked.sort, category: asked.category, show: asked.show },
        days: asked.days,
      }}
      categories={categories ?? []}
      reasons={reasons ?? []}
    />
  );
}
