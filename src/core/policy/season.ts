import type { BusinessDate } from '@/core/calendar';
import { addDays, isDate } from '@/core/calendar';
import type { Season } from './setting';

const dayOfYear = (date: BusinessDate) => date.slice(5);

/** Whether a season is in force on a day, its first and last day included. One that comes back every year may run over New
 *  Year (from 1 Oct to 28 Feb).
 *  @example inSeason({ from: '2025-10-01', to: '2026-02-28', everyYear: true, … }, '2027-01-15')  // true */
export function inSeason(season: Season, day: BusinessDate): boolean {
  if (!season.everyYear) return day >= season.from && day <= season.to;
  const [from, to, on] = [dayOfYear(season.from), dayOfYear(season.to), dayOfYear(day)];
  return from <= to ? on >= from && on <= to : on >= from || on <= to;
}

/** The day of a year that a month and day name; 29 February is 1 March where there is none. */
const dayIn = (year: number, monthDay: string): BusinessDate => {
  const date = `${year}-${monthDay}`;
  return isDate(date) ? date : `${year}-03-01`;
};

/** The next day after this one on which a season begins or has just ended; null when none ever does again. Of a season that
 *  comes back every year its first days and the days after its last, of this year and the next, are the only ones in question. */
export function nextSeasonChange(seasons: readonly Season[], today: BusinessDate): BusinessDate | null {
  if (seasons.length === 0) return null;
  const dated = seasons.filter((s) => !s.everyYear).flatMap((s) => [s.from, addDays(s.to, 1)]);
  const yearly = seasons.filter((s) => s.everyYear);
  const state = (day: BusinessDate) => yearly.map((s) => inSeason(s, day)).join();
  const thisYear = Number(today.slice(0, 4));
  const turns = yearly.flatMap((s) =>
    [thisYear, thisYear + 1].flatMap((year) => {
      const [from, to] = [dayIn(year, dayOfYear(s.from)), `${year}-${dayOfYear(s.to)}`];
      return [from, isDate(to) ? addDays(to, 1) : dayIn(year, dayOfYear(s.to))];
    }),
  );
  const changes = turns.filter((day) => day > today && state(day) !== state(addDays(day, -1)));
  return [...dated.filter((d) => d > today), ...changes].sort()[0] ?? null;
}
