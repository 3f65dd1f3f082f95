import { addDays, type BusinessDate, daysBetween } from '@/core/calendar';
import { checked, type Quantity } from '../quantity';

/** A count of an item whose use nobody records: the day, and what was found missing (below 0: more was there). */
export type UseCount = { readonly date: BusinessDate; readonly used: Quantity };

/** Use by day between counts: what a count finds missing was used evenly over the days since the count before it, that day
 *  itself left out and the day of the count counted in. Whole steps of the item only (`step` in millionths), what is left
 *  over on the latest days, so that the days add up to what was counted. The first count only fixes the level it is measured
 *  from, unless `since`, the day stock began, is earlier.
 *  Mean use is right by it; how much single days differ is not known, and the deviation it gives is too small.
 *  Source: common practice (periodic inventory: opening + purchases − closing = use).
 *  @example 12 missing on 5 Nov, counted before on 1 Nov, step one piece → 3 on each of 2, 3, 4 and 5 Nov */
export function usedBetweenCounts(
  counts: readonly UseCount[],
  since: BusinessDate | null,
  step: Quantity,
): Map<BusinessDate, Quantity> {
  const days = new Map<BusinessDate, Quantity>();
  let before = since;
  for (const { date, used } of [...counts].sort((a, b) => (a.date < b.date ? -1 : 1))) {
    const from = before;
    before = date;
    const n = from === null ? 0 : daysBetween(from, date);
    if (n <= 0) {
      // Two counts on one day: the second one's difference belongs to that day.
      if (from !== null && used !== 0) days.set(date, checked((days.get(date) ?? 0) + used));
      continue;
    }
    const steps = Math.trunc(used / step);
    const each = Math.trunc(steps / n);
    const more = Math.abs(steps - each * n);
    for (let i = 1; i <= n; i += 1) {
      const day = addDays(date, i - n);
      const own = (each + (i > n - more ? Math.sign(steps) : 0)) * step + (i === n ? used - steps * step : 0);
      if (own !== 0) days.set(day, checked((days.get(day) ?? 0) + own));
    }
  }
  return days;
}
