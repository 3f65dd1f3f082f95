import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readItemsNamed } from '@/services/catalogue/readItemsNamed';
import { readTransfers } from '@/services/stock/readTransfers';
import { Refused } from '@/ui/frame/refused';
import { TransferList } from '@/ui/stock/transfer-list.client';

export const metadata: Metadata = { title: 'Transfers' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const { value, failure } = shown(await readTransfers(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const id = Number(text(params.item));
  const { value: named } = shown(await readItemsNamed(deps(), actor, Number.isInteger(id) && id > 0 ? [id] : []));
  return <TransferList view={value} first={named?.[0] ?? null} />;
}
