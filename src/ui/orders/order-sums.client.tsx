'use client';

import { useState } from 'react';
import type { OrderView } from '@/services/purchase/readOrder';
import { countOf, type Format } from '../format';
import { useFormat } from '../format-context.client';
import { SumLine } from '../reckoning/reckoning';
import { ChargeWindow } from './charge-window.client';
import { chargeOrigin, differsWords } from './words';

type ChargeView = OrderView['sums']['charges'][number];

/** What an order comes to: net, charges on its bill, tax; what others are paid for it; weight, volume and landed cost. */
export function OrderSumsPart({ order }: { order: OrderView }) {
  const format = useFormat();
  const { head, lines, sums, baseCurrency } = order;
  const { currency } = head;
  const [open, setOpen] = useState<ChargeView | 'new' | null>(null);
  const free = lines.filter((l) => l.freeOfCharge).length;
  const editable = order.can.includes('edit') && (head.chargesKept === 0 || head.state === 'draft');
  const onBill = sums.charges.filter((c) => c.billed);
  const others = sums.charges.filter((c) => !c.billed);
  const goods = lines.some((l) => l.landed?.each);
  const volume =
    sums.volume > 0 || sums.noVolume > 0 ? weightWords(sums.volume, 'l', sums.noVolume, 'volume', format) : '';
  const taxed = sums.tax.sums.filter((t) => t.taxable !== 0 || t.tax !== 0);
  const rows = (charges: readonly ChargeView[]) =>
    charges.map((c) => (
      <ChargeRow key={c.name} charge={c} order={order} format={format} onOpen={editable ? () => setOpen(c) : null} />
    ));
  return (
    <section>
      {open && <ChargeWindow order={order} charge={open === 'new' ? null : open} onLeave={() => setOpen(null)} />}
      <h2 className="head">
        Sums <span className="font-normal text-muted">{currency}</span>
      </h2>
      <SumLine
        label="Order, net"
        origin={`${countOf(lines.length, 'line')}${free > 0 ? `, ${free} free of charge` : ''}`}
        figure={format.amount(order.net, currency)}
      />
      {rows(onBill)}
      {sums.tax.paidTo === 'supplier' &&
        taxed.map((t) => (
          <SumLine
            key={t.category}
            operator="+"
            label={t.percent === null ? 'Tax' : `Tax ${format.percent(t.percent)} %`}
            origin={
              t.percent === null
                ? `no rate of “${t.category || 'no category'}” is on file`
                : `of ${format.amount(t.taxable, currency)}${t.cost > 0 ? `, ${format.amount(t.cost, currency)} of it not recovered` : ''}`
            }
            figure={format.amount(t.tax, currency)}
          />
        ))}
      <SumLine
        label="Their bill"
        origin={
          currency === baseCurrency
            ? taxWords[sums.tax.paidTo]
            : sums.totalInBase === null
              ? `no rate of ${currency} is on file`
              : `${format.money(sums.totalInBase, baseCurrency)} today${sums.tax.paidTo === 'supplier' ? '' : `, ${taxWords[sums.tax.paidTo]}`}`
        }
        figure={format.amount(sums.total, currency)}
        result
      />
      {others.length > 0 && (
        <>
          <p className="second mt-2">Paid to others</p>
          {rows(others)}
        </>
      )}
      {(sums.tax.paidTo === 'self' || sums.tax.paidTo === 'customs') &&
        taxed.map((t) => (
          <SumLine
            key={t.category}
            label={<span className="text-muted">Tax {t.percent === null ? '' : `${format.percent(t.percent)} %`}</span>}
            origin={`${sums.tax.paidTo === 'self' ? 'accounted for by us' : 'paid to the customs'}${t.cost > 0 ? `, ${format.amount(t.cost, currency)} not recovered` : ', recovered'}`}
            figure={<span className="font-normal text-muted">{format.amount(t.tax, currency)}</span>}
          />
        ))}
      {sums.landed !== null && goods && (
        <SumLine
          label={
            <>
              Landed <span className="font-normal text-muted">{baseCurrency}</span>
            </>
          }
          origin={`goods ${format.amount(sums.goodsInBase ?? 0, baseCurrency)} and what goes into their cost`}
          figure={format.amount(sums.landed, baseCurrency)}
          result
        />
      )}
      {goods && (
        <p className="second mt-1.5">
          {[weightWords(sums.weight, 'kg', sums.noWeight, 'weight', format), volume].filter(Boolean).join(' · ')}
        </p>
      )}
      {editable && (
        <button type="button" className="chip mt-2" onClick={() => setOpen('new')}>
          Add a charge or allowance
        </button>
      )}
    </section>
  );
}

const taxWords = {
  supplier: 'with tax',
  self: 'without tax: we account for it',
  customs: 'without tax: the customs are paid',
  nobody: 'without tax',
} as const;

const weightWords = (micro: number, unit: string, missing: number, what: string, format: Format): string =>
  `${format.quantity(Math.round(micro / 1000) * 1000)} ${unit}${missing > 0 ? ` (${countOf(missing, 'line')} without ${what})` : ''}`;

/** One charge: what it is, where it is from, in what it differs from what is usual. */
function ChargeRow(props: { charge: ChargeView; order: OrderView; format: Format; onOpen: (() => void) | null }) {
  const { charge: c, order, format, onOpen } = props;
  const { currency } = order.head;
  const unknown = c.amountKind !== 'duty' && c.amount === null && !c.leftOut;
  const name = (
    <span className={c.leftOut ? 'line-through' : ''}>
      {c.name}
      {c.billed || c.into === 'stock' ? '' : c.into === 'recoverable' ? ', recoverable' : ', not into cost'}
    </span>
  );
  const more = [chargeOrigin(c, format), ...differsWords(c, format)];
  return (
    <SumLine
      operator={(c.inOrder ?? 0) < 0 ? '−' : '+'}
      label={
        onOpen ? (
          <button
            type="button"
            className="link inline-flex min-h-6 items-center text-left"
            aria-label={`Change ${c.name}`}
            onClick={onOpen}
          >
            {name}
          </button>
        ) : (
          name
        )
      }
      origin={more.filter(Boolean).join(', ')}
      figure={
        c.leftOut || unknown ? (
          <span className="text-muted">–</span>
        ) : c.inOrder === 0 && c.inBase !== null && c.inBase !== 0 ? (
          <span className="font-normal">{format.money(c.inBase, order.baseCurrency)}</span>
        ) : (
          format.amount(Math.abs(c.inOrder ?? 0), currency)
        )
      }
    />
  );
}
