import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readCustomerOrder } from '@/services/promise/readCustomerOrder';
import { Refused } from '@/ui/frame/refused';
import { CustomerOrderPage } from '@/ui/promises/customer-order-page.client';

export const metadata: Metadata = { title: 'Customer’s order' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const id = idOf((await params).id);
  const { value, failure } = shown(await readCustomerOrder(deps(), actor, id));
  if (failure) return <Refused failure={failure} format={await requestFormat()} />;
  return <CustomerOrderPage order={value} />;
}
