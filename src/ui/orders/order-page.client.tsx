'use client';

import Link from 'next/link';
import type { OrderView } from '@/services/purchase/readOrder';
import { useFormat } from '../format-context.client';
import { ListAndPanel } from '../frame/states';
import { OrderTrack, orderWords } from '../marks/order-track';
import { ConfirmDispatch } from './confirm-dispatch.client';
import { OrderEntry } from './order-entry.client';
import { OrderHead } from './order-head.client';
import { OrderLines } from './order-lines.client';
import { OrderPanel } from './order-panel.client';
import { ReverseReceipt } from './reverse-receipt.client';
import { sentWords } from './words';

/** One order: head, lines with their delivery parts, and beside it the sums, what is missing and what can be done. */
export function OrderPage({ order }: { order: OrderView }) {
  const format = useFormat();
  const { head, came } = order;
  const differs = order.lines.some(
    (l) =>
      l.priceReason === 'confirmed' ||
      l.parts.some((p) => p.confirmedDate !== null && p.confirmedDate !== p.wantedDate),
  );
  const editable = order.can.includes('edit');
  const when =
    head.sentAt && head.sentHow
      ? `sent ${sentWords[head.sentHow]}${head.sentTo ? ` to ${head.sentTo}` : ''} ${format.date(head.sentAt.slice(0, 10))}`
      : null;
  return (
    <ListAndPanel label="Sums and approval" panel={<OrderPanel order={order} />}>
      <div className="flex items-start justify-between gap-4 border-b border-rule bg-paper px-[18px] py-2.5">
        <div>
          <h1 className="text-[17px] font-semibold">
            {head.supplierName}{' '}
            <span className="text-[13.5px] font-normal text-muted">{head.number ?? 'draft, number at approval'}</span>
          </h1>
          <p className="second">
            begun by {head.createdBy} · {format.date(head.orderDate)}
            {head.approvedBy && head.state !== 'draft' ? ` · approved by ${head.approvedBy}` : ''}
            {when ? ` · ${when}` : ''}
            {head.asked || head.askedBy
              ? ` · ${head.askedBy} asks ${head.asked ?? 'whoever may'} to approve ${head.askedAt ? format.date(head.askedAt.slice(0, 10)) : ''}`
              : ''}
            {head.confirmedAt
              ? ` · confirmed ${format.date(head.confirmedAt.slice(0, 10))}${head.supplierReference ? `, their number ${head.supplierReference}` : ''}`
              : ''}
          </p>
        </div>
        <div className="text-right">
          <OrderTrack state={head.state} before={head.before} came={came} differs={differs} />
          <span className="second mt-1 block">{orderWords(head.state, came)}</span>
        </div>
      </div>
      <OrderHead order={order} />
      <OrderLines key={head.state} order={order} />
      {editable && <OrderEntry order={order} />}
      <ConfirmDispatch order={order} />
      {order.receipts.length > 0 && (
        <section className="px-4 py-5">
          <h2 className="head">Booked in</h2>
          <table className="w-full">
            <thead className="sr-only">
              <tr>
                <th>Receipt</th>
                <th>Date</th>
                <th>Where and by whom</th>
                <th>Value</th>
                <th>Reversal</th>
              </tr>
            </thead>
            <tbody>
              {order.receipts.map((r) => (
                <tr key={r.id}>
                  <td className="py-1 font-semibold">{r.number}</td>
                  <td className="pl-4">{format.date(r.businessDate)}</td>
                  <td className="pl-4">
                    {r.location}, by {r.who}
                    {r.deliveryNote && <span className="second"> · delivery note {r.deliveryNote}</span>}
                  </td>
                  <td className={`figure pl-4 ${r.reversedBy ? 'text-muted line-through' : ''}`}>
                    {format.amount(r.value, order.baseCurrency)}
                  </td>
                  <td className="pl-3 text-right">
                    {r.reversedBy ? (
                      <span className="second">
                        reversed by {r.reversedBy}
                        {r.reversedReason && `: ${r.reversedReason}`}
                      </span>
                    ) : (
                      <ReverseReceipt receiptId={r.id} number={r.number} />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      {order.lines.length === 0 && editable && (
        <p className="px-4 py-6 text-muted">
          No line is here yet. Type the first one, fill the order from Needs, or put it back and begin in{' '}
          <Link className="link" href="/trays">
            Trays
          </Link>
          .
        </p>
      )}
    </ListAndPanel>
  );
}
