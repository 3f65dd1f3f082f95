'use client';

import { type FormEvent, useState } from 'react';
import type { EntryMatch } from '@/services/promise/readEntry';
import { useCommand } from '../command/use-command.client';
import { LineEntry } from '../entry/line-entry.client';
import { plural } from '../format';
import { Modal } from '../frame/modal.client';

export type Place = { readonly id: number; readonly name: string };

/** Asks for items by hand, one after the other, each as a part of its need; also without a policy. */
export function ByHandWindow(props: { places: readonly Place[]; first: number; onLeave: (asked: number) => void }) {
  const { busy, sentence, run } = useCommand();
  const [place, setPlace] = useState(props.first);
  const [note, setNote] = useState('');
  const [done, setDone] = useState<readonly { readonly key: string; readonly what: string }[]>([]);
  const name = props.places.find((p) => p.id === place)?.name ?? '';
  const ask = async (m: EntryMatch) => {
    const what = `${m.quantity} ${plural(m.packName, Number(m.quantity) * 1_000_000)} of ${m.name} for ${name}`;
    const input = { itemId: m.itemId, locationId: place, quantity: m.quantity, packId: m.packId, note };
    const outcome = await run('ask-by-hand', input, { refresh: false, words: `${what} is asked for by hand` });
    if (outcome.ok) setDone((all) => [{ key: outcome.key, what }, ...all]);
  };
  return (
    <Modal title="Ask for by hand" width="w-[620px]" onLeave={() => props.onLeave(done.length)}>
      <form
        className="grid min-h-72 content-start gap-3 p-5"
        onSubmit={(e: FormEvent) => {
          e.preventDefault();
        }}
      >
        <h2 className="text-[15px] font-semibold">Ask for by hand</h2>
        <p className="second">
          A part of the need of its item and place, on top of what a policy asks; it goes where a policy’s need goes.
        </p>
        <div className="flex gap-3">
          <label className="grid gap-0.5">
            <span className="second">For</span>
            <select className="entry" value={place} onChange={(e) => setPlace(Number(e.target.value))}>
              {props.places.map((p) => (
                <option key={p.id} value={p.id}>
                  {p.name}
                </option>
              ))}
            </select>
          </label>
          <label className="grid flex-1 gap-0.5">
            <span className="second">Note</span>
            <input
              className="entry w-full"
              value={note}
              maxLength={200}
              placeholder="window display, a class, an offer"
              onChange={(e) => setNote(e.target.value)}
            />
          </label>
        </div>
        <LineEntry label="What is needed" locationId={place} onTake={ask} autoFocus />
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <ul className="grid gap-1" aria-live="polite">
          {done.map((d) => (
            <li key={d.key}>{d.what}</li>
          ))}
        </ul>
        <div>
          <button type="button" className="btn btn-outline" disabled={busy} onClick={() => props.onLeave(done.length)}>
            {done.length > 0 ? 'Show them in the list' : 'Leave it'}
          </button>
        </div>
      </form>
    </Modal>
  );
}
