import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { choiceOf, frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { differenceGroups, readCountDifferences } from '@/services/stock/readCountDifferences';
import { Refused } from '@/ui/frame/refused';
import { DifferencesPage } from '@/ui/stock/differences-page';

export const metadata: Metadata = { title: 'What counts found' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const asked = {
    by: choiceOf(differenceGroups, params.by),
    ...{ from: text(params.from), to: text(params.to), locationId: await placeOf(params) },
  };
  const { value, failure } = shown(await readCountDifferences(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={format} />;
  return <DifferencesPage view={value} asked={asked} at={text(params.at)} format={format} />;
}
