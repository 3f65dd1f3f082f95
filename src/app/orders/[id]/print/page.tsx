import type { Metadata } from 'next';
import { notFound } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { idOf, requestFormat, shown } from '@/app/_server/page';
import { requireActor } from '@/app/_server/session';
import { isOrdered } from '@/core/purchase';
import { readOrder } from '@/services/purchase/readOrders';
import { Refused } from '@/ui/frame/refused';
import { PrintedOrder } from '@/ui/orders/printed-order';

export const metadata: Metadata = { title: 'Purchase order' };

export default async function PrintPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await requireActor();
  const format = await requestFormat();
  const { value, failure } = shown(await readOrder(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  // A draft, also one that was approved before, is nothing to put on paper.
  if (!isOrdered(value.head.state) && value.head.state !== 'closed') notFound();
  return <PrintedOrder order={value} format={format} />;
}
