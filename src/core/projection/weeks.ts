import { addDays, type BusinessDate, daysBetween } from '@/core/calendar';

/** A sum per week from a day on, each week seven days. What is dated before the first day counts in the first week, what lies beyond
 *  the last in none. @example weekSums('2026-11-23', 2, [{ date: '2026-11-29', amount: 5 }])  // [5, 0] */
export function weekSums(
  from: BusinessDate,
  weeks: number,
  dated: readonly { readonly date: BusinessDate; readonly amount: number }[],
): number[] {
  const sums = new Array<number>(weeks).fill(0);
  for (const { date, amount } of dated) {
    const week = Math.max(0, Math.floor(daysBetween(from, date) / 7));
    if (week < weeks) sums[week] = (sums[week] as number) + amount;
  }
  return sums;
}

/** The first days of some weeks from a day on. */
export const weekStarts = (from: BusinessDate, weeks: number): BusinessDate[] =>
  Array.from({ length: weeks }, (_, w) => addDays(from, 7 * w));
