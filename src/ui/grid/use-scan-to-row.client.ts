'use client';

import { useRef, useState } from 'react';

/** A scan goes to the row of its code in an open list; `said` tells what it did not find. */
export function useScanToRow(kind: string, list: string, go: (index: number) => void) {
  const [said, setSaid] = useState('');
  const latest = useRef(0);
  const take = async (code: string) => {
    latest.current += 1;
    const turn = latest.current;
    const query = `list=${encodeURIComponent(list)}&code=${encodeURIComponent(code)}`;
    const response = await fetch(`/api/grids/${kind}/find?${query}`).catch(() => null);
    const body = response?.ok ? ((await response.json()) as { value: { entry: number } }) : null;
    if (turn !== latest.current) return;
    if (body && body.value.entry >= 0) {
      setSaid('');
      go(body.value.entry);
    } else
      setSaid(body ? `Nothing with the code ${code} is in this list.` : `The code ${code} could not be looked up.`);
  };
  return { said, take };
}
