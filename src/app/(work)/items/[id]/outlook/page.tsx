import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readOutlook } from '@/services/planning/readOutlook';
import { Refused } from '@/ui/frame/refused';
import { OutlookPage } from '@/ui/outlook/outlook-page';

export const metadata: Metadata = { title: 'Through time' };

export default async function Page(props: { params: Promise<{ id: string }>; searchParams: SearchParams }) {
  const params = await props.searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const said = Number(text(params.location));
  const locationId = Number.isInteger(said) && said > 0 ? said : await placeOf(params);
  const itemId = idOf((await props.params).id);
  const { value, failure } = shown(await readOutlook(deps(), actor, { itemId, locationId }));
  if (failure) return <Refused failure={failure} format={format} />;
  return <OutlookPage outlook={value} format={format} />;
}
