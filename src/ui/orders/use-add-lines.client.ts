'use client';

import { useState } from 'react';
import { useCommand } from '../command/use-command.client';

/** Packs that are entered for several items and added to an order in one go; what is on it is not added twice when a later one is
 *  refused. `packId` undefined = the usual pack. */
export function useAddLines(orderId: number, locationId: number) {
  const { busy, sentence, run } = useCommand();
  const [packs, setPacks] = useState<ReadonlyMap<number, string>>(new Map());
  const put = (itemId: number, text: string) => setPacks((all) => new Map(all).set(itemId, text));
  const leave = (itemId: number) => setPacks((all) => new Map([...all].filter(([id]) => id !== itemId)));
  const isChosen = (itemId: number) => (packs.get(itemId) ?? '').trim() !== '';
  const add = async (
    lines: readonly { readonly itemId: number; readonly packId?: number | null }[],
  ): Promise<boolean> => {
    const chosen = lines.filter((l) => isChosen(l.itemId));
    for (const l of chosen) {
      const line = { orderId, locationId, packs: packs.get(l.itemId) ?? '', price: '', ...l };
      const outcome = await run('add-order-line', line, { refresh: l === chosen.at(-1) });
      if (!outcome.ok) return false;
      leave(l.itemId);
    }
    return true;
  };
  return { busy, sentence, packs, put, leave, isChosen, add };
}
