'use client';

import type { OrderView } from '@/services/purchase/readOrder';
import type { Format } from '../format';
import { useFormat } from '../format-context.client';
import { findingSentence } from '../sentences';
import { OrderActions } from './order-actions.client';
import { OrderChanges } from './order-changes';
import { OrderSumsPart } from './order-sums.client';

/** Sums, what is missing, what can be done now, and the history. */
export function OrderPanel({ order }: { order: OrderView }) {
  const format = useFormat();
  const { findings } = order;
  const { currency } = order.head;
  const blocked = findings.some((f) => f.blocks);
  return (
    <div className="grid gap-6">
      <OrderSumsPart order={order} />

      {(order.can.includes('approve') || order.can.includes('edit')) && (
        <section>
          <h2 className="head">
            Before approval <span className="font-normal text-muted">! blocks · informs</span>
          </h2>
          <ul className="grid gap-1">
            {!blocked && <Finding mark="✓" tone="text-action" text="price, day and place on every line" />}
            {findings.map((f) => (
              <Finding
                key={`${f.kind}${'lineNo' in f ? f.lineNo : ''}${'place' in f ? f.place : ''}${'category' in f ? f.category : ''}`}
                mark={f.blocks ? '!' : f.kind === 'minimum_reached' ? '✓' : '·'}
                tone={f.blocks ? 'text-stop' : f.kind === 'minimum_reached' ? 'text-action' : 'text-attention'}
                text={findingSentence(f, format, currency)}
              />
            ))}
            {order.fourEyes && (
              <Finding
                mark="!"
                tone="text-stop"
                text="an order of this sum is approved by somebody else than who entered it"
              />
            )}
            {order.aboveLimit !== null && (
              <Finding
                mark="!"
                tone="text-stop"
                text={`above your limit of ${format.amount(order.aboveLimit, order.baseCurrency)}: somebody else approves it`}
              />
            )}
          </ul>
        </section>
      )}

      <OrderChanges order={order} format={format} />

      <OrderActions order={order} />

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
    if (typeof value === 'object' && value !== null) return saidIn(value as Record<string, unknown>);
    if (typeof value !== 'string' || value === '') return null;
    if (action.endsWith(': price')) return format.price(value);
    return /(wanted|promised|order) date$/.test(action) ? format.date(value) : value;
  };
  const [from, to] = [plain(before), plain(after)];
  if (to === null) return '';
  return from === null ? ` ${to}` : ` ${from} → ${to}`;
}

/** What people said with a step: whom they asked or told, why, a note, a number. */
const saidIn = (value: Record<string, unknown>): string | null =>
  ['asked', 'to', 'reason', 'note', 'reference', 'receipt']
    .flatMap((key) => (typeof value[key] === 'string' && value[key] !== '' ? [value[key] as string] : []))
    .join(', ') || null;
