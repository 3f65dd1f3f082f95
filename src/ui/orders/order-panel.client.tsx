'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { OrderView } from '@/services/purchase/readOrders';
import { useCommand } from '../command/use-command.client';
import { countOf, type Format } from '../format';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';
import { SumLine } from '../reckoning/reckoning';
import { findingSentence } from '../sentences';

/** Sums, what is missing, what can be done now, and the history. */
export function OrderPanel({ order }: { order: OrderView }) {
  const format = useFormat();
  const router = useRouter();
  const { busy, sentence, failure, run, clear } = useCommand();
  const _mayEdit = useMay('orders.edit');
  const mayApprove = useMay('orders.approve');
  const maySend = useMay('orders.send');
  const mayReceive = useMay('goods.receive');
  const [how, setHow] = useState<'printed' | 'phone' | 'email'>('email');
  const { head, findings, lines } = order;
  const { id: orderId, version, currency, state } = head;
  // What was refused for another version no longer holds, except that a press came to nothing because of that version.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each version.
  useEffect(() => {
    if (failure?.kind !== 'changed_meanwhile') clear();
  }, [clear, version]);
  const free = lines.filter((l) => l.freeOfCharge).length;
  const blocked = findings.some((f) => f.blocks);
  const receivable = mayReceive && (state === 'approved' || state === 'sent') && order.came !== 'all';

  const putBack = async () => {
    const words = `The order to ${head.supplierName} went back into its trays`;
    const outcome = await run('put-back-order', { orderId, version }, { words });
    if (outcome.ok) router.push('/trays');
  };

  return (
    <div className="grid gap-6">
      <section>
        <h2 className="head">
          Sums <span className="font-normal text-muted">{currency}</span>
        </h2>
        <SumLine
          label="Goods"
          origin={`${countOf(lines.length, 'line')}${free > 0 ? `, ${free} free of charge` : ''}`}
          figure={format.amount(order.net, currency)}
        />
        <SumLine label="Order, net" origin="without tax" figure={format.amount(order.net, currency)} result />
      </section>

      {state === 'draft' && (
        <section>
          <h2 className="head">
            Before approval <span className="font-normal text-muted">! blocks · informs</span>
          </h2>
          <ul className="grid gap-1">
            {!blocked && <Finding mark="✓" tone="text-action" text="price, day and place on every line" />}
            {findings.map((f) => (
              <Finding
                key={`${f.kind}${'lineNo' in f ? f.lineNo : ''}`}
                mark={f.blocks ? '!' : f.kind === 'minimum_reached' ? '✓' : '·'}
                tone={f.blocks ? 'text-stop' : f.kind === 'minimum_reached' ? 'text-action' : 'text-attention'}
                text={findingSentence(f, format, currency)}
              />
            ))}
            {order.aboveLimit !== null && (
              <Finding
                mark="!"
                tone="text-stop"
                text={`above your limit of ${format.amount(order.aboveLimit, currency)}: the owner approves it`}
              />
            )}
          </ul>
        </section>
      )}

      <section className="grid gap-2.5">
        <div className="flex flex-wrap items-center gap-2">
          {state === 'draft' && mayApprove && (
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy || blocked || order.aboveLimit !== null}
              title={blocked ? 'What blocks is listed above' : undefined}
              onClick={() => run('approve-order', { orderId, version }, { words: 'The order was approved' })}
            >
              Approve
            </button>
          )}
          {state === 'approved' && maySend && (
            <>
              <label className="flex items-center gap-1.5">
                <span className="sr-only">How it is sent</span>
                <select className="entry" value={how} onChange={(e) => setHow(e.target.value as typeof how)}>
                  <option value="email">by email</option>
                  <option value="printed">on paper</option>
                  <option value="phone">by phone</option>
                </select>
              </label>
              <button
                type="button"
                className="btn btn-primary"
                disabled={busy}
                onClick={() => run('send-order', { orderId, version, how })}
              >
                {how === 'email' ? 'Send by mail, final' : 'Mark as sent, final'}
              </button>
            </>
          )}
          {(state === 'approved' || state === 'sent') && (
            <Link className="btn btn-outline" href={`/orders/${orderId}/print`}>
              Print
            </Link>
          )}
          {receivable && (
            <Link
              className={`btn ${state === 'sent' ? 'btn-primary' : 'btn-outline'}`}
              href={`/arrivals?order=${orderId}`}
            >
              Book in
            </Link>
          )}
          {order.can.includes('reopen') && (
            <button
              type="button"
              className="btn btn-outline"
              disabled={busy}
              onClick={() => run('reopen-order', { orderId, version })}
            >
              Edit again
            </button>
          )}
          {order.can.includes('put_back') && (
            <button type="button" className="btn btn-outline" disabled={busy} onClick={putBack}>
              {head.number === null
                ? 'Put back into trays'
                : lines.some((l) => l.fromTray)
                  ? 'Cancel, lines to trays'
                  : 'Cancel order'}
            </button>
          )}
        </div>
        {sentence && (
          <p className="fault" role="alert">
            {sentence}{' '}
            {failure?.kind === 'changed_meanwhile' && (
              <button type="button" className="underline" onClick={() => router.refresh()}>
                Show it as it is now
              </button>
            )}
          </p>
        )}
      </section>

      <section>
        <h2 className="head">History</h2>
        <ol className="grid gap-1">
          {order.history.map((h) => (
            <li key={`${h.at}${h.action}`} className="second">
              {format.date(h.at.slice(0, 10))}, {h.who}: {h.action}
              {changeWords(h, format)}
            </li>
          ))}
        </ol>
      </section>
    </div>
  );
}

function Finding({ mark, tone, text }: { mark: string; tone: string; text: string }) {
  return (
    <li className="grid grid-cols-[16px_1fr]">
      <span className={`font-bold ${tone}`} aria-hidden="true">
        {mark}
      </span>
      <span>{text}</span>
    </li>
  );
}

/** Plain values of a change, before and after, as the cells show them; the rest stays in the record. */
function changeWords({ action, before, after }: OrderView['history'][number], format: Format): string {
  const plain = (json: string | null) => {
    const value = json === null ? null : (JSON.parse(json) as unknown);
    if (typeof value !== 'string' || value === '') return null;
    if (action.endsWith(': price')) return format.price(value);
    return action.endsWith(': wanted date') ? format.date(value) : value;
  };
  const [from, to] = [plain(before), plain(after)];
  if (to === null) return '';
  return from === null ? ` ${to}` : ` ${from} → ${to}`;
}
