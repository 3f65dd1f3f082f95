import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readItemFile } from '@/services/catalogue/readItemFile';
import { Refused } from '@/ui/frame/refused';
import { ItemFilePage } from '@/ui/items/item-file.client';

export const metadata: Metadata = { title: 'Item on file' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readItemFile(deps(), actor, idOf((await params).id), format.decimal));
  if (failure) return <Refused failure={failure} format={format} />;
  return <ItemFilePage file={value} />;
}
