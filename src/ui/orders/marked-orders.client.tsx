'use client';

import Link from 'next/link';
import { useState } from 'react';
import { isOrdered } from '@/core/purchase';
import type { OrderSummary } from '@/services/purchase/readOrders';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';
import { failureSentence } from '../sentences';

type Result = { readonly order: OrderSummary; readonly refused: string | null };
const waits: readonly OrderSummary['state'][] = ['draft', 'awaiting', 'amending', 'amendment_awaiting'];

const nameOf = (o: OrderSummary) => o.number ?? `the draft to ${o.supplier}`;

/** What can be done with marked orders together: each by itself, one after the other, and what was refused is said. */
export function MarkedOrders({ orders, onDone }: { orders: readonly OrderSummary[]; onDone: () => void }) {
  const format = useFormat();
  const { busy, run } = useCommand();
  const [mayApprove, maySend] = [useMay('orders.approve'), useMay('orders.send')];
  const [results, setResults] = useState<readonly Result[]>([]);
  const toApprove = orders.filter((o) => waits.includes(o.state));
  const toSend = orders.filter((o) => o.state === 'approved');
  const toPrint = orders.filter((o) => isOrdered(o.state) || o.state === 'closed');
  const currencies = new Set(orders.map((o) => o.currency));
  const [currency = ''] = currencies;
  const sum =
    currencies.size === 1
      ? format.money(
          orders.reduce((a, o) => a + o.net, 0),
          currency,
        )
      : '';
  const each = async (name: string, own: readonly OrderSummary[], more: object) => {
    const done: Result[] = [];
    for (const order of own) {
      const outcome = await run(
        name,
        { orderId: order.id, version: order.version, ...more },
        { refresh: order === own.at(-1) },
      );
      done.push({ order, refused: outcome.ok ? null : failureSentence(outcome.failure, format) });
    }
    setResults(done);
    onDone();
  };
  const refused = results.filter((r) => r.refused !== null);
  return (
    <>
      {orders.length > 0 && (
        <fieldset className="bar" aria-label="Marked orders">
          <strong className="font-semibold">{countOf(orders.length, 'order')} marked</strong>
          {sum && <span className="second">{sum} net</span>}
          {mayApprove && (
            <button
              type="button"
              className="btn btn-outline"
              disabled={busy || toApprove.length === 0}
              onClick={() => each('approve-order', toApprove, {})}
            >
              Approve {toApprove.length}
            </button>
          )}
          {maySend && (
            <button
              type="button"
              className="btn btn-outline"
              disabled={busy || toSend.length === 0}
              onClick={() => each('send-order', toSend, { how: 'email', to: '' })}
            >
              Send {toSend.length} by mail, final
            </button>
          )}
          {toPrint.length > 0 && (
            <Link className="btn btn-outline" href={`/orders/print?ids=${toPrint.map((o) => o.id).join(',')}`}>
              Print {toPrint.length}
            </Link>
          )}
          <button type="button" className="btn" onClick={onDone}>
            Unmark
          </button>
        </fieldset>
      )}
      {results.length > 0 && (
        <div className="px-4 py-1.5" role="status">
          <p>{countOf(results.length - refused.length, 'order')} done.</p>
          {refused.map((r) => (
            <p key={r.order.id} className="fault">
              {nameOf(r.order)}: {r.refused}
            </p>
          ))}
        </div>
      )}
    </>
  );
}
