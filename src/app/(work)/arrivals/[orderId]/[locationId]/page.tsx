import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { may } from '@/core/people';
import { readArrival } from '@/services/stock/readArrivals';
import { BookIn } from '@/ui/arrivals/book-in.client';
import { Refused } from '@/ui/frame/refused';

export const metadata: Metadata = { title: 'Book in' };

export default async function Page({ params }: { params: Promise<{ orderId: string; locationId: string }> }) {
  const { actor } = await frameOf();
  const { orderId, locationId } = await params;
  const key = { orderId: idOf(orderId), locationId: idOf(locationId) };
  const { value, failure } = shown(await readArrival(deps(), actor, key));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <BookIn arrival={value.arrival} today={value.today} toOrder={may(actor, 'orders.read').ok} />;
}
