import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readOrder } from '@/services/purchase/readOrder';
import { Refused } from '@/ui/frame/refused';
import { OrderPage } from '@/ui/orders/order-page.client';

export const metadata: Metadata = { title: 'Order' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const id = idOf((await params).id);
  const { value, failure } = shown(await readOrder(deps(), actor, id));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <OrderPage order={value} />;
}
