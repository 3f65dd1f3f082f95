'use client';

import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { clearStrip, noteUndone, noteUndoRefused, onStrip, type Strip, stripSnapshot } from './done';
import type { QueueState } from './queue';
import { queue, sendCommand } from './send';
import { useRefresh } from './use-refresh.client';

const NOTHING: QueueState = { waiting: 0, held: null };
/** So many entries on their way are worth a word; fewer are through before it is read. */
const MANY = 8;
const EMPTY: Strip = { done: null, said: null };

/** At the foot of every page: what is still on its way to the server, and what was done last with its Undo (Ctrl/⌘ Z). */
export function CommandStrip() {
  const state = useSyncExternalStore(queue.subscribe, queue.snapshot, () => NOTHING);
  const strip = useSyncExternalStore(onStrip, stripSnapshot, () => EMPTY);
  const [busy, setBusy] = useState(false);
  const format = useFormat();
  const readAgain = useRefresh();
  const { done } = strip;

  const undo = useCallback(async () => {
    if (!done || busy) return;
    setBusy(true);
    const outcome = await sendCommand('undo', { undoKey: done.key });
    setBusy(false);
    if (!outcome.ok) return noteUndoRefused(`Not undone: ${failureSentence(outcome.failure, format)}`);
    noteUndone(done.key, `Undone: ${done.words}`);
    await readAgain();
  }, [done, busy, format, readAgain]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement;
      if (!(e.ctrlKey || e.metaKey) || e.shiftKey || e.key.toLowerCase() !== 'z' || typing) return;
      e.preventDefault();
      undo();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [undo]);

  // What is not yet saved must not be thrown away by leaving.
  useEffect(() => {
    if (state.waiting === 0) return;
    const stay = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, [state.waiting]);

  const held = state.held !== null;
  const many = !held && state.waiting >= MANY;
  if (!held && !many && !done && !strip.said) return null;
  return (
    <div
      className="screen-only flex min-h-9 shrink-0 flex-wrap items-center gap-x-4 gap-y-1 border-t border-ink bg-paper px-4 py-1.5 max-lg:sticky max-lg:bottom-0"
      role="status"
    >
      {held && (
        <span className="font-semibold text-attention">
          {state.held === 'unreachable' ? 'Vorrat can’t be reached' : 'Your session has ended'}:{' '}
          {state.waiting === 1 ? 'one entry waits' : `${state.waiting} entries wait`} here and will be saved
          {state.held === 'unreachable' ? ' when the line is back' : ' after you sign in'}.
        </span>
      )}
      {many && <span className="font-semibold">{state.waiting} entries are being saved.</span>}
      {done && (
        <span>
          {done.words}{' '}
          <button type="button" className="chip ml-2" disabled={busy} onClick={undo}>
            Undo
          </button>
        </span>
      )}
      {strip.said && (
        <span className={strip.said.fault ? 'fault text-[13px]' : ''} role={strip.said.fault ? 'alert' : undefined}>
          {strip.said.text}
        </span>
      )}
      {(done || strip.said) && (
        <button type="button" className="chip ml-auto" aria-label="Close" onClick={clearStrip}>
          ×
        </button>
      )}
    </div>
  );
}
