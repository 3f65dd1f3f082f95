import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, idOf, requestFormat, shown } from '@/app/_server/page';
import { readSupplierFile } from '@/services/catalogue/readSupplierFile';
import { Refused } from '@/ui/frame/refused';
import { SupplierFilePage } from '@/ui/suppliers/supplier-file.client';

export const metadata: Metadata = { title: 'Supplier on file' };

export default async function Page({ params }: { params: Promise<{ id: string }> }) {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readSupplierFile(deps(), actor, idOf((await params).id), format.decimal));
  if (failure) return <Refused failure={failure} format={format} />;
  return <SupplierFilePage file={value} />;
}
