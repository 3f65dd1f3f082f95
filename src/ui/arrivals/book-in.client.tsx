'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { countGoods } from '@/core/purchase';
import { entryText } from '@/core/quantity';
import { fraction } from '@/core/units';
import type { BookedIn } from '@/services/stock/postReceipt';
import type { Arrival, ExpectedLine } from '@/services/stock/readArrivals';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { WholeList } from '../frame/list';
import { takeScans } from '../grid/scans';
import { type FieldItem, itemOfCode } from '../items/item-field.client';
import { NewItemDialog } from '../items/new-item.client';
import { useMay } from '../may-context.client';
import { OrderLink } from '../orders/order-link.client';
import { failureSentence, faultSentence } from '../sentences';
import { Unordered, type UnorderedEntry, withItem } from './unordered.client';

type Entry = { readonly quantity: string; readonly unit: 'pack' | 'base'; readonly lots: string };
const EMPTY: Entry = { quantity: '', unit: 'pack', lots: '' };

const countOn = (entry: Entry, l: ExpectedLine) =>
  countGoods(
    entry.quantity,
    entry.unit,
    { packs: l.openPacks, base: l.openBase },
    fraction(BigInt(l.content.num), BigInt(l.content.den)),
  );

/** Counting goods in: what came per line, in packs or single units; what did not come stays expected. */
type Booked = Pick<BookedIn, 'receipt' | 'crossed' | 'putBy'>;

export function BookIn({ arrival, today, toOrder }: { arrival: Arrival; today: string; toOrder: boolean }) {
  const format = useFormat();
  const router = useRouter();
  const { busy, failure, run } = useCommand();
  const [entries, setEntries] = useState<ReadonlyMap<number, Entry>>(new Map());
  const [besides, setBesides] = useState<readonly UnorderedEntry[]>([]);
  const [note, setNote] = useState('');
  const form = useRef<HTMLFormElement>(null);
  const mayMake = useMay('catalogue.edit');
  const [said, setSaid] = useState('');
  const [unknown, setUnknown] = useState('');
  const [go, setGo] = useState<number | null>(null);
  const entryOf = (l: ExpectedLine) => entries.get(l.partId) ?? EMPTY;
  const put = (l: ExpectedLine, change: Partial<Entry>) =>
    setEntries((all) => new Map(all).set(l.partId, { ...(all.get(l.partId) ?? EMPTY), ...change }));
  const everything = () =>
    setEntries(
      new Map(
        arrival.lines.map((l) => [
          l.partId,
          { ...entryOf(l), quantity: entryText(l.openPacks), unit: 'pack' as const },
        ]),
      ),
    );
  const serverField = failure?.kind === 'invalid_field' ? failure.field : null;
  const filled =
    arrival.lines.filter((l) => entryOf(l).quantity.trim() !== '').length +
    besides.filter((e) => e.quantity.trim() !== '').length;
  const due = arrival.expectedDate ? format.due(arrival.expectedDate, today) : null;

  /** Goes to where the item is counted: its line, or what came besides. */
  const takeItem = (item: FieldItem) => {
    setSaid('');
    if (!arrival.lines.some((l) => l.itemId === item.id)) setBesides((all) => withItem(all, item));
    setGo(item.id);
  };
  useEffect(() => {
    if (go === null) return;
    const field = form.current?.querySelector<HTMLInputElement>(`input[data-item="${go}"]`);
    field?.focus();
    field?.select();
    setGo(null);
  }, [go]);
  const scanned = useRef((_: string) => {});
  scanned.current = async (code: string) => {
    const item = await itemOfCode(code);
    if (item === null) setSaid(`The code ${code} could not be looked up.`);
    else if (item !== 'unknown') takeItem(item);
    else if (mayMake) setUnknown(code);
    else setSaid(`Nothing has the code ${code}.`);
  };
  useEffect(() => takeScans({ take: (code) => scanned.current(code) }), []);

  const submit = async () => {
    const input = {
      orderId: arrival.orderId,
      locationId: arrival.locationId,
      deliveryNote: note.trim(),
      businessDate: '',
      counted: arrival.lines.map((l) => ({ partId: l.partId, ...entryOf(l) })),
      unordered: besides.map(({ item, ...e }) => ({ ...e, itemId: item.id })),
    };
    const words = ({ putBy }: Booked) =>
      [
        `${countOf(filled, 'line')} of ${arrival.supplier} booked in at ${arrival.location}`,
        ...(putBy.length > 0 ? [`put by for ${putBy.map((p) => `${p.order}, ${p.customer}`).join('; ')}`] : []),
      ].join(', ');
    const outcome = await run<Booked>('receive-goods', input, {
      refresh: false,
      words,
    });
    if (!outcome.ok) return;
    const { length } = outcome.value.crossed;
    const above = length > 0 ? `&above=${length}` : '';
    // Nothing may be left to expect here, so this page may be gone: go on to where the receipt shows.
    router.push(toOrder ? `/orders/${arrival.orderId}` : `/arrivals?booked=${outcome.value.receipt}${above}`);
    router.refresh();
  };

  /** Enter goes to the next count, and from the last one to the button. */
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const fields = [...(form.current?.querySelectorAll<HTMLInputElement>('input[data-count]') ?? [])];
    const after = (f: HTMLInputElement) =>
      (event.currentTarget.compareDocumentPosition(f) & Node.DOCUMENT_POSITION_FOLLOWING) !== 0;
    const next = fields.find(after);
    if (next) next.focus();
    else form.current?.querySelector<HTMLButtonElement>('button[type=submit]')?.focus();
  };

  return (
    <WholeList>
      <form
        ref={form}
        onSubmit={(e) => {
          e.preventDefault();
          submit();
        }}
      >
        <div className="bar sticky top-0 z-2">
          <div>
            <h1 className="text-[15px] font-semibold">
              {arrival.supplier} at {arrival.location}
            </h1>
            <p className="second">
              order <OrderLink id={arrival.orderId}>{arrival.number}</OrderLink>
              {due && <span className={due.late > 0 ? 'font-semibold text-stop' : ''}> · expected {due.text}</span>}
            </p>
          </div>
          <div className="ml-auto flex flex-wrap items-center gap-2">
            <button type="button" className="btn btn-outline" onClick={everything}>
              All as expected
            </button>
            <label className="flex items-center gap-1.5">
              <span className="second">Delivery note</span>
              <input className="entry w-28" value={note} maxLength={60} onChange={(e) => setNote(e.target.value)} />
            </label>
            <button
              type="submit"
              className="btn btn-primary"
              disabled={busy || filled === 0}
              title={filled === 0 ? 'Nothing is counted yet' : undefined}
            >
              {busy ? 'Booking in' : `Book in ${filled === 0 ? '' : countOf(filled, 'line')}`}
            </button>
          </div>
          {said && (
            <p className="second w-full" role="status">
              {said}
            </p>
          )}
          {failure && !serverField && (
            <p className="fault w-full" role="alert">
              {failureSentence(failure, format)}
            </p>
          )}
        </div>
        <table className="sheet">
          <thead>
            <tr>
              <th>Item</th>
              <th className="figure max-sm:hidden">Ordered</th>
              <th className="figure max-sm:hidden">Came before</th>
              <th className="figure">Expected</th>
              <th>Counted now</th>
              <th className="max-md:hidden">Then</th>
            </tr>
          </thead>
          <tbody>
            {arrival.lines.map((l) => {
              const entry = entryOf(l);
              const counted = countOn(entry, l);
              const fault = !counted.ok
                ? faultSentence(counted.error, format)
                : failure?.kind === 'invalid_field' && serverField === `counted.${l.partId}`
                  ? faultSentence(failure.fault, format)
                  : null;
              const now = counted.ok ? counted.value : null;
              const rest = now === null ? null : l.openBase - now.base;
              return (
                <tr key={l.partId} className="two">
                  <td>
                    {l.itemId === null ? (
                      <span className="name">{l.description}</span>
                    ) : (
                      <Link className="name" href={`/items/${l.itemId}`} tabIndex={-1}>
                        {l.description}
                      </Link>
                    )}
                    <span className="code block">{l.itemNumber}</span>
                    {l.inspect && <span className="marker mt-1 inline-block">inspect it first</span>}
                    {l.note && <span className="note mt-1 block">{l.note}</span>}
                  </td>
                  <td className="figure max-sm:hidden">
                    {format.quantity(l.orderedPacks)} {plural(l.packName, l.orderedPacks)}
                  </td>
                  <td className="figure max-sm:hidden">
                    {l.received === 0 ? (
                      '–'
                    ) : (
                      <>
                        {format.quantity(l.receivedPacks)} {plural(l.packName, l.receivedPacks)}
                        <span className="second block">
                          {format.quantity(l.received)} {plural(l.unit, l.received)}
                        </span>
                      </>
                    )}
                  </td>
                  <td className="figure font-semibold">
                    {format.quantity(l.openPacks)} {plural(l.packName, l.openPacks)}
                    <span className="second block font-normal">
                      {format.quantity(l.openBase)} {plural(l.unit, l.openBase)}
                    </span>
                  </td>
                  <td>
                    <span className="flex items-center gap-1.5">
                      <input
                        data-count
                        data-item={l.itemId ?? undefined}
                        className="entry figure w-16 max-sm:h-10"
                        inputMode="decimal"
                        aria-label={`Counted ${l.description}`}
                        aria-invalid={fault !== null}
                        value={entry.quantity}
                        onChange={(e) => put(l, { quantity: e.target.value })}
                        onKeyDown={onKey}
                      />
                      {l.packName === l.unit ? (
                        plural(l.unit, 2_000_000)
                      ) : (
                        <select
                          className="entry max-sm:h-10"
                          aria-label={`Counted in, for ${l.description}`}
                          value={entry.unit}
                          onChange={(e) => put(l, { unit: e.target.value as Entry['unit'] })}
                        >
                          <option value="pack">{plural(l.packName, 2_000_000)}</option>
                          <option value="base">{plural(l.unit, 2_000_000)}</option>
                        </select>
                      )}
                    </span>
                    {fault && (
                      <span className="fault block" role="alert">
                        {fault}
                      </span>
                    )}
                    {l.tracking !== 'none' && entry.quantity.trim() !== '' && (
                      <LotsField
                        line={l}
                        value={entry.lots}
                        fault={
                          failure?.kind === 'invalid_field' && serverField === `lots.${l.partId}`
                            ? faultSentence(failure.fault, format)
                            : ''
                        }
                        onChange={(lots) => put(l, { lots })}
                      />
                    )}
                  </td>
                  <td className="max-md:hidden">
                    {rest === null ? (
                      <span className="text-muted">{counted.ok ? 'nothing came, stays expected' : '–'}</span>
                    ) : rest > 0 ? (
                      `${format.quantity(rest)} ${plural(l.unit, rest)} stay expected`
                    ) : rest === 0 ? (
                      'complete'
                    ) : (
                      <span className="font-semibold text-attention">
                        {format.quantity(-rest)} {plural(l.unit, -rest)} more than ordered, booked as they came
                      </span>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
        <Unordered
          entries={besides}
          onChange={setBesides}
          onItem={takeItem}
          onKey={onKey}
          currency={toOrder ? arrival.currency : null}
          fault={(i, field) =>
            failure?.kind === 'invalid_field' && serverField === `unordered.${i}.${field}`
              ? faultSentence(failure.fault, format)
              : ''
          }
        />
      </form>
      {unknown !== '' && <NewItemDialog code={unknown} onClose={() => setUnknown('')} onMade={takeItem} />}
    </WholeList>
  );
}

/** Lots or serial numbers of what came, typed or pasted; without them it is in stock all the same, known by none. */
function LotsField(props: { line: ExpectedLine; value: string; fault: string; onChange: (text: string) => void }) {
  const { line, value } = props;
  const serial = line.tracking === 'serial';
  return (
    <span className="mt-1.5 block">
      <textarea
        className="entry h-auto w-full min-w-40 max-w-80 py-1 font-mono text-[12px]"
        rows={Math.min(6, Math.max(2, value.split('\n').length))}
        aria-label={`${serial ? 'Serial numbers' : 'Lots'} of ${line.description}`}
        aria-invalid={props.fault !== ''}
        placeholder={serial ? 'serial numbers' : 'lot, quantity, best before; one a line'}
        value={value}
        onChange={(e) => props.onChange(e.target.value)}
      />
      {props.fault && (
        <span className="fault block" role="alert">
          {props.fault}
        </span>
      )}
      {value.trim() === '' && (
        <span className="second block">{serial ? 'not known by serial number' : 'not known by lot'} without them</span>
      )}
    </span>
  );
}
