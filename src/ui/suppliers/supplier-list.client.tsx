'use client';

import Link from 'next/link';
import { useState } from 'react';
import { plainWords } from '@/core/search';
import type { SupplierLine } from '@/services/catalogue/readSuppliers';
import type { RecordsView } from '@/services/sheets/readRecords';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { EditRecord } from '../records/edit-record.client';
import { leadTimeWords } from './lead-time-words';

/** All suppliers: how long they take, from how much they deliver, what is bought and open there. */
export function SupplierList({ suppliers, form }: { suppliers: readonly SupplierLine[]; form: RecordsView | null }) {
  const format = useFormat();
  const [text, setText] = useState('');
  const words = plainWords(text);
  const shown = suppliers.filter((s) =>
    words.every((w) => plainWords(`${s.name} ${s.code} ${s.currency}`).some((p) => p.includes(w))),
  );
  return (
    <WholeList>
      <ListBar title={countOf(suppliers.length, 'supplier')}>
        <input
          type="search"
          className="entry ml-auto w-48"
          placeholder="name or code"
          aria-label="Search suppliers"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        {form && <ExportLinks of="Suppliers" path="/api/sheets/suppliers/records" />}
        {form && <EditRecord view={form} label="New supplier" title="New supplier" goTo="/suppliers" />}
      </ListBar>
      {shown.length === 0 ? (
        <Notice title={text ? `No supplier has “${text}” in name or code` : 'No supplier yet'}>
          {text ? '' : 'Add them here one by one, or bring them as a spreadsheet with their terms and lead times.'}
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Supplier</th>
              <th className="max-sm:hidden">Lead time</th>
              <th className="figure max-sm:hidden">Order minimum</th>
              <th className="figure">Items</th>
              <th className="figure">Open orders</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((s) => (
              <tr key={s.id} className="two">
                <td>
                  <Link className="name block" href={`/suppliers/${s.id}`} prefetch={false}>
                    {s.name}
                  </Link>
                  <span className="second">
                    <span className="code">{s.code}</span> · {s.currency}
                  </span>
                  {s.status === 'blocked' && <span className="marker ml-2">blocked</span>}
                </td>
                <td className="max-sm:hidden">{leadTimeWords(s)}</td>
                <td className="figure max-sm:hidden">
                  {s.orderMinimum === 0 ? '–' : format.amount(s.orderMinimum, s.currency)}
                </td>
                <td className="figure">{s.items === 0 ? '–' : s.items}</td>
                <td className="figure font-semibold">{s.openOrders === 0 ? '–' : s.openOrders}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </WholeList>
  );
}
