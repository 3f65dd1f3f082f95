'use client';

import { useState } from 'react';
import { decimalsOf, withCents } from '@/core/money';
import { fromDecimal, toDecimal } from '@/core/quantity';
import type { EditedOrder } from '@/services/purchase/editOrder';
import type { LineView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { originWords } from '../items/words';
import { failureSentence } from '../sentences';
import { useSavedEntry } from './use-saved-entry.client';
import { reasonWords } from './words';

/** A cell that saves what was typed when it is left or on Enter; a refusal stands below it and the entry stays. */
export function Cell(props: {
  label: string;
  value: string;
  placeholder?: string;
  className: string;
  save: (now: string) => Promise<string | null>;
}) {
  const { shown, fault, type, commit, leave } = useSavedEntry(props.value, props.save);
  return (
    <span className="inline-block">
      <input
        placeholder={props.placeholder}
        className={`entry ${props.className}`}
        aria-label={props.label}
        aria-invalid={fault !== null}
        value={shown}
        onChange={(e) => type(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === 'Enter') commit();
          if (e.key === 'Escape') leave();
        }}
      />
      {fault && (
        <span className="fault block max-w-56 text-left whitespace-normal" role="alert">
          {fault}
        </span>
      )}
    </span>
  );
}

const cellNames: Readonly<Record<string, string>> = {
  packs: 'quantity',
  wantedDate: 'wanted date',
  price: 'price',
  freeOfCharge: 'free of charge',
  edition: 'edition',
  printedNote: 'printed note',
  internalNote: 'internal note',
  priceReason: 'reason of the price',
  discount: 'discount',
  promisedDate: 'promised date',
  place: 'place',
  purpose: 'purpose',
  taxCategory: 'tax category',
  costTo: 'account',
  inspect: 'inspection',
  matching: 'matching',
};

export function useEdit(orderId: number) {
  const { run } = useCommand();
  const format = useFormat();
  return async (edit: {
    readonly field: string;
    readonly now?: string;
    readonly [more: string]: unknown;
  }): Promise<string | null> => {
    // A line that is taken away is not brought back by Undo; its need can be ordered again.
    const done = ({ stored, insteadOf }: EditedOrder) =>
      edit.field === 'place'
        ? 'It is delivered to another place'
        : edit.field === 'wantedDate' && stored
          ? `The wanted date was changed to ${format.date(stored)}${insteadOf ? `: nothing is taken in on ${format.date(insteadOf)}` : ''}`
          : `The ${cellNames[edit.field]} was changed to ${edit.now || 'none'}`;
    const outcome = await run<EditedOrder>(
      ...(['edit-order', { orderId, ...edit }, edit.field === 'remove' ? {} : { words: done }] as const),
    );
    return outcome.ok ? null : failureSentence(outcome.failure, format);
  };
}

/** How far a price is from the one that was expected. */
const difference = (line: LineView): string =>
  toDecimal(Math.abs(fromDecimal(line.price ?? '0') - fromDecimal(line.expected ?? '0')));

export function Price({ line }: { line: LineView }) {
  const format = useFormat();
  if (line.freeOfCharge) return <>free of charge</>;
  if (line.price === null) return <span className="marker">no price</span>;
  return (
    <>
      {format.price(line.price)}
      {line.per !== '1' && <span className="second"> for {line.per}</span>}
      <span className="second block">{line.each} each</span>
      {line.discount !== '0' && <span className="second block">less {format.percent(line.discount)} %</span>}
      {line.priceReason && <span className="marker">{reasonWords[line.priceReason]}</span>}
    </>
  );
}

/** What the line costs more than at the expected price, in minor units. */
const moreThanExpected = (line: LineView, currency: string): number =>
  Math.round(
    (((Number(line.price) - Number(line.expected)) * line.packs) / 1_000_000 / Number(line.per)) *
      10 ** decimalsOf(currency),
  );

export function PriceCell({ orderId, line, currency }: { orderId: number; line: LineView; currency: string }) {
  const format = useFormat();
  const edit = useEdit(orderId);
  const price = line.price ?? '';
  const differs = line.expected !== null && line.price !== null && Number(line.expected) !== Number(line.price);
  return (
    <span className="grid justify-items-end gap-0.5">
      <Cell
        label={`Price of ${line.description}`}
        value={price === '' ? '' : withCents(price)}
        placeholder="price?"
        className="figure w-20"
        save={(now) => edit({ field: 'price', lineId: line.id, was: price, now })}
      />
      <span className="second">
        {line.per !== '1' && `for ${line.per} · `}
        {line.each ? `${line.each} each` : 'no price on file'}
        {line.discount !== '0' && <span className="block">less {format.percent(line.discount)} %</span>}
      </span>
      {line.origin && <span className="marker">{originWords[line.origin]}</span>}
      {differs && (
        <>
          <span className="marker">
            list {format.price(line.expected as string)}, {Number(line.price) > Number(line.expected) ? '+' : '−'}
            {format.price(difference(line))}
          </span>
          <span className="second">
            {format.amount(Math.abs(moreThanExpected(line, currency)), currency)} on the line
          </span>
          <select
            className="entry"
            aria-label={`Why ${line.description} costs this`}
            value={line.priceReason ?? ''}
            onChange={(e) =>
              edit({ field: 'priceReason', lineId: line.id, was: line.priceReason ?? '', now: e.target.value })
            }
          >
            <option value="">why?</option>
            {Object.entries(reasonWords).map(([reason, words]) => (
              <option key={reason} value={reason} disabled={reason === 'confirmed'}>
                {words}
              </option>
            ))}
          </select>
        </>
      )}
      {(line.price === null || Number(line.price) === 0 || line.freeOfCharge) && (
        <label className="second flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={line.freeOfCharge}
            onChange={(e) =>
              edit({
                field: 'freeOfCharge',
                lineId: line.id,
                was: String(line.freeOfCharge),
                now: String(e.target.checked),
              })
            }
          />
          free of charge
        </label>
      )}
    </span>
  );
}

/** What is printed with a line, and what only we read, when it is booked in too. */
export function Notes({ orderId, line, editable }: { orderId: number; line: LineView; editable: boolean }) {
  const edit = useEdit(orderId);
  const [open, setOpen] = useState(false);
  const shown = open || line.printedNote !== '' || line.internalNote !== '';
  if (!editable)
    return (
      <>
        {line.printedNote && <span className="note mt-1 block">{line.printedNote}</span>}
        {line.internalNote && <span className="note mt-1 block">for us: {line.internalNote}</span>}
      </>
    );
  if (!shown)
    return (
      <button
        type="button"
        className="link second inline-flex min-h-6 items-center"
        aria-label={`A note with ${line.description}`}
        onClick={() => setOpen(true)}
      >
        note
      </button>
    );
  return (
    <span className="mt-1 grid gap-1">
      {(['printedNote', 'internalNote'] as const).map((field) => (
        <Cell
          key={field}
          label={`${field === 'printedNote' ? 'Printed with' : 'For us, with'} ${line.description}`}
          value={line[field]}
          placeholder={field === 'printedNote' ? 'printed on the order' : 'for us, shown when it is booked in'}
          className="w-full"
          save={(now) => edit({ field, lineId: line.id, was: line[field], now })}
        />
      ))}
    </span>
  );
}

/** The edition that is ordered: the latest, unless another is typed. */
export function Edition({ orderId, line, editable }: { orderId: number; line: LineView; editable: boolean }) {
  const edit = useEdit(orderId);
  if (!editable) return <span className="second block">{line.edition}</span>;
  return (
    <Cell
      label={`Edition of ${line.description}`}
      value={line.edition}
      className="h-6 w-36 text-[11.5px]"
      save={(now) => edit({ field: 'edition', lineId: line.id, was: line.edition, now })}
    />
  );
}

export function RemoveLine({ orderId, line }: { orderId: number; line: LineView }) {
  const edit = useEdit(orderId);
  const [fault, setFault] = useState<string | null>(null);
  return (
    <>
      <button
        type="button"
        className="chip"
        aria-label={line.fromTray ? `Put ${line.description} back into its tray` : `Remove ${line.description}`}
        onClick={async () => setFault(await edit({ field: 'remove', lineId: line.id, was: '' }))}
      >
        {line.fromTray ? 'To tray' : 'Remove'}
      </button>
      {fault && (
        <span className="fault block whitespace-normal" role="alert">
          {fault}
        </span>
      )}
    </>
  );
}
