import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { idOf, requestFormat, shown } from '@/app/_server/page';
import { requireActor } from '@/app/_server/session';
import { readCount } from '@/services/stock/readCounts';
import { Refused } from '@/ui/frame/refused';
import { PrintedCount } from '@/ui/stock/printed-count';

export const metadata: Metadata = { title: 'Count' };

export default async function PrintPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await requireActor();
  const format = await requestFormat();
  const { value, failure } = shown(await readCount(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  return <PrintedCount view={value} format={format} />;
}
