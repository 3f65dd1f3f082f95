import { addDays, daysBetween } from '@/core/calendar';
import { checked, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';

export type CountState = 'open' | 'posted' | 'dropped';
export type CountStateFault = { readonly kind: 'count_ended'; readonly state: Exclude<CountState, 'open'> };

/** Only an open count is entered, posted or dropped. Errors: count_ended. */
export const checkCountOpen = (state: CountState): Result<void, CountStateFault> =>
  state === 'open' ? ok(undefined) : err({ kind: 'count_ended', state });

/** A figure and what the books said at the moment it was counted, in base units. */
export type Counted = { readonly found: Quantity; readonly expected: Quantity };
export type CountLine = { readonly first: Counted | null; readonly second: Counted | null };

/** What the books said at an earlier moment: what they say now, less what has moved since. */
export const expectedThen = (onHandNow: Quantity, movedSince: Quantity): Quantity => checked(onHandNow - movedSince);

/** What stock is to change by: the latest figure against what was expected when it was taken; null = not counted. What has
 *  moved since that moment is in the books already and stays.
 *  Source: common practice (cycle counting with cut-off at the moment of the count).
 *  @example differenceOf({ first: { found: 9, expected: 10 }, second: null })  // −1, also when 3 were sold since */
export function differenceOf(line: CountLine): Quantity | null {
  const last = line.second ?? line.first;
  return last && checked(last.found - last.expected);
}

/** When a difference is large: beyond a share of what was expected (thousandths), or worth more than an amount (minor
 *  units); 0 switches that limit off. */
export type RecountLimits = { readonly share: number; readonly minor: number };

/** Whether a figure has to be counted a second time. Where nothing was expected, only its value tells. `worth`: of the
 *  difference, without sign, in minor units. Source: common practice (count tolerances in percent and money). */
export function isLarge(counted: Counted, worth: number, limits: RecountLimits): boolean {
  const difference = Math.abs(counted.found - counted.expected);
  if (difference === 0) return false;
  if (limits.minor > 0 && worth > limits.minor) return true;
  return limits.share > 0 && counted.expected > 0 && difference * 1000 > counted.expected * limits.share;
}

/** What a line still waits for. */
export type CountStep = 'first' | 'second' | 'done';
export function stepOf(line: CountLine, worth: number, limits: RecountLimits): CountStep {
  if (!line.first) return 'first';
  return !line.second && isLarge(line.first, worth, limits) ? 'second' : 'done';
}

/** The day of a rhythm that comes after today, counted from the day it was due: a weekly count stays on its weekday. One
 *  that is counted before it was due is due its days after that.
 *  @example nextCount('2026-11-02', 7, '2026-11-25')  // '2026-11-30', a Monday like the 2nd */
export function nextCount(dueOn: string, everyDays: number, today: string): string {
  const late = daysBetween(dueOn, today);
  return addDays(dueOn, late < 0 ? everyDays : everyDays * (Math.floor(late / everyDays) + 1));
}
