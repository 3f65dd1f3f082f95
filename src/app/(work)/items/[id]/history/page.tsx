import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readItemHistory } from '@/services/catalogue/readItemHistory';
import { Refused } from '@/ui/frame/refused';
import { ItemHistoryPage } from '@/ui/items/item-history';

export const metadata: Metadata = { title: 'What happened to an item' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readItemHistory(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  return <ItemHistoryPage history={value} format={format} />;
}
