import type { BusinessDate } from '../calendar';
import type { Quantity } from '../quantity';

/** Stock at the close of each of some days, which follow each other: what there is now, less all that changed after that
 *  day. A change counts on its business date, also when it was entered later. */
export function closings(
  now: Quantity,
  changes: ReadonlyMap<BusinessDate, Quantity>,
  days: readonly BusinessDate[],
): Quantity[] {
  const last = days.at(-1) ?? '';
  let after = 0;
  for (const [date, change] of changes) if (date > last) after += change;
  const closed: Quantity[] = [];
  for (const day of days.toReversed()) {
    closed.push(now - after);
    after += changes.get(day) ?? 0;
  }
  return closed.reverse();
}
