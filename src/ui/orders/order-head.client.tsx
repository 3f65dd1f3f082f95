'use client';

import { useState } from 'react';
import type { EditedHead, HeadField } from '@/services/purchase/editHead';
import type { OrderView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { useSavedEntry } from './use-saved-entry.client';

/** The terms an order has, what differs from the supplier's standing ones marked; and, while it is a draft, its head to be changed. */
export function OrderHead({ order }: { order: OrderView }) {
  const format = useFormat();
  const { head } = order;
  const [open, setOpen] = useState(false);
  const editable = order.can.includes('edit') && head.state === 'draft';
  const places = new Map<string, number>();
  const dates = new Set<string>();
  for (const p of order.lines.filter((l) => !l.unordered && l.base > 0).flatMap((l) => l.parts)) {
    if (p.locationId === null) continue;
    places.set(p.location, (places.get(p.location) ?? 0) + 1);
    if (p.wantedDate) dates.add(p.wantedDate);
  }
  const first = [...dates].sort()[0];
  const differs = (now: string, standing: string) => now !== standing;
  const standing = (words: string) => `not as on file: ${words || 'nothing agreed'}`;
  const terms: { name: string; what: string; more: string; mark?: boolean }[] = [
    {
      name: 'Deliver to',
      what:
        places.size === 1
          ? ([...places.keys()][0] ?? '–')
          : places.size === 0
            ? (order.places.find((p) => p.id === head.locationId)?.name ?? '–')
            : 'each line’s place',
      more: places.size > 1 ? [...places].map(([p, n]) => `${p} (${n})`).join(', ') : '',
    },
    {
      name: 'Wanted',
      what: first ? format.date(first) : head.wantedDate ? format.date(head.wantedDate) : '–',
      more: dates.size > 1 ? `${dates.size} dates, see the lines` : first ? 'all lines' : '',
    },
    {
      name: 'Payment',
      what: head.paymentTerms || '–',
      ...(differs(head.paymentTerms, order.standing.payment)
        ? { more: standing(order.standing.payment), mark: true }
        : { more: head.paymentTerms ? 'as agreed with the supplier' : 'nothing is agreed' }),
    },
    {
      name: 'Delivery terms',
      what: head.deliveryTerms || '–',
      ...(differs(head.deliveryTerms, order.standing.delivery)
        ? { more: standing(order.standing.delivery), mark: true }
        : { more: head.shippingWay && `by ${head.shippingWay}` }),
    },
    { name: 'Currency', what: head.currency, more: '' },
    ...(head.invoiceAddress
      ? [{ name: 'Invoice to', what: head.invoiceAddress.split('\n')[0] ?? '', more: 'for this order', mark: true }]
      : []),
    ...(head.contact ? [{ name: 'Ask', what: head.contact, more: '' }] : []),
  ];
  return (
    <>
      <div className="flex items-end gap-4 border-b border-rule-strong bg-paper px-[18px] py-2.5">
        <dl className="flex grow flex-wrap gap-x-8 gap-y-2">
          {terms.map(({ name, what, more, mark }) => (
            <div key={name} className="max-w-52 min-w-28">
              <dt className="second">{name}</dt>
              <dd className="font-semibold">{what}</dd>
              <dd className={mark ? 'marker w-fit' : 'second'}>{more}</dd>
            </div>
          ))}
        </dl>
        {editable && (
          <button type="button" className="chip shrink-0" aria-expanded={open} onClick={() => setOpen(!open)}>
            {open ? 'Done with the head' : 'Change the head'}
          </button>
        )}
      </div>
      {editable && open && <HeadForm order={order} />}
      {!open && head.orderText && <p className="note mx-[18px] my-2 whitespace-pre-line">{head.orderText}</p>}
      {!open && head.internalNote && (
        <p className="note mx-[18px] my-2 whitespace-pre-line">for us: {head.internalNote}</p>
      )}
    </>
  );
}

const fields: readonly (readonly [HeadField, string, string, string])[] = [
  ['wantedDate', 'Wanted (fri, +7, 3 dec)', 'w-40', 'as each line'],
  ['orderDate', 'Order date', 'w-36', 'the day of approval'],
  ['datedBecause', 'Why dated so', 'w-56', ''],
  ['number', 'Own number', 'w-40', 'drawn at approval'],
  ['contact', 'Ask', 'w-56', ''],
  ['paymentTerms', 'Payment', 'w-56', ''],
  ['deliveryTerms', 'Delivery terms', 'w-56', ''],
];

function HeadForm({ order }: { order: OrderView }) {
  const { head } = order;
  const [said, setSaid] = useState('');
  return (
    <div className="grid gap-3 border-b border-rule-strong px-[18px] py-3">
      <div className="flex flex-wrap gap-3">
        {fields
          .filter(([field]) => field !== 'datedBecause' || head.datedBecause !== '')
          .map(([field, label, width, placeholder]) => (
            <HeadCell
              key={field}
              order={order}
              field={field}
              label={label}
              width={width}
              placeholder={placeholder}
              onSaid={setSaid}
            />
          ))}
      </div>
      <div className="grid grid-cols-4 gap-3 max-lg:grid-cols-2 max-md:grid-cols-1">
        <HeadCell
          order={order}
          field="supplierAddress"
          label="Supplier’s address"
          width="w-full"
          rows={4}
          onSaid={setSaid}
        />
        <HeadCell
          order={order}
          field="invoiceAddress"
          label="Invoice to"
          width="w-full"
          rows={4}
          placeholder={order.invoiceTo}
          onSaid={setSaid}
        />
        <HeadCell order={order} field="orderText" label="Text on the order" width="w-full" rows={4} onSaid={setSaid} />
        <HeadCell
          order={order}
          field="internalNote"
          label="For us, not printed"
          width="w-full"
          rows={4}
          onSaid={setSaid}
        />
      </div>
      {said && (
        <p className="second" role="status">
          {said}
        </p>
      )}
    </div>
  );
}

function HeadCell(props: {
  order: OrderView;
  field: HeadField;
  label: string;
  width: string;
  placeholder?: string;
  rows?: number;
  onSaid: (words: string) => void;
}) {
  const { order, field, label } = props;
  const format = useFormat();
  const { run } = useCommand();
  const stored = order.head[field] ?? '';
  const shownAs = (field === 'wantedDate' || field === 'orderDate') && stored !== '' ? format.date(stored) : stored;
  const { shown, fault, type, commit, leave } = useSavedEntry(shownAs, async (now) => {
    const outcome = await run<EditedHead>('edit-order-head', {
      orderId: order.head.id,
      field,
      was: stored,
      now,
    });
    if (!outcome.ok) return failureSentence(outcome.failure, format);
    props.onSaid(
      field === 'wantedDate'
        ? `${outcome.value.insteadOf ? `Nothing is taken in on ${format.date(outcome.value.insteadOf)}: the next day is taken. ` : ''}${outcome.value.moved === 0 ? 'No delivery follows' : `${countOf(outcome.value.moved, 'delivery')} moved with`} the head’s date.`
        : '',
    );
    return null;
  });
  const common = {
    className: `entry ${props.width} ${props.rows ? 'h-24 py-1.5' : ''}`,
    'aria-label': label,
    'aria-invalid': fault !== null,
    placeholder: props.placeholder ?? '',
    value: shown,
    // What is too long is said, not cut.
    maxLength: 20_000,
    onBlur: commit,
  };
  return (
    <div className="grid content-start gap-0.5">
      <span className="second">{label}</span>
      {props.rows ? (
        <textarea {...common} rows={props.rows} onChange={(e) => type(e.target.value)} />
      ) : (
        <input
          {...common}
          onChange={(e) => type(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') commit();
            if (e.key === 'Escape') leave();
          }}
        />
      )}
      {fault && (
        <span className="fault max-w-56" role="alert">
          {fault}
        </span>
      )}
    </div>
  );
}
