import { type BusinessDate, isDate } from '@/core/calendar';
import { err, ok, type Result } from '@/core/result';
import type { CellFault, DateOrder } from './faults';

const DAY_MS = 86_400_000;

/** A date as it stands in a cell: ISO 8601 always (also with a time behind it), else day, month and year in the order of
 *  the file, parted by points, strokes or hyphens; a year of two digits is of this century.
 *  Errors: not_a_date.
 *  @example cellDate('3.12.2026', 'dmy')  // '2026-12-03' */
export function cellDate(text: string, order: DateOrder): Result<BusinessDate, CellFault> {
  const iso = /^(\d{4}-\d{2}-\d{2})(?:[T ][\d:.]+Z?)?$/.exec(text);
  if (iso) return isDate(iso[1] as string) ? ok(iso[1] as string) : err({ kind: 'not_a_date', order });
  const m = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})$/.exec(text);
  if (!m) return err({ kind: 'not_a_date', order });
  const [a, b, c] = [m[1], m[3], m[4]] as [string, string, string];
  const [year, month, day] = order === 'ymd' ? [a, b, c] : order === 'dmy' ? [c, b, a] : [c, a, b];
  const full = year.length === 2 ? `20${year}` : year;
  const date = `${full.padStart(4, '0')}-${month.padStart(2, '0')}-${day.padStart(2, '0')}`;
  return full.length === 4 && isDate(date) ? ok(date) : err({ kind: 'not_a_date', order });
}

/** The date of a spreadsheet's day number (1 January 1900 is 1, and 29 February 1900, which never was, counts).
 *  Source: ECMA-376 part 1, 18.17.4.1, 1900 date system. */
export const serialDate = (serial: number): BusinessDate =>
  new Date(Date.UTC(1899, 11, 30) + Math.floor(serial) * DAY_MS).toISOString().slice(0, 10);

export type OrderEvidence = {
  readonly order: DateOrder;
  readonly certainty: 'sure' | 'torn' | 'open' | 'nothing_to_tell';
  readonly example: string | null;
};

/** Looks for the order of day, month and year in the cells of the date columns. ISO dates need no order. */
export function dateEvidence(cells: Iterable<string>): OrderEvidence {
  const seen: Record<DateOrder, string | null> = { ymd: null, dmy: null, mdy: null };
  let open: string | null = null;
  for (const cell of cells) {
    const m = /^(\d{1,4})([./-])(\d{1,2})\2(\d{1,4})/.exec(cell.trim());
    if (!m) continue;
    const [first, second] = [Number(m[1]), Number(m[3])];
    if ((m[1] as string).length === 4) seen.ymd ??= cell;
    else if (first > 12 && second <= 12) seen.dmy ??= cell;
    else if (second > 12 && first <= 12) seen.mdy ??= cell;
    // Day, point, month, point: nobody writes the month first with points (common practice).
    else if (m[2] === '.') seen.dmy ??= cell;
    else open ??= cell;
  }
  if (seen.dmy !== null && seen.mdy !== null) return { order: 'dmy', certainty: 'torn', example: seen.mdy };
  if (seen.dmy !== null) return { order: 'dmy', certainty: 'sure', example: seen.dmy };
  if (seen.mdy !== null) return { order: 'mdy', certainty: 'sure', example: seen.mdy };
  if (open !== null) return { order: 'dmy', certainty: 'open', example: open };
  return { order: 'ymd', certainty: seen.ymd === null ? 'nothing_to_tell' : 'sure', example: seen.ymd };
}
