import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readCategories } from '@/services/catalogue/readCategories';
import { readItemsNamed } from '@/services/catalogue/readItemsNamed';
import { readCounts } from '@/services/stock/readCounts';
import { Refused } from '@/ui/frame/refused';
import { CountList } from '@/ui/stock/count-list.client';

export const metadata: Metadata = { title: 'Counts' };

/** `items`: ids of marked items that are to be counted. */
export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const { value, failure } = shown(await readCounts(deps(), actor, { locationId: await placeOf(params) }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const ids = text(params.items)
    .split(',')
    .map(Number)
    .filter((n) => Number.isInteger(n) && n > 0)
    .slice(0, 2000);
  const { value: first } = shown(await readItemsNamed(deps(), actor, ids));
  const { value: categories } = shown(await readCategories(deps(), actor));
  return <CountList view={value} categories={categories ?? []} first={first ?? []} />;
}
