import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readSupplier } from '@/services/catalogue/readSuppliers';
import { Refused } from '@/ui/frame/refused';
import { SupplierPage } from '@/ui/suppliers/supplier-page';

export const metadata: Metadata = { title: 'Supplier' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readSupplier(deps(), actor, idOf((await params).id)));
  if (failure) return <Refused failure={failure} format={format} />;
  return <SupplierPage view={value} format={format} />;
}
