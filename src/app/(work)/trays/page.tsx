import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readTrays } from '@/services/purchase/readTrays';
import { Refused } from '@/ui/frame/refused';
import { TraysView } from '@/ui/trays/trays-view.client';

export const metadata: Metadata = { title: 'Trays' };

export default async function TraysPage() {
  const { actor } = await frameOf();
  const { value, failure } = shown(await readTrays(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <TraysView trays={value.trays} currency={value.currency} />;
}
