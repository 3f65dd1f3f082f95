'use client';

import { useEffect, useRef, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { Earlier, EarlierLine } from '@/services/purchase/earlier';
import type { OrderView } from '@/services/purchase/readOrder';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useRead } from '../frame/use-read.client';
import { WindowFoot } from '../frame/window-foot';
import { type FieldItem, ItemField } from '../items/item-field.client';
import { OrderLink } from './order-link.client';
import { useAddLines } from './use-add-lines.client';

/** Earlier purchases: first of an item that is named, from whomever, then from the order's supplier; several are taken in one go. */
export function EarlierWindow(props: { order: OrderView; locationId: number; onLeave: () => void }) {
  const { order, locationId, onLeave } = props;
  const { busy, sentence, packs, put, leave, isChosen, add } = useAddLines(order.head.id, locationId);
  const [item, setItem] = useState<FieldItem | null>(null);
  const found = useRead<Earlier>(`/api/reads/earlier?order=${order.head.id}${item === null ? '' : `&item=${item.id}`}`);
  // What was chosen stays so when another item is looked for.
  const known = useRef(new Map<number, EarlierLine>());
  const read = found === null || found === 'failed' ? null : found;
  useEffect(() => {
    for (const l of [...(read?.ofItem ?? []), ...(read?.fromSupplier ?? [])])
      if (!known.current.has(l.itemId)) known.current.set(l.itemId, l);
  }, [read]);
  const chosen = [...known.current.values()].filter((l) => isChosen(l.itemId));
  const toggle = (l: EarlierLine) => (packs.has(l.itemId) ? leave(l.itemId) : put(l.itemId, entryText(l.packs)));
  const take = async () => {
    if (await add(chosen.map(({ itemId, packId }) => ({ itemId, packId })))) onLeave();
  };
  const table = { on: new Set(order.lines.map((l) => l.itemId)), packs, onToggle: toggle, onPut: put };
  return (
    <Modal title="Bought before" width="w-[820px]" onLeave={onLeave}>
      <form
        className="grid max-h-[84vh] gap-3 overflow-auto p-5"
        onSubmit={(e) => {
          e.preventDefault();
          take();
        }}
      >
        <h2 className="text-[15px] font-semibold">Bought before</h2>
        <ItemField
          label="Of which item"
          placeholder="of which item? name, number or code"
          taken={item}
          onTake={setItem}
        />
        {found === 'failed' && (
          <p className="fault" role="alert">
            Earlier purchases can’t be read just now. Close this and try again.
          </p>
        )}
        {found === null && <p className="second">Looking through the orders …</p>}
        {read && item && (
          <Bought
            {...table}
            title={`${item.name}, from whomever`}
            empty={`${item.name} was not bought yet.`}
            lines={read.ofItem}
          />
        )}
        {read && (
          <Bought
            {...table}
            title={`From ${order.head.supplierName}`}
            empty={`Nothing ${item ? 'else ' : ''}was bought from this supplier yet.`}
            lines={read.fromSupplier}
          />
        )}
        <WindowFoot sentence={sentence} disabled={busy || chosen.length === 0} onLeave={onLeave}>
          Take {countOf(chosen.length, 'line')}
        </WindowFoot>
      </form>
    </Modal>
  );
}

function Bought(props: {
  title: string;
  empty: string;
  lines: readonly EarlierLine[];
  /** Items that stand on the order already. */
  on: ReadonlySet<number | null>;
  packs: ReadonlyMap<number, string>;
  onToggle: (line: EarlierLine) => void;
  onPut: (itemId: number, text: string) => void;
}) {
  const { title, lines, packs } = props;
  const format = useFormat();
  const suppliers = new Set(lines.map((l) => l.supplier));
  if (lines.length === 0) return <p>{props.empty}</p>;
  return (
    <section>
      <h3 className="head">{title}</h3>
      <table className="w-full" aria-label={title}>
        <thead>
          <tr className="second text-left">
            <th className="font-normal">Item</th>
            <th className="font-normal">Order</th>
            <th className="figure font-normal">Bought</th>
            <th className="figure font-normal">Each</th>
            <th className="pl-4 font-normal">Now</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l, i) => {
            // An item is taken once, however often it was bought.
            const first = lines.findIndex((x) => x.itemId === l.itemId) === i;
            return (
              <tr key={`${l.orderId}${l.itemId}`} className="border-t border-rule">
                <td className="py-1.5 pr-3">
                  {first ? (
                    <label className="flex items-baseline gap-2">
                      <input
                        type="checkbox"
                        aria-label={`Take ${l.name}`}
                        checked={packs.has(l.itemId)}
                        onChange={() => props.onToggle(l)}
                      />
                      <span>
                        {l.name} <span className="code">{l.number}</span>
                        {props.on.has(l.itemId) && <span className="second block">on this order already</span>}
                      </span>
                    </label>
                  ) : (
                    <span className="second pl-5">before that</span>
                  )}
                </td>
                <td className="pr-3 whitespace-nowrap">
                  <OrderLink id={l.orderId}>{l.order}</OrderLink>{' '}
                  <span className="second">{format.date(l.orderDate)}</span>
                  {suppliers.size > 1 && <span className="second block">{l.supplier}</span>}
                </td>
                <td className="figure whitespace-nowrap">
                  {format.quantity(l.packs)} {plural(l.packName, l.packs)}
                </td>
                <td className="figure">{l.each === null ? '–' : `${l.each} ${l.currency}`}</td>
                <td className="pl-4">
                  {first && (
                    <input
                      className="entry figure w-16"
                      inputMode="decimal"
                      aria-label={`Now of ${l.name}`}
                      value={packs.get(l.itemId) ?? ''}
                      onChange={(e) => props.onPut(l.itemId, e.target.value)}
                    />
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
