'use client';

import Link from 'next/link';
import { useEffect, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { AcceptedTogether } from '@/services/planning/acceptNeeds';
import type { ShortOfList } from '@/services/promise/readShort';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';

/** What nothing covers of the lines that a list shows, of many orders together: each with its quantity filled in, to be raised or left
 *  out, decided in one step. */
export function ShortWindow({ list, onLeave }: { list: string; onLeave: () => void }) {
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [found, setFound] = useState<ShortOfList | null>(null);
  const [fault, setFault] = useState('');
  const [packs, setPacks] = useState<ReadonlyMap<number, string>>(new Map());
  useEffect(() => {
    const read = async () => {
      const response = await fetch(`/api/reads/short?list=${list}`).catch(() => null);
      if (response?.ok) setFound(((await response.json()) as { value: ShortOfList }).value);
      else setFault('What is short can’t be read just now. Close this and try again.');
    };
    read();
  }, [list]);
  const quantityOf = (n: ShortOfList['needs'][number]) => packs.get(n.needId) ?? entryText(n.packs);
  const going = (found?.needs ?? []).filter((n) => n.from !== null && quantityOf(n).trim() !== '');
  const decide = async () => {
    const needs = going.map((n) => ({ needId: n.needId, fingerprint: n.fingerprint, packs: quantityOf(n) }));
    const outcome = await run<AcceptedTogether>(
      'accept-needs',
      { needs },
      { words: `${countOf(needs.length, 'need')} of customers’ orders decided` },
    );
    if (outcome.ok) onLeave();
  };
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  return (
    <Modal title="What nothing covers" width="w-[860px]" onLeave={onLeave}>
      <form
        className="grid max-h-[80vh] gap-3 overflow-auto p-5"
        onSubmit={(e) => {
          e.preventDefault();
          decide();
        }}
      >
        <h2 className="text-[15px] font-semibold">What nothing covers</h2>
        {fault && (
          <p className="fault" role="alert">
            {fault}
          </p>
        )}
        {found === null && fault === '' && <p className="second">Looking through the lines …</p>}
        {found && found.needs.length === 0 && <p>Nothing of these lines is waiting for a decision.</p>}
        {found && found.needs.length > 0 && (
          <table className="w-full" aria-label="What nothing covers">
            <thead>
              <tr>
                <th className="second text-left font-normal">Item</th>
                <th className="second text-left font-normal">Who waits</th>
                <th className="second figure font-normal">Missing</th>
                <th className="second pl-4 text-left font-normal">To be decided</th>
              </tr>
            </thead>
            <tbody>
              {found.needs.map((n) => (
                <tr key={n.needId} className="border-t border-rule">
                  <td className="py-1.5 pr-3">
                    {n.item}
                    <span className="second block">
                      <span className="code">{n.number}</span> · {n.location}
                    </span>
                  </td>
                  <td className="pr-3">
                    {n.waits.map((w) => (
                      <span key={`${w.order}${w.wanted}`} className="block">
                        <Link className="link" href={`/promises/${w.orderId}`} prefetch={false}>
                          {w.customer}
                        </Link>{' '}
                        <span className="second">
                          {w.order}, {format.date(w.wanted)}
                        </span>
                      </span>
                    ))}
                  </td>
                  <td className="figure">
                    {format.quantity(n.missing)} <span className="second">{plural(n.unit, n.missing)}</span>
                  </td>
                  <td className="pl-4">
                    {n.from === null ? (
                      <Link className="link" href={`/needs?row=${n.needId}`}>
                        no supplier yet
                      </Link>
                    ) : (
                      <span className="flex items-center gap-1.5 whitespace-nowrap max-sm:flex-wrap">
                        <input
                          className="entry figure w-16"
                          inputMode="decimal"
                          aria-label={`To decide: ${n.item}, ${n.location}`}
                          aria-invalid={going.indexOf(n) >= 0 && wrong === `needs.${going.indexOf(n)}`}
                          value={quantityOf(n)}
                          onChange={(e) => setPacks((all) => new Map(all).set(n.needId, e.target.value))}
                        />
                        <span className="second">
                          {plural(n.packName, n.packs)} from {n.from}
                        </span>
                      </span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {found && found.without > 0 && (
          <p className="second">
            {countOf(found.without, 'line')} more {found.without === 1 ? 'has' : 'have'} no open need: not due yet, put
            off, or nothing refills {found.without === 1 ? 'it' : 'them'} there.
          </p>
        )}
        {found && found.left > 0 && <p className="second">{countOf(found.left, 'line')} of the list not looked at.</p>}
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy || going.length === 0}>
            {going.length === 0 ? 'Nothing to decide' : `Decide ${going.length}`}
          </button>
          <button type="button" className="btn btn-outline" onClick={onLeave}>
            Leave it
          </button>
          {going.length > 0 && <span className="second">An empty quantity leaves a line as it is.</span>}
        </div>
      </form>
    </Modal>
  );
}
