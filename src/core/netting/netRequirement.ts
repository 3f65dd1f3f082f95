import type { Trigger } from '@/core/policy';
import type { Quantity } from '@/core/quantity';

/** Whether a policy raises a need at this position. */
export const triggers = (position: Quantity, level: Quantity, trigger: Trigger): boolean =>
  trigger === 'at_or_below' ? position <= level : position < level;

/** Quantity before rounding: up to `refillTo` once the trigger fires at `level`; 0 when it does not fire or nothing is missing.
 *  Units: millionths of the base unit. Source: common practice (min/max, (s,S)).
 *  @example netRequirement(units(23), units(24), units(60), 'strictly_below')  // units(37) */
export const netRequirement = (position: Quantity, level: Quantity, refillTo: Quantity, trigger: Trigger): Quantity =>
  triggers(position, level, trigger) ? Math.max(0, refillTo - position) : 0;

/** Fixed order quantity (s,Q): the fewest whole multiples (at least one) of `fixed` after which the trigger no longer fires.
 *  Source: common practice. Errors: throws RangeError for a fixed quantity of 0 or less. */
export function fixedMultiple(position: Quantity, level: Quantity, fixed: Quantity, trigger: Trigger): Quantity {
  if (fixed <= 0) throw new RangeError('fixed quantity must be positive');
  if (!triggers(position, level, trigger)) return 0;
  const missing = level - position;
  const whole = (missing - (missing % fixed)) / fixed;
  let n = Math.max(1, whole);
  while (triggers(position + n * fixed, level, trigger)) n += 1;
  return n * fixed;
}
