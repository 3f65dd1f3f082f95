'use client';

import { type FormEvent, useState } from 'react';
import { baseQuantity } from '@/core/packs';
import { checkLineQuantity } from '@/core/purchase';
import { fraction } from '@/core/units';
import type { AcceptedNeed } from '@/services/planning/acceptNeed';
import type { NeedView } from '@/services/planning/needViews';
import type { WayDelivery, WayView } from '@/services/planning/readWays';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';

const keyOf = (d: WayDelivery): string => (d.sourceId === null ? `p${d.locationId}` : `s${d.sourceId}`);

/** Everybody who could bring some of a need, once each, in the order of the ways. */
export function bringersOf(ways: readonly WayView[]): WayDelivery[] {
  const found = new Map<string, WayDelivery>();
  for (const { deliveries } of ways) for (const d of deliveries) if (!found.has(keyOf(d))) found.set(keyOf(d), d);
  return [...found.values()];
}

/** A need split over several suppliers or places: so much from each, with what it comes to against what is missing. */
export function SplitWindow(props: {
  need: NeedView;
  ways: readonly WayView[];
  missing: number;
  onDone: (key: string, accepted: AcceptedNeed, packs: string) => void;
  onLeave: () => void;
}) {
  const { need, missing } = props;
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const bringers = bringersOf(props.ways);
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
  const parts = bringers.flatMap((d) => {
    const text = (typed[keyOf(d)] ?? '').trim();
    if (text === '' || /^0+$/.test(text)) return [];
    const checked = checkLineQuantity(text);
    const content = fraction(BigInt(d.base), BigInt(d.packs));
    return [{ d, text, ok: checked.ok, base: checked.ok ? baseQuantity(checked.value, content) : 0 }];
  });
  const sum = parts.reduce((a, p) => a + p.base, 0);
  const rest = missing - sum;
  const split = async (event: FormEvent) => {
    event.preventDefault();
    const [first, ...also] = parts.map(({ d, text }) => ({
      packs: text,
      way: d.sourceId === null ? { locationId: d.locationId } : { sourceId: d.sourceId },
    }));
    if (!first) return;
    const outcome = await run<AcceptedNeed>(
      'accept-need',
      { needId: need.id, fingerprint: need.fingerprint, ...first, also },
      { refresh: false, words: `${need.itemName} for ${need.location} was split over ${parts.length}` },
    );
    if (outcome.ok) props.onDone(outcome.key, outcome.value, first.packs);
  };
  const title = `Split ${need.itemName}`;
  return (
    <Modal title={title} width="w-[560px]" onLeave={props.onLeave}>
      <form className="grid gap-3 p-5" onSubmit={split}>
        <h2 className="text-[15px] font-semibold">
          {title} <span className="font-normal text-muted">for {need.location}</span>
        </h2>
        <table className="w-full">
          <thead>
            <tr className="second text-left">
              <th className="font-normal">From</th>
              <th className="font-normal">Here on</th>
              <th className="figure font-normal">So much</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {bringers.map((d) => (
              <tr key={keyOf(d)} className="border-rule border-t">
                <td className="py-1">{d.name}</td>
                <td>{format.date(d.arrives)}</td>
                <td className="figure w-24">
                  <input
                    className="entry figure w-20"
                    inputMode="decimal"
                    aria-label={`From ${d.name} in ${plural(d.packName || need.unit, 2_000_000)}`}
                    aria-invalid={parts.some((p) => p.d === d && !p.ok)}
                    value={typed[keyOf(d)] ?? ''}
                    onChange={(e) => setTyped({ ...typed, [keyOf(d)]: e.target.value })}
                  />
                </td>
                <td className="second pl-2">{plural(d.packName || need.unit, 2_000_000)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        <p role="status">
          {format.quantity(sum)} of {format.quantity(missing)} {plural(need.unit, missing)} that are missing
          {rest > 0 ? `, ${format.quantity(rest)} left` : rest < 0 ? `, ${format.quantity(-rest)} over` : ''}
        </p>
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex items-center gap-3">
          <button
            type="submit"
            className="btn btn-primary"
            disabled={busy || parts.length === 0 || parts.some((p) => !p.ok)}
          >
            Take {parts.length > 1 ? `these ${parts.length}` : 'it'}
          </button>
          <button type="button" className="btn" onClick={props.onLeave}>
            Leave it
          </button>
        </div>
      </form>
    </Modal>
  );
}
