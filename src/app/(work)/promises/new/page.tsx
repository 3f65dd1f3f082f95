import type { Metadata } from 'next';
import { frameOf, placeOf, requestFormat, type SearchParams } from '@/app/_server/page';
import { may } from '@/core/people';
import { Refused } from '@/ui/frame/refused';
import { NewCustomerOrder } from '@/ui/promises/new-customer-order.client';

export const metadata: Metadata = { title: 'A customer’s order' };

export default async function Page({ searchParams }: { searchParams: SearchParams }) {
  const { actor, frame } = await frameOf();
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return <Refused failure={allowed.error} format={await requestFormat()} />;
  const at = await placeOf(await searchParams);
  return (
    <NewCustomerOrder
      places={frame.locations}
      at={at ?? frame.locations[0]?.id ?? 0}
      webShop={(process.env.VORRAT_WEB_SHOP_URL ?? '') !== ''}
    />
  );
}
