'use client';

import Link from 'next/link';
import { type FormEvent, useState } from 'react';
import type { CorrectedStock } from '@/services/stock/correctStock';
import type { StockAt, StockLine } from '@/services/stock/readStock';
import { useCommand } from '../command/use-command.client';
import { type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { useMay } from '../may-context.client';
import { crossedWords } from './words';

type Reasons = readonly { readonly id: number; readonly name: string }[];

/** All terms of an item's stock at each place, who could send some, and putting it right. */
export function StockPanel({ line, currency, reasons }: { line: StockLine; currency: string; reasons: Reasons }) {
  const format = useFormat();
  const units = plural(line.unit, 2_000_000);
  const [first] = line.places;
  const mayCount = useMay('stock.count');
  return (
    <div className="grid gap-6">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="name text-[16px]">
          <Link href={`/items/${line.itemId}`} prefetch={false} className="name">
            {line.name}
          </Link>
        </h2>
        <span className="second whitespace-nowrap">in {units}</span>
      </div>
      {line.places.map((at) => (
        <Place
          key={at.locationId}
          at={at}
          line={line}
          format={format}
          currency={currency}
          reasons={reasons}
          open={line.places.length === 1}
        />
      ))}
      <section>
        <h3 className="head">Who can send some</h3>
        <Senders line={line} format={format} />
      </section>
      {first && (
        <p className="flex flex-wrap gap-x-4 gap-y-1">
          <Link className="link" prefetch={false} href={`/stock/movements?item=${line.itemId}`}>
            Movements
          </Link>
          <Link className="link" prefetch={false} href={`/items/${line.itemId}/outlook?location=${first.locationId}`}>
            Through time
          </Link>
          <Link className="link" prefetch={false} href={`/policies?q=${encodeURIComponent(line.number)}`}>
            Policy
          </Link>
          <Link className="link" prefetch={false} href={`/stock/transfers?item=${line.itemId}`}>
            Ask for some
          </Link>
          {mayCount && (
            <Link className="link" prefetch={false} href={`/stock/counts?items=${line.itemId}`}>
              Count it
            </Link>
          )}
        </p>
      )}
    </div>
  );
}

function Place(props: {
  at: StockAt;
  line: StockLine;
  format: Format;
  currency: string;
  reasons: Reasons;
  open: boolean;
}) {
  const { at, format } = props;
  const mayCount = useMay('stock.count');
  const terms: readonly (readonly [string, number])[] = [
    ['On hand', at.onHand],
    ['− allocated', at.allocated],
    ['− in inspection', at.inspection],
    ['− blocked', at.blocked],
  ];
  const ahead: readonly (readonly [string, number])[] = [
    ['on order', at.onOrder],
    ['in trays and drafts', at.inDrafts],
    ['on the road here', at.inTransit],
    ['approved, not yet sent here', at.toBeSent],
    ['of it bought for requests, one to one', at.pegged],
    ['for places sent to from here', at.planned],
  ];
  const there = ahead.filter(([, q]) => q !== 0);
  return (
    <section>
      <h3 className="head flex justify-between">
        <span>{at.location}</span>
        <span className="figure font-normal text-muted">{format.money(at.value, props.currency)}</span>
      </h3>
      <LevelStrip gauge={at.gauge} format={format} id={`p${at.locationId}`} />
      <p className="second mb-1">{gaugeWords(at.gauge, format)}</p>
      {terms
        .filter(([name, q]) => q !== 0 && (name !== 'On hand' || at.onHand !== at.free))
        .map(([name, q]) => (
          <div key={name} className="flex justify-between py-px">
            <span>{name}</span>
            <span className={`figure ${q < 0 ? 'text-stop' : ''}`}>{format.quantity(q)}</span>
          </div>
        ))}
      <div className="flex justify-between py-px">
        <span className="font-semibold">Free</span>
        <span className={`figure font-semibold ${at.onHand === at.free ? '' : 'border-t border-ink'}`}>
          {format.quantity(at.free)}
        </span>
      </div>
      {there.map(([name, q]) => (
        <div key={name} className="flex justify-between py-px text-muted">
          <span>{name}</span>
          <span className="figure">{format.quantity(q)}</span>
        </div>
      ))}
      {at.onHand < 0 && (
        <p className="mt-1 text-stop">
          More went out than was booked in. It is put right by the next receipt, or by a correction or a count; until
          then what goes out is valued at what it last cost.
        </p>
      )}
      {mayCount && <Correct {...props} />}
    </section>
  );
}

/** "Old Mill can send 8 by tomorrow": surplus of each place and when it would be there. */
function Senders({ line, format }: { line: StockLine; format: Format }) {
  const senders = line.places.filter((p) => p.surplus > 0);
  if (senders.length === 0)
    return <p className="second">No place has more than its minimum and what it will sell until it can refill.</p>;
  const by = line.sentArrives.map((s) => s.date).sort();
  return (
    <ul className="grid gap-1">
      {senders.map((p) => {
        const dates = line.sentArrives
          .filter((s) => s.locationId !== p.locationId)
          .map((s) => s.date)
          .sort();
        const [soonest] = dates.length > 0 ? dates : by;
        return (
          <li key={p.locationId}>
            {p.location} can send <strong className="font-semibold">{format.quantity(p.surplus)}</strong>
            {soonest && <span className="second"> by {format.date(soonest)}</span>}
          </li>
        );
      })}
    </ul>
  );
}

function Correct({
  at,
  line,
  format,
  reasons,
  open,
}: {
  at: StockAt;
  line: StockLine;
  format: Format;
  reasons: Reasons;
  open: boolean;
}) {
  const { busy, sentence, run } = useCommand();
  const [how, setHow] = useState<'by' | 'to'>('by');
  const [quantity, setQuantity] = useState('');
  const [reasonId, setReason] = useState<number | null>(null);
  const [note, setNote] = useState('');
  const [said, setSaid] = useState<string[]>([]);
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run<CorrectedStock>('correct-stock', {
      ...{ locationId: at.locationId, reasonId, note },
      lines: [{ itemId: line.itemId, how, quantity }],
    });
    if (!outcome.ok) return;
    const { correction, crossed, released } = outcome.value;
    setQuantity('');
    setNote('');
    setSaid([
      `Posted as ${correction}.`,
      ...crossed.map((c) => crossedWords(c, format)),
      ...released.map((r) => `${format.quantity(r.quantity)} promised to ${r.promisedTo} could not be kept.`),
    ]);
  };
  return (
    <details className="mt-2" open={open && at.onHand < 0}>
      <summary className="link cursor-pointer">Put stock right</summary>
      <form className="mt-2 grid gap-2" onSubmit={submit}>
        <div className="flex flex-wrap items-center gap-2">
          <select className="entry" aria-label="How" value={how} onChange={(e) => setHow(e.target.value as 'by')}>
            <option value="by">by</option>
            <option value="to">to</option>
          </select>
          <input
            className="entry figure w-20"
            inputMode="decimal"
            aria-label={`Quantity in ${plural(line.unit, 2e6)}`}
            placeholder={how === 'by' ? '−2' : format.quantity(at.onHand)}
            value={quantity}
            onChange={(e) => setQuantity(e.target.value)}
          />
          <select
            className="entry"
            aria-label="Reason"
            value={reasonId ?? ''}
            onChange={(e) => setReason(Number(e.target.value) || null)}
          >
            <option value="">why?</option>
            {reasons.map((r) => (
              <option key={r.id} value={r.id}>
                {r.name}
              </option>
            ))}
          </select>
        </div>
        <input
          className="entry"
          aria-label="Note"
          placeholder="note"
          maxLength={200}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        {said.length > 0 && (
          <div role="status">
            {said.map((s) => (
              <p key={s} className="second">
                {s}
              </p>
            ))}
          </div>
        )}
        <button
          type="submit"
          className="btn btn-outline justify-self-start"
          disabled={busy || quantity.trim() === '' || reasonId === null}
          title={reasonId === null ? 'Say why first' : undefined}
        >
          Post the correction
        </button>
      </form>
    </details>
  );
}
