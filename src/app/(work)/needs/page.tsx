import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown } from '@/app/_server/page';
import { openNeeds, readNeedRows } from '@/services/planning/readNeeds';
import { Refused } from '@/ui/frame/refused';
import { NeedsList } from '@/ui/needs/needs-list.client';

export const metadata: Metadata = { title: 'Needs' };

export default async function NeedsPage({ searchParams }: { searchParams: SearchParams }) {
  const { actor } = await frameOf();
  const locationId = await placeOf(await searchParams);
  const { value: head, failure } = shown(await openNeeds(deps(), actor, { locationId }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readNeedRows(deps(), actor, { list: head.list, from: 0 }));
  return <NeedsList key={locationId ?? 0} head={head} first={page?.rows ?? []} />;
}
