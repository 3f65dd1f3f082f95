'use client';

import { useState } from 'react';
import type { PartView } from '@/services/purchase/readOrder';
import type { SplitDone } from '@/services/purchase/splitDeliveries';
import type { Settled } from '../command/send';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';

/** Splits a delivery in two, or spreads it over weeks; the sum stays. */
export function SplitDelivery(props: {
  orderId: number;
  part: PartView;
  about: string;
  packName: string;
  places: readonly { readonly id: number; readonly name: string }[];
}) {
  const { orderId, part, about } = props;
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const [open, setOpen] = useState(false);
  const [off, setOff] = useState({ packs: '', date: '', locationId: part.locationId ?? 0, broken: false });
  const [weeks, setWeeks] = useState('4');
  const [moved, setMoved] = useState<SplitDone['moved']>([]);
  // What was moved is said before the window goes.
  const done = (outcome: Settled<SplitDone>) => {
    if (!outcome.ok) return;
    setMoved(outcome.value.moved);
    setOff({ ...off, packs: '' });
    if (outcome.value.moved.length === 0) setOpen(false);
  };
  const split = async () => done(await run<SplitDone>('split-part', { orderId, partId: part.id, ...off }));
  const spread = async () =>
    done(await run<SplitDone>('spread-part', { orderId, partId: part.id, weeks: Math.trunc(Number(weeks)) }));
  return (
    <>
      <button
        type="button"
        className="chip"
        aria-label={`Split ${about}`}
        onClick={() => {
          setMoved([]);
          setOpen(true);
        }}
      >
        Split
      </button>
      {open && (
        <Modal title={`Split ${about}`} width="w-[520px]" onLeave={() => setOpen(false)}>
          <div className="grid gap-4 p-5">
            <h2 className="text-[15px] font-semibold">{about}</h2>
            <form
              className="grid gap-2"
              onSubmit={(e) => {
                e.preventDefault();
                split();
              }}
            >
              <p className="second">
                Of {format.quantity(part.packs)} {plural(props.packName, part.packs)}, take off for another delivery:
              </p>
              <div className="flex flex-wrap items-end gap-2">
                <label className="grid gap-0.5">
                  <span className="second">Packs</span>
                  <input
                    className="entry figure w-20"
                    inputMode="decimal"
                    value={off.packs}
                    onChange={(e) => setOff({ ...off, packs: e.target.value })}
                    ref={(field) => {
                      if (field && off.packs === '') field.focus();
                    }}
                  />
                </label>
                <label className="grid gap-0.5">
                  <span className="second">Wanted</span>
                  <input
                    className="entry w-28"
                    placeholder={part.wantedDate ? format.date(part.wantedDate) : 'day?'}
                    value={off.date}
                    onChange={(e) => setOff({ ...off, date: e.target.value })}
                  />
                </label>
                <label className="grid gap-0.5">
                  <span className="second">For</span>
                  <select
                    className="entry"
                    value={off.locationId}
                    onChange={(e) => setOff({ ...off, locationId: Number(e.target.value) })}
                  >
                    {props.places.map((p) => (
                      <option key={p.id} value={p.id}>
                        {p.name}
                      </option>
                    ))}
                  </select>
                </label>
                <button type="submit" className="btn btn-primary" disabled={busy || off.packs.trim() === ''}>
                  Split off
                </button>
              </div>
              <label className="second flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={off.broken}
                  onChange={(e) => setOff({ ...off, broken: e.target.checked })}
                />
                broken packs are wanted
              </label>
            </form>
            {part.received === 0 && (
              <form
                className="flex flex-wrap items-end gap-2 border-t border-rule pt-3"
                onSubmit={(e) => {
                  e.preventDefault();
                  spread();
                }}
              >
                <label className="grid gap-0.5">
                  <span className="second">Or evenly over weeks</span>
                  <input
                    className="entry figure w-16"
                    inputMode="numeric"
                    value={weeks}
                    onChange={(e) => setWeeks(e.target.value)}
                  />
                </label>
                <button
                  type="submit"
                  className="btn btn-outline"
                  disabled={busy || !(Number(weeks) >= 2 && Number(weeks) <= 52)}
                >
                  Spread
                </button>
              </form>
            )}
            {moved.length > 0 && (
              <p role="status">
                Done.{' '}
                {moved
                  .map((m) => `Nothing is taken in on ${format.date(m.from)}: wanted ${format.date(m.to)}.`)
                  .join(' ')}
              </p>
            )}
            {sentence && (
              <p className="fault" role="alert">
                {sentence}
              </p>
            )}
          </div>
        </Modal>
      )}
    </>
  );
}
