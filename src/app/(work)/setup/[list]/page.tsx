import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readSetupList } from '@/services/setup/readSetup';
import { Refused } from '@/ui/frame/refused';
import { SetupRecordsPage } from '@/ui/setup/setup-records.client';

export const metadata: Metadata = { title: 'Setup' };

export default async function Page({ params }: { params: Promise<{ list: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readSetupList(deps(), actor, (await params).list, format.decimal));
  if (failure) return <Refused failure={failure} format={format} />;
  return <SetupRecordsPage records={value} />;
}
