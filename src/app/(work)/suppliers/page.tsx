import type { Metadata } from 'next';
import { deps } from '@/app/_server/deps';
import { frameOf, requestFormat, shown } from '@/app/_server/page';
import { readSuppliersPage } from '@/services/catalogue/readSuppliers';
import { readRecordsOf } from '@/services/sheets/readRecords';
import { Refused } from '@/ui/frame/refused';
import { SupplierList } from '@/ui/suppliers/supplier-list.client';

export const metadata: Metadata = { title: 'Suppliers' };

export default async function Page() {
  const { actor } = await frameOf();
  const format = await requestFormat();
  const { value, failure } = shown(await readSuppliersPage(deps(), actor));
  if (failure) return <Refused failure={failure} format={format} />;
  const form = await readRecordsOf(deps(), actor, { sheet: 'suppliers', which: 'none', decimal: format.decimal });
  return <SupplierList suppliers={value.suppliers} form={form.ok ? form.value : null} />;
}
