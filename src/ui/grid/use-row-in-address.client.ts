'use client';

import { useEffect, useRef } from 'react';
import { placeInList } from './use-scan-to-row.client';

/** Where the hand stays for so long is kept. */
const STAYS_MS = 400;

/** Keeps the row that the hand is at in the address, so that coming back, reloading and passing the address on lead to it. */
export function useRowInAddress(kind: string, list: string, id: number | null, go: (entry: number) => void): void {
  const came = useRef(false);
  const latest = useRef(go);
  latest.current = go;
  // Once, when the view comes: the row that the address names.
  useEffect(() => {
    if (came.current) return;
    came.current = true;
    const named = new URLSearchParams(window.location.search).get('row') ?? '';
    if (!/^\d{1,10}$/.test(named)) return;
    placeInList(kind, list, { id: named }).then((entry) => {
      if (entry !== null && entry >= 0) latest.current(entry);
    });
  }, [kind, list]);

  // The row that was there first is not worth an address; one that was moved to is.
  const first = useRef(id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: a list that was read again has written the address without the row.
  useEffect(() => {
    if (id === null || id === first.current) return;
    first.current = null;
    const timer = setTimeout(() => {
      const url = new URL(window.location.href);
      if (url.searchParams.get('row') === String(id)) return;
      url.searchParams.set('row', String(id));
      // Not by the router's own replaceState: that is a navigation to it, and drops a refresh that is under way.
      History.prototype.replaceState.call(window.history, window.history.state, '', url);
    }, STAYS_MS);
    return () => clearTimeout(timer);
  }, [id, list]);
}
