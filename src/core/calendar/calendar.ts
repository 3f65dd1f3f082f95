/** A business date, YYYY-MM-DD, in the company's time zone. */
export type BusinessDate = string;

const DAY_MS = 86_400_000;
const toMs = (d: BusinessDate) => Date.parse(`${d}T00:00:00Z`);

/** Whether a text is a real date of the calendar. @example isDate('2026-02-30')  // false */
export const isDate = (text: string): boolean =>
  /^\d{4}-\d{2}-\d{2}$/.test(text) &&
  !Number.isNaN(toMs(text)) &&
  new Date(toMs(text)).toISOString().slice(0, 10) === text;

/** The business date of an instant in a time zone. @example businessDate(new Date('2026-11-22T23:30:00Z'), 'Europe/Berlin')  // '2026-11-23' */
export const businessDate = (at: Date, timeZone: string): BusinessDate =>
  new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(at);

/** The instant at which a business date begins in a time zone. On the days clocks change it is the first instant of that date.
 *  @example startOfDay('2026-11-23', 'Europe/Berlin')  // 2026-11-22T23:00:00Z */
export function startOfDay(date: BusinessDate, timeZone: string): Date {
  // Offsets reach from −12 to +14 hours: the first quarter of an hour of that span that is already this date.
  const QUARTER = 15 * 60_000;
  let [before, at] = [toMs(date) - 15 * 3_600_000, toMs(date) + 13 * 3_600_000];
  while (at - before > QUARTER) {
    const middle = before + Math.floor((at - before) / 2 / QUARTER) * QUARTER;
    if (businessDate(new Date(middle), timeZone) < date) before = middle;
    else at = middle;
  }
  return new Date(at);
}

export const addDays = (date: BusinessDate, days: number): BusinessDate =>
  new Date(toMs(date) + days * DAY_MS).toISOString().slice(0, 10);

export const daysBetween = (from: BusinessDate, to: BusinessDate): number => (toMs(to) - toMs(from)) / DAY_MS;

/** Monday to Friday; public holidays are not kept yet. */
export const isWorkingDay = (date: BusinessDate): boolean => {
  const day = new Date(toMs(date)).getUTCDay();
  return day !== 0 && day !== 6;
};

/** The day itself when it is a working day, else the next one. */
export function workingDayFrom(date: BusinessDate): BusinessDate {
  let d = date;
  while (!isWorkingDay(d)) d = addDays(d, 1);
  return d;
}

/** The n-th working day after a date; 0 gives the date itself when it is a working day, else the next one.
 *  @example addWorkingDays('2026-11-27', 1)  // '2026-11-30', Friday to Monday */
export function addWorkingDays(date: BusinessDate, days: number): BusinessDate {
  let d = workingDayFrom(date);
  for (let n = 0; n < days; n += 1) d = workingDayFrom(addDays(d, 1));
  return d;
}

export type LeadTime = { readonly days: number; readonly kind: 'working' | 'calendar' };

/** Arrival of an order that goes out on the order date: supplier's days, then the next working day of the place.
 *  Fixed order days, cut-off and closures are not kept yet: any working day is an order day. */
export function arrivalDate(orderDate: BusinessDate, lead: LeadTime): BusinessDate {
  const out = workingDayFrom(orderDate);
  return lead.kind === 'working' ? addWorkingDays(out, lead.days) : workingDayFrom(addDays(out, lead.days));
}

/** Cover horizon = the arrival of what is ordered at the next review (one day on, as any day is an order day) plus one
 *  receiving day; without a supplier there is none and all demand and supply counts. */
export const coverHorizon = (today: BusinessDate, lead: LeadTime | null): BusinessDate | null =>
  lead ? addDays(arrivalDate(addDays(today, 1), lead), 1) : null;

/** The first day after today on which the cover horizon reaches a date: time alone then brings a part into the position.
 *  Null without a lead time (no horizon). */
export function dayHorizonReaches(
  today: BusinessDate,
  wanted: BusinessDate,
  lead: LeadTime | null,
): BusinessDate | null {
  if (!lead) return null;
  // The horizon lies at least two days ahead and moves by at least the days that pass, weekends apart.
  let [before, day] = [0, Math.max(1, daysBetween(today, wanted))];
  const reaches = (days: number) => (coverHorizon(addDays(today, days), lead) as BusinessDate) >= wanted;
  while (day - before > 1) {
    const middle = Math.floor((before + day) / 2);
    if (reaches(middle)) day = middle;
    else before = middle;
  }
  return addDays(today, day);
}
