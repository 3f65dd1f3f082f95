import type { Quantity } from '../quantity';

/** One day of a pair: what was on hand when it began, and what was sold on it less what came back. */
export type UseDay = { readonly opening: Quantity; readonly sold: Quantity };

/** Days looked back for the mean. */
export const MEASURED_DAYS = 91;

/** Mean use per day in millionths, rounded half-up: the mean of these days, stock-out days left out. A day on which nothing
 *  was on hand and nothing was sold says nothing about demand. 0 when no day counts or more came back than was sold. */
export function meanDailyUse(days: Iterable<UseDay>): Quantity {
  let sold = 0;
  let counted = 0;
  for (const d of days) {
    if (d.opening <= 0 && d.sold === 0) continue;
    sold += d.sold;
    counted += 1;
  }
  return counted === 0 || sold <= 0 ? 0 : Math.floor((2 * sold + counted) / (2 * counted));
}

/** Days that a quantity lasts at a use per day, in tenths, rounded down; 0 when there is none, null without use. At most
 *  9999.9 days. */
export function coverTenths(quantity: Quantity, perDay: Quantity): number | null {
  if (perDay <= 0) return null;
  if (quantity <= 0) return 0;
  return Math.min(99_999, Math.floor((quantity * 10) / perDay));
}
