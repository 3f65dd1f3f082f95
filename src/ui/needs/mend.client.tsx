'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { NeedWarning } from '@/core/netting';
import type { NeedView } from '@/services/planning/needViews';
import type { RecordsView } from '@/services/sheets/readRecords';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';
import { RecordDialog } from '../records/record-dialog.client';

/** The same in a row, shortly. */
export const warningWords: Readonly<Record<NeedWarning, string>> = {
  no_supplier: 'no supplier',
  supplier_blocked: 'supplier blocked',
  item_stopped: 'item stopped',
  no_price: 'no price',
  no_rate: 'no exchange rate',
  not_free: 'not free there',
};

/** What is in the way of a need, each in a sentence, with what mends it: a source or a price is said here, in its form. */
export function Mend({ need, today, onMended }: { need: NeedView; today: string; onMended: () => void }) {
  const format = useFormat();
  const mayMend = useMay('catalogue.edit');
  const [form, setForm] = useState<{ readonly view: RecordsView; readonly of: 'sources' | 'prices' } | null>(null);
  const [failed, setFailed] = useState(false);
  const open = async (of: 'sources' | 'prices') => {
    const response = await fetch(`/api/reads/form?sheet=${of}&decimal=${encodeURIComponent(format.decimal)}`).catch(
      () => null,
    );
    setFailed(!response?.ok);
    if (response?.ok) setForm({ of, view: ((await response.json()) as { value: RecordsView }).value });
  };
  const sentences: Readonly<Record<NeedWarning, string>> = {
    no_supplier: 'No supplier sells this item yet, so it can’t go into a tray.',
    supplier_blocked: `${need.supplier?.name ?? 'The supplier'} is blocked.`,
    item_stopped: 'The item is no longer refilled; somebody still asks for it.',
    no_price: 'No price on file: it can be ordered, and the price is asked for before approval.',
    no_rate: `No rate is on file for ${need.currency}: what it comes to is not known.`,
    not_free: `Only ${format.quantity(need.sentFrom?.free ?? 0)} are free at ${need.sentFrom?.location ?? ''}.`,
  };
  const grave: readonly NeedWarning[] = ['no_supplier', 'supplier_blocked'];
  return (
    <div className="mt-2 grid gap-1">
      {need.warnings.map((w) => (
        <p key={w} className={grave.includes(w) ? 'fault' : 'text-attention'}>
          {sentences[w]}{' '}
          {w === 'no_supplier' && mayMend && (
            <button type="button" className="link" onClick={() => open('sources')}>
              Say who sells it
            </button>
          )}
          {w === 'no_price' && mayMend && (
            <button type="button" className="link" onClick={() => open('prices')}>
              Say its price
            </button>
          )}
          {w === 'supplier_blocked' && need.supplier && (
            <Link prefetch={false} className="link" href={`/suppliers/${need.supplier.id}`}>
              Its page
            </Link>
          )}
          {w === 'item_stopped' && (
            <Link prefetch={false} className="link" href={`/items/${need.itemId}`}>
              Its page
            </Link>
          )}
          {w === 'no_rate' && (
            <Link prefetch={false} className="link" href="/setup/rates">
              Rates
            </Link>
          )}
        </p>
      ))}
      {failed && <p className="second">The form can’t be read just now.</p>}
      {form && (
        <RecordDialog
          sheet={form.of}
          title={form.of === 'sources' ? `Who sells ${need.itemName}` : `Price of ${need.itemName}`}
          fields={form.view.fields}
          record={null}
          given={{
            item: need.itemNumber,
            ...(form.of === 'prices' && need.supplier ? { supplier: need.supplier.code } : {}),
          }}
          begins={
            form.of === 'prices'
              ? { valid_from: today, ...(need.packName === need.unit ? {} : { pack: need.packName }) }
              : {}
          }
          onClose={(saved) => {
            setForm(null);
            if (saved) onMended();
          }}
        />
      )}
    </div>
  );
}
