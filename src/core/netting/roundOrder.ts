import type { Rounding } from '@/core/packs';
import { roundToStep } from '@/core/packs';
import type { Quantity } from '@/core/quantity';

/** How a source sells: its minimum and the step of whole packs (pack content × order multiple), in millionths. */
export type OrderRule = {
  readonly minimum: Quantity;
  readonly packMicro: Quantity;
  /** How many packs make one order multiple (a layer, a pallet); 1 when single packs are sold. */
  readonly multiplePacks: number;
  readonly mode: Exclude<Rounding, 'down'>;
};

/** The order quantity: the least whole number of multiples at or above max(need, supplier's minimum).
 *  "nearest" may go below the need, but never to 0 nor to a quantity below `stillNeeded` (what silences the trigger);
 *  then it rounds up. "none" keeps max(need, minimum).
 *  Property: with "up", 0 ≤ result − max(need, minimum) < one multiple.
 *  @example roundOrder(units(54), { minimum: 0, packMicro: units(10), multiplePacks: 1, mode: 'up' })  // units(60) */
export function roundOrder(need: Quantity, rule: OrderRule, stillNeeded: Quantity = 1): Quantity {
  if (need <= 0) return 0;
  const least = Math.max(need, rule.minimum);
  const step = rule.packMicro * rule.multiplePacks;
  if (rule.mode === 'nearest') {
    const q = roundToStep(least, step, 'nearest');
    if (q > 0 && q >= stillNeeded && q >= rule.minimum) return q;
  }
  return rule.mode === 'none' ? least : roundToStep(least, step, 'up');
}

/** The least quantity after which the trigger no longer fires: one millionth more at "at or below". */
export const silences = (position: Quantity, level: Quantity, atOrBelow: boolean): Quantity =>
  Math.max(1, level - position + (atOrBelow ? 1 : 0));
