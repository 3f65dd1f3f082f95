'use client';

import { useEffect, useState } from 'react';
import type { FamilyCell, FamilyGrid } from '@/services/purchase/familyGrid';
import type { LineView, OrderView } from '@/services/purchase/readOrder';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { WindowFoot } from '../frame/window-foot';
import { useAddLines } from './use-add-lines.client';

/** The whole family of an item by its options: packs are typed into the grid and added in one go. */
export function FamilyWindow(props: { order: OrderView; line: LineView; onLeave: () => void }) {
  const { order, line, onLeave } = props;
  const format = useFormat();
  const locationId = line.parts[0]?.locationId ?? order.head.locationId ?? order.places[0]?.id ?? 0;
  const { busy, sentence, packs, put, isChosen, add } = useAddLines(order.head.id, locationId);
  const [grid, setGrid] = useState<FamilyGrid | null>(null);
  const [fault, setFault] = useState('');
  const orderId = order.head.id;
  useEffect(() => {
    const read = async () => {
      const address = `/api/reads/family?order=${orderId}&item=${line.itemId}&place=${locationId}`;
      const response = await fetch(address).catch(() => null);
      if (response?.ok) setGrid(((await response.json()) as { value: FamilyGrid }).value);
      else setFault('The family can’t be read just now. Close this and try again.');
    };
    read();
  }, [orderId, line.itemId, locationId]);
  const chosen = (grid?.cells ?? []).filter((c) => isChosen(c.itemId));
  const place = order.places.find((p) => p.id === locationId)?.name ?? '';
  const cell = (c: FamilyCell | undefined) =>
    c === undefined ? (
      <span className="text-muted">–</span>
    ) : (
      <span className="grid justify-items-end">
        <input
          className="entry figure w-16"
          inputMode="decimal"
          aria-label={`Packs of ${c.name}`}
          value={packs.get(c.itemId) ?? ''}
          onChange={(e) => put(c.itemId, e.target.value)}
        />
        <span className="second whitespace-nowrap">
          {format.quantity(c.free)} free{c.coming > 0 && `, ${format.quantity(c.coming)} coming`}
        </span>
        {c.onOrder > 0 && (
          <span className="second whitespace-nowrap">
            {format.quantity(c.onOrder)} {plural(c.packName, c.onOrder)} on it
          </span>
        )}
        {!c.sold && <span className="second">not theirs yet</span>}
      </span>
    );
  return (
    <Modal title={grid?.family ?? 'Family'} width="w-[760px]" onLeave={onLeave}>
      <form
        className="grid max-h-[84vh] gap-3 overflow-auto p-5"
        onSubmit={async (e) => {
          e.preventDefault();
          if (await add(chosen.map(({ itemId }) => ({ itemId })))) onLeave();
        }}
      >
        <h2 className="text-[15px] font-semibold">
          {grid?.family ?? 'The family'} <span className="second font-normal">for {place}, in packs</span>
        </h2>
        {fault && (
          <p className="fault" role="alert">
            {fault}
          </p>
        )}
        {grid === null && fault === '' && <p className="second">Looking up the family …</p>}
        {grid && grid.across.length === 1 && (
          <fieldset
            aria-label={grid.family}
            className="grid grid-cols-[repeat(auto-fill,minmax(130px,1fr))] gap-x-4 gap-y-2.5"
          >
            {grid.cells.map((c) => (
              <span key={c.itemId} className="grid content-start gap-0.5 border-t border-rule pt-1">
                <span className="font-semibold">{c.value1}</span>
                {cell(c)}
              </span>
            ))}
          </fieldset>
        )}
        {grid && grid.across.length > 1 && (
          <table className="w-fit" aria-label={grid.family}>
            <thead>
              <tr className="second text-left">
                <th className="pr-6 font-normal">{grid.option1}</th>
                {grid.across.map((value) => (
                  <th key={value} className="figure px-2 font-normal">
                    {value}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {grid.down.map((value1) => (
                <tr key={value1} className="border-t border-rule align-top">
                  <th className="py-2 pr-6 text-left font-semibold">{value1}</th>
                  {grid.across.map((value2) => (
                    <td key={value2} className="figure px-2 py-1.5">
                      {cell(grid.cells.find((c) => c.value1 === value1 && c.value2 === value2))}
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <WindowFoot sentence={sentence} disabled={busy || chosen.length === 0} onLeave={onLeave}>
          Add {countOf(chosen.length, 'line')}
        </WindowFoot>
      </form>
    </Modal>
  );
}
