'use client';

import { useEffect, useRef } from 'react';
import { useLetters } from './use-letters.client';

type Keys = readonly (readonly [key: string, does: string])[];

/** The keys of a view, on "?" or the button; there is no standing legend. Where letters are commands, they can be switched
 *  off here. */
export function KeysHelp({ keys, letters = [] }: { keys: Keys; letters?: Keys }) {
  const [on, setOn] = useLetters();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (e.key === '?' && !typing && !dialog.current?.open) dialog.current?.showModal();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button type="button" className="chip" aria-label="Keys of this view" onClick={() => dialog.current?.showModal()}>
        ?
      </button>
      <dialog
        ref={dialog}
        className="m-auto rounded-sm border border-rule-strong bg-sheet p-5 text-ink"
        aria-labelledby="keys-title"
      >
        <h2 id="keys-title" className="head">
          Keys of this view
        </h2>
        <dl className="grid grid-cols-[auto_1fr] gap-x-6 gap-y-1">
          {[...keys, ...(on ? letters : [])].map(([key, does]) => (
            <div key={key} className="contents">
              <dt className="font-semibold">{key}</dt>
              <dd>{does}</dd>
            </div>
          ))}
        </dl>
        {letters.length > 0 && (
          <label className="mt-4 flex items-center gap-2">
            <input type="checkbox" className="accent-action" checked={on} onChange={(e) => setOn(e.target.checked)} />{' '}
            Letter keys
          </label>
        )}
        <form method="dialog" className="mt-4 text-right">
          <button type="submit" className="btn btn-outline">
            Close
          </button>
        </form>
      </dialog>
    </>
  );
}
