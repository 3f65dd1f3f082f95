import { err, ok, type Result } from '@/core/result';
import { addDays, type BusinessDate, isDate, workingDayFrom } from './calendar';

const days = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
const months = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const weekday = (date: BusinessDate) => new Date(`${date}T00:00:00Z`).getUTCDay();

/** Monday of a week of the year. Source: ISO 8601, week 1 holds 4 January. */
function mondayOfWeek(year: number, week: number): BusinessDate {
  const fourth = `${year}-01-04`;
  return addDays(fourth, 7 * (week - 1) - ((weekday(fourth) + 6) % 7));
}

/** A day and month without a year: the next such day from today on. */
function nextOf(today: BusinessDate, month: number, day: number): BusinessDate | null {
  const pad = (n: number) => String(n).padStart(2, '0');
  const year = Number(today.slice(0, 4));
  const [here, then] = [year, year + 1].map((y) => `${y}-${pad(month)}-${pad(day)}`) as [string, string];
  if (isDate(here) && here >= today) return here;
  return isDate(then) ? then : null;
}

function read(text: string, today: BusinessDate): BusinessDate | null {
  if (isDate(text)) return text;
  let m = /^\+(\d{1,3})$/.exec(text);
  if (m) return addDays(today, Number(m[1]));
  if (text === 'today') return today;
  if (text === 'tomorrow') return addDays(today, 1);
  if (text === 'end of week') return addDays(today, (5 - weekday(today) + 7) % 7);
  if (text === 'next week') return addDays(today, 8 - (weekday(today) || 7));
  if (text === 'end of next week') return addDays(today, 12 - (weekday(today) || 7));
  m = /^(?:wk|week|w) ?(\d{1,2})$/.exec(text);
  if (m) {
    const year = Number(today.slice(0, 4));
    const week = Number(m[1]);
    if (week < 1 || week > 53) return null;
    const here = mondayOfWeek(year, week);
    return addDays(here, 6) >= today ? (here < today ? today : here) : mondayOfWeek(year + 1, week);
  }
  const named = days.findIndex((d) => /^[a-z]{3,9}$/.test(text) && text.startsWith(d));
  if (named >= 0) return addDays(today, (named - weekday(today) + 7) % 7 || 7);
  m = /^(?:[a-z]{3,9} )?(\d{1,2})\.? ?([a-z]{3,9})(?: (\d{4}))?$/.exec(text);
  const month = m ? months.findIndex((x) => m?.[2]?.startsWith(x)) + 1 : 0;
  if (m && month > 0) {
    const given = `${m[3]}-${String(month).padStart(2, '0')}-${(m[1] as string).padStart(2, '0')}`;
    return m[3] ? (isDate(given) ? given : null) : nextOf(today, month, Number(m[1]));
  }
  m = /^(\d{1,2})\.(\d{1,2})\.?$/.exec(text);
  return m ? nextOf(today, Number(m[2]), Number(m[1])) : null;
}

export type DateFault = { readonly kind: 'not_a_date'; readonly text: string };

/** A date as a buyer types it: "+7", "fri" (the coming one), "wk 50" (its Monday), "3 dec", "3.12.", "end of next week",
 *  ISO 8601. Lands on a working day: the day itself or the next one. Without a year, the next such day.
 *  Errors: not_a_date.
 *  @example parseDate('wk 50', '2026-11-23')  // '2026-12-07' */
export function parseDate(typed: string, today: BusinessDate): Result<BusinessDate, DateFault> {
  const day = parseDay(typed, today);
  return day.ok ? ok(workingDayFrom(day.value)) : day;
}

/** The same day as typed, worked or not: for whoever has a calendar of the place and says what it moved. Errors: not_a_date. */
export function parseDay(typed: string, today: BusinessDate): Result<BusinessDate, DateFault> {
  const date = read(typed.trim().toLowerCase().replace(/\s+/g, ' '), today);
  return date === null ? err({ kind: 'not_a_date', text: typed.trim() }) : ok(date);
}
