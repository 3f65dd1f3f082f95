import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readToday } from '@/services/today/readToday';
import { Refused } from '@/ui/frame/refused';
import { TodayPage } from '@/ui/today/today-page.client';

export const metadata: Metadata = { title: 'Today' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const { value, failure } = shown(await readToday(deps(), actor, { locationId: await placeOf(params) }));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <TodayPage view={value} at={text(params.at)} />;
}
