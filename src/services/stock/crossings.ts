import { fromDecimal, type Quantity } from '@/core/quantity';
import { type Crossing, crossingOf } from '@/core/stock';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import type { LevelRow, Pair } from '@/data/repositories/levels';
import { readStates } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { pairKey, pairMap } from '../grouping';

/** A level that stock crossed by what was just posted, with what is there now. */
export type CrossedLevel = Pair & {
  readonly item: string;
  readonly location: string;
  readonly crossing: Crossing;
  readonly now: Quantity;
  readonly level: Quantity | null;
};

/** What these changes of stock crossed: levels as they were before them, and what was added or taken at each pair. */
export async function crossingsOf(
  tx: Tx,
  before: readonly LevelRow[],
  changes: readonly (Pair & { readonly quantity: Quantity })[],
): Promise<CrossedLevel[]> {
  const sums = new Map<string, number>();
  for (const c of changes) {
    const key = pairKey(c.itemId, c.locationId);
    sums.set(key, (sums.get(key) ?? 0) + c.quantity);
  }
  const ids = [...new Set(before.map((l) => l.itemId))];
  const states = pairMap(await readStates(tx, ids));
  const crossed = before.flatMap((l) => {
    const key = pairKey(l.itemId, l.locationId);
    const change = sums.get(key) ?? 0;
    if (change === 0) return [];
    const state = states.get(key);
    const level = (text: string | null | undefined) => (text == null ? null : fromDecimal(text));
    const levels = { min: level(state?.level), max: level(state?.max) };
    const was = fromDecimal(l.onHand);
    const crossing = crossingOf(was, was + change, levels);
    if (!crossing) return [];
    const { itemId, locationId } = l;
    return [
      { itemId, locationId, crossing, now: was + change, level: crossing === 'above_max' ? levels.max : levels.min },
    ];
  });
  // Seldom anything is.
  if (crossed.length === 0) return [];
  const items = await readItemsByIds(
    tx,
    crossed.map((c) => c.itemId),
  );
  const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  return crossed.flatMap((c): CrossedLevel[] => {
    const location = places.get(c.locationId);
    return location ? [{ ...c, item: items.get(c.itemId)?.name ?? '', location }] : [];
  });
}
