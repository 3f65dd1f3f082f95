import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readTransfer } from '@/services/stock/readTransfers';
import { Refused } from '@/ui/frame/refused';
import { TransferPage } from '@/ui/stock/transfer-page.client';

export const metadata: Metadata = { title: 'Transfer' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readTransfer(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <TransferPage key={value.version} view={value} />;
}
