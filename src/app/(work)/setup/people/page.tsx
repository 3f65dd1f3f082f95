import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readPeople } from '@/services/people/readPeople';
import { Refused } from '@/ui/frame/refused';
import { PeoplePage } from '@/ui/setup/people-page.client';

export const metadata: Metadata = { title: 'People' };

export default async function Page() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readPeople(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <PeoplePage view={value} />;
}
