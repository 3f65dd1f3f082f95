import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readLots } from '@/services/stock/readLots';
import { Refused } from '@/ui/frame/refused';
import { LotsPage } from '@/ui/stock/lots-page';

export const metadata: Metadata = { title: 'Lots and serial numbers' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const item = Number(text(params.item));
  const asked = {
    search: text(params.q).slice(0, 100),
    itemId: Number.isInteger(item) && item > 0 ? item : null,
    locationId: await placeOf(params),
  };
  const { value, failure } = shown(await readLots(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={format} />;
  return <LotsPage view={value} asked={asked} at={text(params.at)} format={format} />;
}
