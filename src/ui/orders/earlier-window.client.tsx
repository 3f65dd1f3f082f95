'use client';

import { useEffect, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { Earlier, EarlierLine } from '@/services/purchase/earlier';
import type { OrderView } from '@/services/purchase/readOrder';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { WindowFoot } from '../frame/window-foot';
import { OrderLink } from './order-link.client';
import { useAddLines } from './use-add-lines.client';

/** Earlier purchases from the order's supplier, each item as it was bought last; several are taken in one go. */
export function EarlierWindow(props: { order: OrderView; locationId: number; onLeave: () => void }) {
  const { order, locationId, onLeave } = props;
  const format = useFormat();
  const { busy, sentence, packs, put, leave, isChosen, add } = useAddLines(order.head.id, locationId);
  const [found, setFound] = useState<Earlier | null>(null);
  const [fault, setFault] = useState('');
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
  const chosen = (found?.lines ?? []).filter((l) => isChosen(l.itemId));
  const toggle = (l: EarlierLine) => (packs.has(l.itemId) ? leave(l.itemId) : put(l.itemId, entryText(l.packs)));
  const take = async () => {
    if (await add(chosen.map(({ itemId, packId }) => ({ itemId, packId })))) onLeave();
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
                      onChange={(e) => put(l.itemId, e.target.value)}
                    />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <WindowFoot sentence={sentence} disabled={busy || chosen.length === 0} onLeave={onLeave}>
          Take {countOf(chosen.length, 'line')}
        </WindowFoot>
      </form>
    </Modal>
  );
}
