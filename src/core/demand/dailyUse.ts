import { variation } from '@/core/classes';
import { MICRO, type Quantity } from '../quantity';

/** One day of a pair: what was on hand when it began, and what was sold on it less what came back. */
export type UseDay = { readonly opening: Quantity; readonly sold: Quantity };

/** Days looked back for the mean. */
export const MEASURED_DAYS = 91;

/** How much is used and how unevenly. */
export type UseFigures = {
  /** Mean use per day in millionths, rounded half-up; 0 when no day counts or more came back than was sold. */
  readonly perDay: Quantity;
  /** Sample standard deviation of a day's use (divisor n − 1), in base units; 0 for fewer than two days. */
  readonly sdPerDay: number;
  readonly days: number;
  /** Coefficient of variation of whole weeks; null without use in any. */
  readonly weeklyVariation: number | null;
};

/** A day on which nothing was on hand and nothing was sold says nothing about demand. */
const counts = (d: UseDay): boolean => d.opening > 0 || d.sold !== 0;

/** Use over these days, stock-out days left out. Weeks are runs of seven days from the last one back; a week of which fewer
 *  than four days count is left out, and one with some is taken as if the others had been like them.
 *  Source: common practice. */
export function figuresOfUse(all: readonly UseDay[]): UseFigures {
  const days = all.filter(counts);
  const n = days.length;
  const sold = days.reduce((a, d) => a + d.sold, 0);
  const perDay = n === 0 || sold <= 0 ? 0 : Math.floor((2 * sold + n) / (2 * n));
  const mean = n === 0 ? 0 : sold / n / MICRO;
  const squares = days.reduce((a, d) => a + (d.sold / MICRO - mean) ** 2, 0);
  const weeks: number[] = [];
  for (let end = all.length; end >= 7; end -= 7) {
    const week = all.slice(end - 7, end).filter(counts);
    if (week.length < 4) continue;
    weeks.push((week.reduce((a, d) => a + d.sold / MICRO, 0) * 7) / week.length);
  }
  return {
    perDay,
    sdPerDay: n > 1 ? Math.sqrt(squares / (n - 1)) : 0,
    days: n,
    weeklyVariation: perDay === 0 ? null : variation(weeks),
  };
}

/** Mean use per day in millionths. */
export const meanDailyUse = (days: Iterable<UseDay>): Quantity => figuresOfUse([...days]).perDay;

/** Days that a quantity lasts at a use per day, in tenths, rounded down; 0 when there is none, null without use. At most
 *  9999.9 days. */
export function coverTenths(quantity: Quantity, perDay: Quantity): number | null {
  if (perDay <= 0) return null;
  if (quantity <= 0) return 0;
  return Math.min(99_999, Math.floor((quantity * 10) / perDay));
}
