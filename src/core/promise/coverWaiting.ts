import { checked, type Quantity } from '@/core/quantity';
import { byTurn, type Turn } from './allocateSets';

/** Something that comes to a place: by the day it can be handed over, and the day to count on when its supplier is as late as
 *  one time in ten. */
export type Expected = { readonly date: string; readonly cautious: string; readonly quantity: Quantity };

/** A line that waits for goods, by what of it nothing is promised yet. */
export type Waiting = Turn & { readonly quantity: Quantity };

export type Cover<E> = { readonly from: E; readonly quantity: Quantity };
export type Covered<E> = {
  readonly covers: readonly Cover<E>[];
  /** What nothing that is known covers. */
  readonly missing: Quantity;
};

/** Which supply covers which line: those who wait, in their turn, take from what comes first. Recomputed whenever supply
 *  moves, so a promise moves with it; nothing of it is stored. What comes on one day goes in the order given.
 *  Source: calculations 3 (soft pegs by wanted date, priority, entry over supply by date).
 *  @example 10 on Mon and 10 on Fri, A wants 6, B 8 → A 6 of Mon; B 4 of Mon and 4 of Fri */
export function coverWaiting<E extends Expected>(supply: readonly E[], waiting: readonly Waiting[]): Covered<E>[] {
  const coming = supply
    .map((from, i) => ({ from, i, left: Math.max(0, from.quantity) }))
    .sort((a, b) => (a.from.date < b.from.date ? -1 : a.from.date > b.from.date ? 1 : a.i - b.i));
  const found: Covered<E>[] = waiting.map((w) => ({ covers: [], missing: w.quantity }));
  const turns = waiting.map((w, i) => ({ w, i })).sort((a, b) => byTurn(a.w, b.w) || a.i - b.i);
  let first = 0;
  for (const { w, i } of turns) {
    const covers: Cover<E>[] = [];
    let missing = w.quantity;
    while (missing > 0 && first < coming.length) {
      const c = coming[first] as (typeof coming)[number];
      const take = Math.min(missing, c.left);
      if (take > 0) covers.push({ from: c.from, quantity: take });
      c.left = checked(c.left - take);
      missing = checked(missing - take);
      if (c.left === 0) first += 1;
    }
    found[i] = { covers, missing };
  }
  return found;
}

/** When all of a line is there: what lies ready is there today; what comes, when the last of it does; null while something of
 *  it is not covered. */
export function promiseOf(covered: Covered<Expected>, today: string): { date: string; cautious: string } | null {
  if (covered.missing > 0) return null;
  return covered.covers.reduce(
    (p, { from }) => ({ date: later(from.date, p.date), cautious: later(from.cautious, p.cautious) }),
    { date: today, cautious: today },
  );
}

const later = (a: string, b: string): string => [a, b].sort()[1] as string;
