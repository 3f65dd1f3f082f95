import { checked, MICRO, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

/** What one set of a line takes of an item. */
export type SetPart = { readonly itemId: number; readonly perSet: Quantity };

/** Who waits, and since when. Dates as YYYY-MM-DD; the lower the priority, the sooner. */
export type Turn = { readonly wanted: string; readonly priority: number; readonly entry: number };

export type WaitingLine = Turn & {
  /** Sets that nothing is promised for yet. */
  readonly open: Quantity;
  /** What a set takes; an item that is sold as it is: itself, one for one. */
  readonly parts: readonly SetPart[];
  /** Kits go out in whole sets. */
  readonly whole: boolean;
};

/** Whose turn it is first: wanted date, then priority, then entry. Source: calculations 3. */
export const byTurn = (a: Turn, b: Turn): number =>
  a.wanted < b.wanted ? -1 : a.wanted > b.wanted ? 1 : a.priority - b.priority || a.entry - b.entry;

/** What so many sets take of a part; exact for whole sets, else rounded to millionths. */
export const partQuantity = (sets: Quantity, perSet: Quantity): Quantity =>
  perSet === MICRO ? sets : checked(Number(divideHalfUp(BigInt(sets) * BigInt(perSet), BigInt(MICRO))));

/** Free stock given to those who wait, in their turn, as much as each can get; of a kit whole sets, as many as all of its
 *  components make. Returns sets per line, in the order of `lines`. Units: base units of each item; what is not in `free` is 0.
 *  Never more than is free, and nothing is left that the next in turn could have had.
 *  Source: calculations 2 and 3; common practice (allocation by date, then priority).
 *  @example 5 free, A wants 4 on Mon, B 3 on Tue → 4 and 1 */
export function allocateSets(free: ReadonlyMap<number, Quantity>, lines: readonly WaitingLine[]): Quantity[] {
  const left = new Map(free);
  const given = lines.map(() => 0);
  const turns = lines.map((line, i) => ({ line, i })).sort((a, b) => byTurn(a.line, b.line) || a.i - b.i);
  for (const { line, i } of turns) {
    const sets = line.parts.reduce(
      (most, p) => Math.min(most, setsOf(Math.max(0, left.get(p.itemId) ?? 0), p.perSet, line.whole)),
      line.whole ? line.open - (line.open % MICRO) : line.open,
    );
    if (sets <= 0 || line.parts.length === 0) continue;
    for (const p of line.parts) left.set(p.itemId, checked((left.get(p.itemId) ?? 0) - partQuantity(sets, p.perSet)));
    given[i] = sets;
  }
  return given;
}

/** Sets that a quantity of one part makes. */
function setsOf(quantity: Quantity, perSet: Quantity, whole: boolean): Quantity {
  if (perSet === MICRO && !whole) return quantity;
  const sets = (BigInt(quantity) * BigInt(MICRO)) / BigInt(perSet);
  const all = Number(sets);
  return whole ? all - (all % MICRO) : all;
}
