import type { BusinessDate } from '@/core/calendar';
import { addDays } from '@/core/calendar';
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

/** The next day after this one on which a season begins or has just ended; null when none ever does again. Looked for day by
 *  day up to a year ahead, which every yearly season shows itself in; a dated one further away is found by its days. */
export function nextSeasonChange(seasons: readonly Season[], today: BusinessDate): BusinessDate | null {
  if (seasons.length === 0) return null;
  const dated = seasons
    .filter((s) => !s.everyYear)
    .flatMap((s) => [s.from, addDays(s.to, 1)])
    .filter((d) => d > today);
  const yearly = seasons.filter((s) => s.everyYear);
  const state = (day: BusinessDate) => yearly.map((s) => inSeason(s, day)).join();
  let found: BusinessDate | null = null;
  if (yearly.length > 0) {
    const now = state(today);
    for (let n = 1; n <= 366 && found === null; n += 1) if (state(addDays(today, n)) !== now) found = addDays(today, n);
  }
  return [...dated, ...(found ? [found] : [])].sort()[0] ?? null;
}
