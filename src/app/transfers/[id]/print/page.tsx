import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { idOf, requestFormat, shown } from '@/app/_server/page';
import { requireActor } from '@/app/_server/session';
import { readTransfer } from '@/services/stock/readTransfers';
import { Refused } from '@/ui/frame/refused';
import { PrintedTransfer } from '@/ui/stock/printed-transfer';

export const metadata: Metadata = { title: 'Transfer' };

export default async function PrintPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await requireActor();
  const format = await requestFormat();
  const { value, failure } = shown(await readTransfer(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  // Before it is approved nobody packs anything.
  if (value.state !== 'approved' && value.state !== 'shipped' && value.state !== 'received') notFound();
  return <PrintedTransfer view={value} format={format} />;
}
