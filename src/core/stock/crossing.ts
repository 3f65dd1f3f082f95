import type { Quantity } from '@/core/quantity';

/** What a movement made of stock against its levels, said at that moment. */
export type Crossing = 'below_min' | 'above_max' | 'out_of_stock' | 'below_zero';

/** The line that stock crossed on its way from one quantity to another; null for none. Going down, zero is said before the
 *  minimum; going up, only the maximum. `min` and `max` null = there is none. Nothing is stopped by it.
 *  @example crossingOf(25, 23, { min: 24, max: 60 })  // 'below_min' */
export function crossingOf(
  before: Quantity,
  after: Quantity,
  levels: { readonly min: Quantity | null; readonly max: Quantity | null },
): Crossing | null {
  if (after < before) {
    if (after < 0 && before >= 0) return 'below_zero';
    if (after <= 0 && before > 0) return 'out_of_stock';
    return levels.min !== null && levels.min > 0 && after <= levels.min && before > levels.min ? 'below_min' : null;
  }
  return levels.max !== null && after > levels.max && before <= levels.max ? 'above_max' : null;
}
