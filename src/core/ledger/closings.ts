import { addDays, type BusinessDate } from '../calendar';
import type { Quantity } from '../quantity';

/** Stock at the close of each day from one to another, both included: what there is now, less all that changed after that
 *  day. A change counts on its business date, also when it was entered later. */
export function closings(
  now: Quantity,
  changes: ReadonlyMap<BusinessDate, Quantity>,
  from: BusinessDate,
  to: BusinessDate,
): Quantity[] {
  let after = 0;
  for (const [date, change] of changes) if (date > to) after += change;
  const days: Quantity[] = [];
  for (let date = to; date >= from; date = addDays(date, -1)) {
    days.push(now - after);
    after += changes.get(date) ?? 0;
  }
  return days.reverse();
}
