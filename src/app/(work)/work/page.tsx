import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readJobs } from '@/services/work/readJobs';
import { Refused } from '@/ui/frame/refused';
import { JobsPage } from '@/ui/setup/jobs-page.client';

export const metadata: Metadata = { title: 'In the background' };

export default async function WorkPage() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readJobs(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <JobsPage first={value} />;
}
