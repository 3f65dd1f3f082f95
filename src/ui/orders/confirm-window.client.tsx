'use client';

import { useState } from 'react';
import { withCents } from '@/core/money';
import { entryText } from '@/core/quantity';
import type { Confirmed } from '@/services/purchase/confirmOrder';
import type { LineView, OrderView, PartView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useMay } from '../may-context.client';

type Entry = { readonly packs: string; readonly date: string; readonly rest: 'open' | 'cancelled' };
type Priced = { readonly price: string; readonly toList: boolean };

/** Packs of a delivery that come in all: what was said not to come is not waited for. */
const comesOf = (p: PartView) => p.packs - Math.round((p.cancelled / p.base) * p.packs);

/** What the supplier confirmed, beside what was ordered: all as ordered unless something else is typed. */
export function ConfirmWindow({ order, onLeave }: { order: OrderView; onLeave: () => void }) {
  const format = useFormat();
  const { busy, sentence, failure, run } = useCommand();
  const mayList = useMay('catalogue.edit');
  const [reference, setReference] = useState(order.head.supplierReference);
  const [parts, setParts] = useState<ReadonlyMap<number, Entry>>(new Map());
  const [prices, setPrices] = useState<ReadonlyMap<number, Priced>>(new Map());
  const [said, setSaid] = useState<Confirmed | null>(null);
  const going = order.lines
    .filter((l) => !l.unordered)
    .map((line) => ({ line, parts: line.parts.filter((p) => p.base > p.received + p.cancelled) }))
    .filter((x) => x.parts.length > 0);
  const entryOf = (p: PartView): Entry => parts.get(p.id) ?? { packs: '', date: '', rest: 'open' };
  const put = (p: PartView, change: Partial<Entry>) =>
    setParts((all) => new Map(all).set(p.id, { ...entryOf(p), ...change }));
  const asBefore = order.head.confirmedAt ? 'it stands' : 'ordered';
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  const confirm = async () => {
    const outcome = await run<Confirmed>('confirm-order', {
      ...{ orderId: order.head.id, version: order.head.version, reference },
      parts: [...parts].map(([partId, e]) => ({ partId, ...e })),
      prices: [...prices].flatMap(([lineId, p]) => (p.price.trim() === '' ? [] : [{ lineId, ...p }])),
    });
    if (!outcome.ok) return;
    if (outcome.value.promised.length > 0) setSaid(outcome.value);
    else onLeave();
  };
  return (
    <Modal title="What the supplier confirmed" width="w-[900px]" onLeave={onLeave}>
      <form
        className="grid max-h-[86vh] gap-3 overflow-auto p-5"
        onSubmit={(e) => {
          e.preventDefault();
          if (said) onLeave();
          else confirm();
        }}
      >
        <h2 className="text-[15px] font-semibold">
          {order.head.supplierName} confirms {order.head.number}
        </h2>
        <label className="flex items-center gap-2">
          <span className="second">Their number of it</span>
          <input
            className="entry w-44"
            value={reference}
            maxLength={60}
            onChange={(e) => setReference(e.target.value)}
            ref={(field) => {
              if (field && document.activeElement === document.body) field.focus();
            }}
          />
          <span className="second">What is left empty is confirmed as {asBefore}.</span>
        </label>
        <table className="w-full" aria-label="Ordered and confirmed">
          <thead>
            <tr className="second text-left align-bottom">
              <th className="font-normal">Line</th>
              <th className="figure font-normal">Ordered</th>
              <th className="pl-4 font-normal">Confirmed</th>
              <th className="pl-4 font-normal">Wanted</th>
              <th className="pl-3 font-normal">Comes on</th>
              <th className="figure font-normal">Price</th>
              <th className="pl-3 font-normal">Their price</th>
            </tr>
          </thead>
          <tbody>
            {going.map(({ line, parts: own }) =>
              own.map((p, i) => (
                <tr key={p.id} className={`align-top ${i === 0 ? 'border-t border-rule' : ''}`}>
                  <td className="max-w-64 py-1.5 pr-3">
                    {i === 0 && (
                      <>
                        {line.description}
                        <span className="second block code">{line.supplierItemNumber || line.itemNumber}</span>
                      </>
                    )}
                    {own.length > 1 && <span className="second block">{p.location}</span>}
                  </td>
                  <td className="figure py-2 whitespace-nowrap">
                    {format.quantity(p.packs)} {plural(line.packName, p.packs)}
                    {p.cancelled > 0 && (
                      <span className="second block">{format.quantity(p.packs - comesOf(p))} never</span>
                    )}
                  </td>
                  <td className="py-1.5 pl-4">
                    <input
                      className="entry figure w-16"
                      inputMode="decimal"
                      placeholder={entryText(comesOf(p))}
                      aria-label={`Confirmed of ${line.description}, ${p.location}`}
                      aria-invalid={wrong === `packs.${p.id}`}
                      value={entryOf(p).packs}
                      onChange={(e) => put(p, { packs: e.target.value })}
                    />
                    {entryOf(p).packs.trim() !== '' && Number(entryOf(p).packs) < comesOf(p) / 1_000_000 && (
                      <select
                        className="entry mt-1 block"
                        aria-label={`The rest of ${line.description}`}
                        value={entryOf(p).rest}
                        onChange={(e) => put(p, { rest: e.target.value as Entry['rest'] })}
                      >
                        <option value="open">rest later</option>
                        <option value="cancelled">rest never</option>
                      </select>
                    )}
                  </td>
                  <td className="py-2 pl-4 whitespace-nowrap">{p.wantedDate ? format.date(p.wantedDate) : '–'}</td>
                  <td className="py-1.5 pl-3">
                    <input
                      className="entry w-28"
                      placeholder={p.wantedDate ? format.date(p.confirmedDate ?? p.wantedDate) : 'day?'}
                      aria-label={`Comes on, ${line.description}, ${p.location}`}
                      aria-invalid={wrong === `date.${p.id}`}
                      value={entryOf(p).date}
                      onChange={(e) => put(p, { date: e.target.value })}
                    />
                  </td>
                  {i === 0 ? (
                    <PriceCells
                      line={line}
                      entry={prices.get(line.id)}
                      wrong={wrong === `price.${line.id}`}
                      mayList={mayList}
                      put={(priced) => setPrices((all) => new Map(all).set(line.id, priced))}
                    />
                  ) : (
                    <td colSpan={2} />
                  )}
                </tr>
              )),
            )}
          </tbody>
        </table>
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        {said && <p role="status">It was bought for {said.promised.join(', ')}: that is a need again.</p>}
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy}>
            {said ? 'Seen' : parts.size > 0 || prices.size > 0 ? 'Confirmed like this' : `Confirmed as ${asBefore}`}
          </button>
          {!said && (
            <button type="button" className="btn" onClick={onLeave}>
              Leave it
            </button>
          )}
        </div>
      </form>
    </Modal>
  );
}

function PriceCells(props: {
  line: LineView;
  entry: Priced | undefined;
  wrong: boolean;
  mayList: boolean;
  put: (priced: Priced) => void;
}) {
  const { line } = props;
  const format = useFormat();
  const entry = props.entry ?? { price: '', toList: false };
  return (
    <>
      <td className="figure py-2 whitespace-nowrap">
        {line.freeOfCharge ? 'free' : line.price === null ? '–' : format.price(line.price)}
      </td>
      <td className="py-1.5 pl-3">
        <input
          className="entry figure w-20"
          inputMode="decimal"
          placeholder={line.price === null ? '' : withCents(line.price)}
          aria-label={`Their price of ${line.description}`}
          aria-invalid={props.wrong}
          value={entry.price}
          onChange={(e) => props.put({ ...entry, price: e.target.value })}
        />
        {entry.price.trim() !== '' && props.mayList && line.itemId !== null && (
          <label className="second mt-1 flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={entry.toList}
              onChange={(e) => props.put({ ...entry, toList: e.target.checked })}
            />
            on the price list
          </label>
        )}
      </td>
    </>
  );
}
