'use client';

import type { SupplierFile } from '@/services/catalogue/readSupplierFile';
import { useFormat } from '../format-context.client';
import { ListAndPanel } from '../frame/states';
import { EditRecord } from '../records/edit-record.client';
import { RecordTables, type TableOf } from '../records/record-tables';
import { ChangeWords } from '../setup/change-words';
import { SupplierHead } from './supplier-head';

const tables: readonly TableOf[] = [
  {
    sheet: 'contacts',
    one: 'order address or contact',
    empty: 'Only the address and contact that stand with its terms.',
  },
  {
    sheet: 'charges',
    one: 'charge',
    title: 'Usual charges and allowances',
    empty: 'None: goods cost what the list says, and freight as its terms say.',
  },
  { sheet: 'closures', one: 'closure', title: 'When it is closed', empty: 'It is not known to close.' },
  { sheet: 'sources', one: 'item it sells', title: 'Items it sells', empty: 'No item is bought here yet.' },
  { sheet: 'prices', one: 'price', title: 'Price list, past and future prices as well', empty: 'No price is on file.' },
];

/** Everything on file of a supplier, each part to be changed in place; beside it who changed what. */
export function SupplierFilePage({ file }: { file: SupplierFile }) {
  const format = useFormat();
  const { terms, records: r } = file;
  const given = { supplier: terms.code };
  return (
    <ListAndPanel
      label="Changes"
      panel={
        <section>
          <h2 className="head">Changes</h2>
          {file.changes.length === 0 && <p className="second">Nothing was changed yet.</p>}
          <ul className="grid gap-2">
            {file.changes.map((c) => (
              <li key={c.id} className="border-b border-rule pb-1.5">
                <p className="second">
                  {format.date(c.at.slice(0, 10))}, {c.who}
                </p>
                <ChangeWords change={c} />
              </li>
            ))}
          </ul>
        </section>
      }
    >
      <SupplierHead terms={terms} here="/file">
        {r.suppliers?.may && (
          <EditRecord view={r.suppliers} label="Change terms" title={`Supplier ${terms.code}`} primary />
        )}
      </SupplierHead>
      <RecordTables records={r} given={given} tables={tables} />
    </ListAndPanel>
  );
}
