import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { openTrays, readTrayRows } from '@/services/purchase/readTrays';
import { Refused } from '@/ui/frame/refused';
import { TraysView } from '@/ui/trays/trays-view.client';

export const metadata: Metadata = { title: 'Trays' };

export default async function TraysPage() {
  const { actor } = await frameOf();
  const { value: head, failure } = shown(await openTrays(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const { value: page } = shown(await readTrayRows(deps(), actor, { list: head.list, from: 0 }));
  return <TraysView head={head} first={page?.rows ?? []} />;
}
