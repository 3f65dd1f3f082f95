import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown } from '@/app/_server/page';
import { readNeeds } from '@/services/planning/readNeeds';
import { Refused } from '@/ui/frame/refused';
import { NeedsList } from '@/ui/needs/needs-list.client';

export const metadata: Metadata = { title: 'Needs' };

export default async function NeedsPage({ searchParams }: { searchParams: SearchParams }) {
  const { actor } = await frameOf();
  const locationId = await placeOf(await searchParams);
  const { value, failure } = shown(await readNeeds(deps(), actor, { locationId }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <NeedsList key={locationId ?? 0} page={value} />;
}
