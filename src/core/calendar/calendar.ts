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
export const businessDate = (at: Date, timeZone: string): BusinessDate => dayFormat(timeZone).format(at);

/** Formats are dear to make and asked for again and again; a company has one time zone. */
const dayFormats = new Map<string, Intl.DateTimeFormat>();
function dayFormat(timeZone: string): Intl.DateTimeFormat {
  const had = dayFormats.get(timeZone);
  if (had) return had;
  const made = new Intl.DateTimeFormat('en-CA', { timeZone, year: 'numeric', month: '2-digit', day: '2-digit' });
  dayFormats.set(timeZone, made);
  return made;
}

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

/** The instant at which clocks in a time zone show a time of a date ("HH:MM"); of a time that clocks skip, the one an hour
 *  later, of a time they show twice, the first.
 *  @example instantOf('2026-11-25', '09:40', 'Europe/Berlin')  // 2026-11-25T08:40:00Z */
export function instantOf(date: BusinessDate, time: string, timeZone: string): Date {
  const [hours, minutes] = time.split(':').map(Number);
  const wanted = toMs(date) + ((hours ?? 0) * 60 + (minutes ?? 0)) * 60_000;
  const shown = (at: number): number => {
    const parts = new Intl.DateTimeFormat('en-GB', {
      ...{ timeZone, year: 'numeric', month: '2-digit', day: '2-digit', hour: '2-digit', minute: '2-digit' },
      hourCycle: 'h23',
    }).formatToParts(at);
    const part = (type: string) => Number(parts.find((p) => p.type === type)?.value);
    return Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'));
  };
  // Clocks are ahead by what they show beyond UTC; before and after a change they are ahead by two amounts.
  const offsets = [wanted - 86_400_000, wanted + 86_400_000].map((at) => shown(at) - at);
  const found = offsets.map((o) => wanted - o).filter((at) => shown(at) === wanted);
  return new Date(found.length > 0 ? Math.min(...found) : wanted - (offsets[0] as number));
}

export const addDays = (date: BusinessDate, days: number): BusinessDate =>
  new Date(toMs(date) + days * DAY_MS).toISOString().slice(0, 10);

/** So many days, one after the other, from one on. */
export const daysFrom = (first: BusinessDate, count: number): BusinessDate[] =>
  Array.from({ length: count }, (_, i) => addDays(first, i));

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
