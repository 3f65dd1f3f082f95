import type { Quantity } from '@/core/quantity';

/** What there is of a lot at a place; lotId null = what is known by no lot, which was there before any. */
export type LotStock = {
  readonly lotId: number | null;
  readonly quantity: Quantity;
  readonly bestBefore: string | null;
};
export type Taken = { readonly lotId: number | null; readonly quantity: Quantity };

/** Oldest first: by best-before date, then as they came; what is known by no lot before all others. */
const oldestFirst = (lots: readonly LotStock[]): LotStock[] =>
  [...lots].sort((a, b) => {
    if (a.lotId === null || b.lotId === null) return a.lotId === b.lotId ? 0 : a.lotId === null ? -1 : 1;
    const [x, y] = [a.bestBefore ?? '9999', b.bestBefore ?? '9999'];
    return x === y ? a.lotId - b.lotId : x < y ? -1 : 1;
  });

/** Lots without best-before dates are dye lots: two of them don't look alike beside each other. */
export const areDyeLots = (lots: readonly LotStock[]): boolean => lots.every((l) => l.bestBefore === null);

/** Whether a line can only be served from several dye lots: then whoever sells it is asked. */
export const wouldMix = (lots: readonly LotStock[], wanted: Quantity): boolean => {
  const there = lots.filter((l) => l.quantity > 0);
  return there.length > 1 && areDyeLots(there) && there.every((l) => l.quantity < wanted);
};

/** Which lots an issue takes: the oldest first; of dye lots the oldest that suffices alone, if any does. What goes beyond
 *  what is there is known by no lot. Units: base units; what is taken adds up to what is wanted.
 *  Source: common practice (first expired, first out; one dye lot per customer line).
 *  @example dye lots A 8 and B 12, 10 wanted → 10 of B; 15 wanted → 8 of A and 7 of B */
export function takeFromLots(lots: readonly LotStock[], wanted: Quantity): Taken[] {
  const there = oldestFirst(lots.filter((l) => l.quantity > 0));
  const alone = areDyeLots(there) ? there.find((l) => l.quantity >= wanted) : undefined;
  if (alone) return [{ lotId: alone.lotId, quantity: wanted }];
  const taken: Taken[] = [];
  let left = wanted;
  for (const l of there) {
    if (left === 0) break;
    const quantity = Math.min(left, l.quantity);
    taken.push({ lotId: l.lotId, quantity });
    left -= quantity;
  }
  return left > 0 ? [...taken, { lotId: null, quantity: left }] : taken;
}
