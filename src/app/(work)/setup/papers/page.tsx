import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readPapers } from '@/services/setup/setPapers';
import { Refused } from '@/ui/frame/refused';
import { PapersPage } from '@/ui/setup/papers-page.client';

export const metadata: Metadata = { title: 'Orders on paper' };

export default async function Page() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readPapers(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <PapersPage view={value} key={JSON.stringify(value.typed)} />;
}
