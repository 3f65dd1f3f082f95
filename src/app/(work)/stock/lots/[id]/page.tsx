import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readLot } from '@/services/stock/readLots';
import { Refused } from '@/ui/frame/refused';
import { LotPage } from '@/ui/stock/lots-page';

export const metadata: Metadata = { title: 'Lot' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readLot(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  return <LotPage view={value} format={format} />;
}
