'use client';

import { useEffect, useRef, useState } from 'react';

/** Where in an open list something stands, -1 when it is not in it; null when that could not be asked. */
export async function placeInList(kind: string, list: string, what: Readonly<Record<string, string>>) {
  const query = new URLSearchParams({ list, ...what });
  const response = await fetch(`/api/grids/${kind}/find?${query}`).catch(() => null);
  return response?.ok ? ((await response.json()) as { value: { entry: number } }).value.entry : null;
}

/** So long after a scan a list that was asked for before it may still take its place. */
const LATE_MS = 2000;

/** A scan goes to the row of its code in an open list; `said` tells what it did not find. `go` answers with the row it went
 *  to, `current` is where the hand was put, in whatever list. Another list that comes late, as when somebody types in a
 *  search and then scans, is gone to as well, if the hand has not moved on. */
export function useScanToRow(kind: string, list: string, current: number, go: (entry: number) => number) {
  const [said, setSaid] = useState('');
  /** A code that nothing in the list has: it can be looked for elsewhere, or an item be made of it. */
  const [unknown, setUnknown] = useState('');
  const latest = useRef(0);
  const shown = useRef(list);
  shown.current = list;
  const went = useRef({ code: '', list: '', row: -1, at: 0 });
  const take = async (code: string) => {
    latest.current += 1;
    const turn = latest.current;
    let asked = shown.current;
    let entry = await placeInList(kind, asked, { code });
    while (turn === latest.current && asked !== shown.current) {
      asked = shown.current;
      entry = await placeInList(kind, asked, { code });
    }
    if (turn !== latest.current) return;
    if (entry !== null && entry >= 0) {
      setSaid('');
      setUnknown('');
      went.current = { code, list: asked, row: go(entry), at: Date.now() };
    } else if (entry === null) setSaid(`The code ${code} could not be looked up.`);
    else {
      setSaid(`Nothing with the code ${code} is in this list.`);
      setUnknown(code);
    }
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when another list has come.
  useEffect(() => {
    const { code, list: then, row, at } = went.current;
    if (then !== '' && then !== list && row === current && Date.now() - at < LATE_MS) take(code);
  }, [list]);
  return { said, unknown, take };
}
