import type { Metadata } from 'next';
import { askedMovers } from '@/app/_server/askedMovers';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readCategories } from '@/services/catalogue/readCategories';
import { readMovers } from '@/services/stock/readMovers';
import { Refused } from '@/ui/frame/refused';
import { MoversPage } from '@/ui/stock/movers-page';

export const metadata: Metadata = { title: 'Fast and slow' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const asked = askedMovers((name) => text(params[name]), await placeOf(params));
  const { value, failure } = shown(await readMovers(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={format} />;
  const { value: categories } = shown(await readCategories(deps(), actor));
  return <MoversPage view={value} asked={asked} at={text(params.at)} categories={categories ?? []} format={format} />;
}
