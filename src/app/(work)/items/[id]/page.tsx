import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readItem } from '@/services/catalogue/readItems';
import { Refused } from '@/ui/frame/refused';
import { ItemPage } from '@/ui/items/item-page';

export const metadata: Metadata = { title: 'Item' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readItem(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  return <ItemPage view={value} format={format} />;
}
