import { checked, MICRO, type Quantity } from '@/core/quantity';
import { divideHalfUp, type Fraction } from '@/core/units';

/** Base quantity of a number of packs, rounded half up at the sixth decimal.
 *  Units: packs in millionths of a pack, result in millionths of the base unit.
 *  @example baseQuantity(2_000_000, fraction(13716, 1000))  // 27_432_000: 2 bolts of 15 yd are 27.432 m */
export const baseQuantity = (packs: Quantity, content: Fraction): Quantity =>
  checked(Number(divideHalfUp(BigInt(packs) * content.num, content.den)));

/** Base quantity of the next part of a line: round₆(cumulative packs × content) − what earlier parts hold,
 *  so that the parts always add up to the whole whatever the content.
 *  Units: packs in millionths of a pack; base quantities in millionths. */
export const nextPartQuantity = (packsBefore: Quantity, packs: Quantity, content: Fraction): Quantity =>
  checked(baseQuantity(packsBefore + packs, content) - baseQuantity(packsBefore, content));

/** Base quantities of all parts of a line in order; their sum is the base quantity of the line. */
export function partQuantities(packs: readonly Quantity[], content: Fraction): Quantity[] {
  let before = 0;
  return packs.map((p) => {
    const q = nextPartQuantity(before, p, content);
    before = checked(before + p);
    return q;
  });
}

/** Packs in a base quantity, in millionths of a pack, rounded half up; for display beside a base quantity. */
export const packsIn = (base: Quantity, content: Fraction): Quantity =>
  checked(Number(divideHalfUp(BigInt(base) * content.den, content.num)));

/** Whether a pack quantity is a whole number of packs. */
export const isWholePacks = (packs: Quantity): boolean => packs % MICRO === 0;
