'use client';

import { useState } from 'react';
import { entryText } from '@/core/quantity';
import type { LineView, OrderView, PartView } from '@/services/purchase/readOrder';
import type { BookedIn } from '@/services/stock/postReceipt';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';

type Going = { readonly line: LineView; readonly part: PartView };

const openOf = ({ part }: Going) => part.base - part.received - part.cancelled;

/** Parts that their supplier still has to send straight to customers, by the place that sold them. */
export function goingStraight(order: OrderView): ReadonlyMap<number, readonly Going[]> {
  const found = new Map<number, Going[]>();
  for (const line of order.lines)
    for (const part of line.parts)
      if (part.straight && part.locationId !== null && openOf({ line, part }) > 0)
        found.set(part.locationId, [...(found.get(part.locationId) ?? []), { line, part }]);
  return found;
}

/** Says that the supplier has sent goods straight to customers: with it they are received here and handed over there. */
export function ConfirmDispatch({ order }: { order: OrderView }) {
  const mayConfirm = useMay('orders.edit');
  const [done, setDone] = useState<readonly string[]>([]);
  const format = useFormat();
  const open = goingStraight(order);
  const can = mayConfirm && order.can.includes('receive');
  if ((!can || open.size === 0) && done.length === 0) return null;
  return (
    <section className="border-t border-rule px-4 py-4">
      <h2 className="head">Sent straight to customers</h2>
      {can &&
        [...open].map(([locationId, going]) => (
          <Place
            key={locationId}
            order={order}
            locationId={locationId}
            going={going}
            onDone={(b) =>
              setDone(
                b.handed.map(
                  (h) =>
                    `${h.order} of ${h.customer}: ${format.quantity(h.quantity)} handed over, receipt ${b.receipt}${h.beyond > 0 ? `; ${format.quantity(h.beyond)} more than it asks for` : ''}.`,
                ),
              )
            }
          />
        ))}
      {done.map((words) => (
        <p key={words} role="status" className="mt-2">
          {words}
        </p>
      ))}
    </section>
  );
}

function Place(props: {
  order: OrderView;
  locationId: number;
  going: readonly Going[];
  onDone: (booked: BookedIn) => void;
}) {
  const { order, locationId, going } = props;
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [typed, setTyped] = useState<ReadonlyMap<number, string>>(new Map());
  const [note, setNote] = useState('');
  const [day, setDay] = useState('');
  const quantityOf = (g: Going) => typed.get(g.part.id) ?? entryText(openOf(g));
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const send = async () => {
    const counted = going.map((g) => ({ partId: g.part.id, quantity: quantityOf(g), unit: 'base' as const }));
    const outcome = await run<BookedIn>(
      'confirm-dispatch',
      { orderId: order.head.id, locationId, deliveryNote: note.trim(), businessDate: day, counted },
      { words: 'Dispatch confirmed' },
    );
    if (outcome.ok) props.onDone(outcome.value);
  };
  return (
    <form
      className="mt-1"
      onSubmit={(e) => {
        e.preventDefault();
        send();
      }}
    >
      <ul className="grid gap-1.5">
        {going.map((g) => (
          <li key={g.part.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
            <input
              className="entry figure w-20"
              inputMode="decimal"
              aria-label={`Sent of ${g.line.description} to ${g.part.location}`}
              aria-invalid={wrong === `counted.${g.part.id}`}
              value={quantityOf(g)}
              onChange={(e) => setTyped((all) => new Map(all).set(g.part.id, e.target.value))}
            />
            <span>
              {plural(g.line.unit, openOf(g))} of {format.quantity(openOf(g))}, {g.line.description}
            </span>
            <span className="second">
              to {g.part.location}, {g.part.straight?.order}
            </span>
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-1.5">
          <span className="second">Dispatch note</span>
          <input className="entry w-40" value={note} maxLength={60} onChange={(e) => setNote(e.target.value)} />
        </label>
        <label className="flex items-center gap-1.5">
          <span className="second">Sent on</span>
          <input
            className="entry w-28"
            placeholder="today"
            aria-invalid={wrong === 'businessDate'}
            value={day}
            onChange={(e) => setDay(e.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-outline" disabled={busy}>
          Confirm dispatch
        </button>
      </div>
      {sentence && (
        <p className="fault mt-1" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
