import type { Metadata } from 'next';
import { askedChanges } from '@/app/_server/askedChanges';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readChanges } from '@/services/people/readChanges';
import { Refused } from '@/ui/frame/refused';
import { ChangesPage } from '@/ui/setup/changes-page';

export const metadata: Metadata = { title: 'Changes' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const asked = askedChanges((name) => text(params[name]));
  const { value, failure } = shown(await readChanges(deps(), actor, asked));
  if (failure) return <Refused failure={failure} format={format} />;
  return <ChangesPage view={value} asked={asked} format={format} />;
}
