import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readCount } from '@/services/stock/readCounts';
import { Refused } from '@/ui/frame/refused';
import { CountSheet } from '@/ui/stock/count-sheet.client';

export const metadata: Metadata = { title: 'Count' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readCount(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <CountSheet key={value.id} view={value} />;
}
