'use client';

import { useEffect, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { Earlier, EarlierLine } from '@/services/purchase/earlier';
import type { OrderView } from '@/services/purchase/readOrders';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { OrderLink } from './order-link.client';

/** Earlier purchases from the order's supplier, each item as it was bought last; several are taken in one go. */
export function EarlierWindow(props: { order: OrderView; locationId: number; onLeave: () => void }) {
  const { order, locationId, onLeave } = props;
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const [found, setFound] = useState<Earlier | null>(null);
  const [fault, setFault] = useState('');
  const [packs, setPacks] = useState<ReadonlyMap<number, string>>(new Map());
  const orderId = order.head.id;
  useEffect(() => {
    const read = async () => {
      const response = await fetch(`/api/reads/earlier?order=${orderId}`).catch(() => null);
      if (response?.ok) setFound(((await response.json()) as { value: Earlier }).value);
      else setFault('Earlier purchases can’t be read just now. Close this and try again.');
    };
    read();
  }, [orderId]);
  const on = new Set(order.lines.map((l) => l.itemId));
  const chosen = (found?.lines ?? []).filter((l) => (packs.get(l.itemId) ?? '').trim() !== '');
  const toggle = (l: EarlierLine) =>
    setPacks((all) => {
      const next = new Map(all);
      if (next.has(l.itemId)) next.delete(l.itemId);
      else next.set(l.itemId, entryText(l.packs));
      return next;
    });
  const take = async () => {
    for (const l of chosen) {
      const { itemId, packId } = l;
      const line = { orderId, itemId, packId, locationId, packs: packs.get(itemId) ?? '', price: '' };
      const outcome = await run('add-order-line', line, { refresh: l === chosen.at(-1) });
      if (!outcome.ok) return;
      // What is on the order is not added twice when a later one is refused.
      setPacks((all) => new Map([...all].filter(([id]) => id !== itemId)));
    }
    onLeave();
  };
  return (
    <Modal title="Bought before" width="w-[820px]" onLeave={onLeave}>
      <form
        className="grid max-h-[84vh] gap-3 overflow-auto p-5"
        onSubmit={(e) => {
          e.preventDefault();
          take();
        }}
      >
        <h2 className="text-[15px] font-semibold">Bought before from {order.head.supplierName}</h2>
        {fault && (
          <p className="fault" role="alert">
            {fault}
          </p>
        )}
        {found === null && fault === '' && <p className="second">Looking through the orders …</p>}
        {found?.lines.length === 0 && <p>Nothing was bought from this supplier yet.</p>}
        {found && found.lines.length > 0 && (
          <table className="w-full" aria-label="Bought before">
            <thead>
              <tr className="second text-left">
                <th className="font-normal">Item</th>
                <th className="font-normal">Last order</th>
                <th className="figure font-normal">Bought</th>
                <th className="figure font-normal">Each</th>
                <th className="pl-4 font-normal">Now</th>
              </tr>
            </thead>
            <tbody>
              {found.lines.map((l) => (
                <tr key={l.itemId} className="border-t border-rule">
                  <td className="py-1.5 pr-3">
                    <label className="flex items-baseline gap-2">
                      <input
                        type="checkbox"
                        aria-label={`Take ${l.name}`}
                        checked={packs.has(l.itemId)}
                        onChange={() => toggle(l)}
                      />
                      <span>
                        {l.name} <span className="code">{l.number}</span>
                        {on.has(l.itemId) && <span className="second block">on this order already</span>}
                      </span>
                    </label>
                  </td>
                  <td className="pr-3 whitespace-nowrap">
                    <OrderLink id={l.orderId}>{l.order}</OrderLink>{' '}
                    <span className="second">{format.date(l.orderDate)}</span>
                  </td>
                  <td className="figure whitespace-nowrap">
                    {format.quantity(l.packs)} {plural(l.packName, l.packs)}
                  </td>
                  <td className="figure">{l.each === null ? '–' : `${l.each} ${l.currency}`}</td>
                  <td className="pl-4">
                    <input
                      className="entry figure w-16"
                      inputMode="decimal"
                      aria-label={`Now of ${l.name}`}
                      value={packs.get(l.itemId) ?? ''}
                      onChange={(e) => setPacks((all) => new Map(all).set(l.itemId, e.target.value))}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy || chosen.length === 0}>
            Take {countOf(chosen.length, 'line')}
          </button>
          <button type="button" className="btn" onClick={onLeave}>
            Leave it
          </button>
        </div>
      </form>
    </Modal>
  );
}
