'use client';

import { useState } from 'react';
import type { AskedFor } from '@/services/purchase/askedFor';
import type { Filled } from '@/services/purchase/fillFromNeeds';
import type { OrderView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';
import { useRead } from '../frame/use-read.client';
import { WindowFoot } from '../frame/window-foot';

/** What customers, shops and jobs of ours ask for by name and this supplier sells; several are taken onto the order in one go. */
export function AskedWindow({ order, onLeave }: { order: OrderView; onLeave: () => void }) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const orderId = order.head.id;
  const found = useRead<AskedFor>(`/api/reads/asked-for?order=${orderId}`);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const toggle = (key: string) => {
    const next = new Set(chosen);
    if (!next.delete(key)) next.add(key);
    setChosen(next);
  };
  const asked = found === null || found === 'failed' ? { needs: [], lines: [], materials: [] } : found;
  const needIds = asked.needs.flatMap((n) => (chosen.has(`need ${n.needId}`) ? n.needId : []));
  const lines = asked.lines.filter((l) => chosen.has(`${l.of} ${l.id}`)).map(({ of, id }) => ({ of, id }));
  const materialIds = asked.materials.flatMap((m) => (chosen.has(`job ${m.id}`) ? m.id : []));
  const many = asked.needs.length + asked.lines.length + asked.materials.length;
  const take = async () => {
    if (materialIds.length > 0) {
      const last = needIds.length + lines.length === 0;
      const taken = await run('take-materials', { orderId, materialIds }, { refresh: last });
      if (!taken.ok) return;
    }
    if (lines.length > 0) {
      const bought = await run<{ taken: number }>(
        'buy-one-to-one',
        { orderId, lines },
        { refresh: needIds.length === 0, words: (b) => `${countOf(b.taken, 'line')} bought one to one` },
      );
      if (!bought.ok) return;
    }
    if (needIds.length > 0) {
      const filled = await run<Filled>(
        'fill-from-needs',
        { orderId, locationId: null, warned: true, needIds },
        { words: (f) => `${countOf(f.taken, 'need')} decided and put on the order` },
      );
      if (!filled.ok) return;
    }
    onLeave();
  };
  const row = (r: {
    key: string;
    number: string;
    name: string;
    who: string;
    place: string;
    much: string;
    by: string | null;
  }) => (
    <tr key={r.key} className="border-t border-rule">
      <td className="py-1.5 pr-3">
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            aria-label={`Take ${r.name} for ${r.who}`}
            checked={chosen.has(r.key)}
            onChange={() => toggle(r.key)}
          />
          <span>
            {r.name} <span className="code">{r.number}</span>
          </span>
        </label>
      </td>
      <td className="pr-3">{r.who}</td>
      <td className="pr-3">{r.place}</td>
      <td className="figure pr-3 whitespace-nowrap">{r.much}</td>
      <td className="whitespace-nowrap">{r.by ? format.date(r.by) : '–'}</td>
    </tr>
  );
  return (
    <Modal title="Asked for by name" width="w-[820px]" onLeave={onLeave}>
      <form
        className="grid max-h-[84vh] gap-3 overflow-auto p-5"
        onSubmit={(e) => {
          e.preventDefault();
          take();
        }}
      >
        <h2 className="text-[15px] font-semibold">Asked for by name, of what {order.head.supplierName} sells</h2>
        {found === null && <p className="second">Looking through customers’ orders, requests and jobs …</p>}
        {found === 'failed' && (
          <p className="fault" role="alert">
            This can’t be read just now. Close it and try again.
          </p>
        )}
        {found !== null && found !== 'failed' && many === 0 && (
          <p>No customer, shop or job waits for anything that this supplier sells.</p>
        )}
        {many > 0 && (
          <table className="w-full" aria-label="Asked for by name">
            <thead>
              <tr className="second text-left">
                <th className="font-normal">Item</th>
                <th className="font-normal">For</th>
                <th className="font-normal">Place</th>
                <th className="figure pr-3 font-normal">To buy</th>
                <th className="font-normal">By</th>
              </tr>
            </thead>
            <tbody>
              {asked.needs.map((n) =>
                row({
                  ...{ key: `need ${n.needId}`, number: n.itemNumber, name: n.itemName, who: n.who, place: n.location },
                  ...{ much: `${format.quantity(n.packs)} ${plural(n.packName, n.packs)}`, by: n.runOut },
                }),
              )}
              {asked.lines.map((l) =>
                row({
                  ...{ key: `${l.of} ${l.id}`, number: l.itemNumber, name: l.itemName, place: l.location, by: l.by },
                  who: `${l.who}, one to one`,
                  much: `${format.quantity(l.packs)} ${plural(l.packName, l.packs)} for ${format.quantity(l.open)} ${plural(l.unitName, l.open)}`,
                }),
              )}
              {asked.materials.map((m) =>
                row({
                  ...{ key: `job ${m.id}`, number: m.itemNumber, name: m.itemName, place: m.location },
                  who: `job ${m.job}${m.name ? `, ${m.name}` : ''}`,
                  much: `${format.quantity(m.packs)} ${plural(m.packName, m.packs)} for ${format.quantity(m.open)} ${plural(m.unitName, m.open)}`,
                  by: m.neededOn,
                }),
              )}
            </tbody>
          </table>
        )}
        <WindowFoot
          sentence={sentence}
          disabled={busy || needIds.length + lines.length + materialIds.length === 0}
          onLeave={onLeave}
        >
          Take {countOf(needIds.length + lines.length + materialIds.length, 'line')}
        </WindowFoot>
      </form>
    </Modal>
  );
}
