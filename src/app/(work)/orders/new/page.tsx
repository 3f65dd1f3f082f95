import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { readOrderFrom } from '@/services/purchase/newOrder';
import { Refused } from '@/ui/frame/refused';
import { NewOrder } from '@/ui/orders/new-order.client';

export const metadata: Metadata = { title: 'A new order' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { actor, frame } = await frameOf();
  const params = await searchParams;
  const { value, failure } = shown(await readOrderFrom(deps(), actor));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  const at = await placeOf(params);
  return (
    <NewOrder
      suppliers={value}
      places={frame.locations}
      at={at ?? frame.locations[0]?.id ?? 0}
      supplierId={Number(text(params.supplier)) || null}
    />
  );
}
