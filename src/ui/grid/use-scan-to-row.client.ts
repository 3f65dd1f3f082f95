'use client';

import { useRef, useState } from 'react';

/** Where in an open list something stands, -1 when it is not in it; null when that could not be asked. */
export async function placeInList(kind: string, list: string, what: Readonly<Record<string, string>>) {
  const query = new URLSearchParams({ list, ...what });
  const response = await fetch(`/api/grids/${kind}/find?${query}`).catch(() => null);
  return response?.ok ? ((await response.json()) as { value: { entry: number } }).value.entry : null;
}

/** A scan goes to the row of its code in an open list; `said` tells what it did not find. */
export function useScanToRow(kind: string, list: string, go: (entry: number) => void) {
  const [said, setSaid] = useState('');
  const latest = useRef(0);
  const take = async (code: string) => {
    latest.current += 1;
    const turn = latest.current;
    const entry = await placeInList(kind, list, { code });
    if (turn !== latest.current) return;
    if (entry !== null && entry >= 0) {
      setSaid('');
      go(entry);
    } else if (entry === null) setSaid(`The code ${code} could not be looked up.`);
    else setSaid(`Nothing with the code ${code} is in this list.`);
  };
  return { said, take };
}
