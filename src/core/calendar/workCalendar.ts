import { addDays, type BusinessDate, daysBetween } from './calendar';

/** Which weekdays are worked, Monday first, and which days are free besides: a place's or a supplier's. */
export type WorkCalendar = {
  readonly week: readonly [boolean, boolean, boolean, boolean, boolean, boolean, boolean];
  readonly holidays: ReadonlySet<BusinessDate>;
};

/** Monday to Friday, no holidays. */
export const plainWeek: WorkCalendar = {
  week: [true, true, true, true, true, false, false],
  holidays: new Set(),
};

/** Weekday of a date, Monday 0 to Sunday 6. */
export const weekdayOf = (date: BusinessDate): number => (new Date(`${date}T00:00:00Z`).getUTCDay() + 6) % 7;

export const isWorked = (calendar: WorkCalendar, date: BusinessDate): boolean =>
  calendar.week[weekdayOf(date)] === true && !calendar.holidays.has(date);

/** The day itself when it is worked, else the next (or the previous) one that is.
 *  Errors: throws RangeError when nothing is worked for three years on (a defect: calendars are checked when kept). */
export function rollTo(calendar: WorkCalendar, date: BusinessDate, direction: 'forward' | 'backward'): BusinessDate {
  const step = direction === 'forward' ? 1 : -1;
  let d = date;
  for (let n = 0; n < 1100; n += 1, d = addDays(d, step)) if (isWorked(calendar, d)) return d;
  throw new RangeError('a calendar without a working day');
}

/** The n-th working day after a date (before it for a negative n). A start that is not worked is rolled first; 0 only rolls.
 *  Source: the rule of numpy's busday_offset, against which it is checked.
 *  @example offsetWorkingDays(plainWeek, '2026-11-27', 1, 'forward')  // '2026-11-30' */
export function offsetWorkingDays(
  calendar: WorkCalendar,
  date: BusinessDate,
  days: number,
  roll: 'forward' | 'backward',
): BusinessDate {
  const step = days < 0 ? -1 : 1;
  let d = rollTo(calendar, date, roll);
  for (let n = 0; n !== days; n += step) d = rollTo(calendar, addDays(d, step), step > 0 ? 'forward' : 'backward');
  return d;
}

/** Working days from begin (counted) to end (not counted); negative when end lies before begin.
 *  Source: the rule of numpy's busday_count, against which it is checked. */
export function countWorkingDays(calendar: WorkCalendar, begin: BusinessDate, end: BusinessDate): number {
  const backwards = end < begin;
  // Backwards, numpy counts the days after `end` up to and with `begin`.
  const [from, to] = backwards ? [addDays(end, 1), addDays(begin, 1)] : [begin, end];
  let n = 0;
  for (let i = 0; i < daysBetween(from, to); i += 1) if (isWorked(calendar, addDays(from, i))) n += 1;
  return backwards && n > 0 ? -n : n;
}
