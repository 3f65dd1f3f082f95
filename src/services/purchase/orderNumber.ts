import type { BusinessDate } from '@/core/calendar';
import { numberOf, numberSeries } from '@/core/purchase';
import { drawNumber } from '@/data/repositories/bookkeeping';
import { isNumberTaken } from '@/data/repositories/orderHead';
import { passOver, readNumbering } from '@/data/repositories/papers';
import type { Tx } from '@/data/sql';

/** The numbering period of a day: year and month. @example periodOf('2026-11-23')  // '2611' */
export const periodOf = (date: BusinessDate): string => date.slice(2, 4) + date.slice(5, 7);

/** A running number within a period. @example numberText('R', '2611', 47)  // 'R2611-0047' */
export const numberText = (prefix: string, period: string, n: number): string =>
  `${prefix}${period}-${String(n).padStart(4, '0')}`;

/** A number of an order with where it was drawn; a typed one was drawn nowhere. */
export type DrawnNumber = { readonly number: string; readonly series: string | null; readonly no: number | null };

/** The next number of an order, drawn under the company's pattern; one that was typed before the pattern became what it is is passed over. */
export async function drawOrderNumber(tx: Tx, today: BusinessDate): Promise<DrawnNumber> {
  const { pattern, start } = await readNumbering(tx);
  const series = numberSeries(pattern, today);
  for (;;) {
    const no = await drawNumber(tx, 'PO', series, start);
    const number = numberOf(pattern, today, no);
    if (!(await isNumberTaken(tx, number, 0))) return { number, series, no };
    await passOver(tx, series);
  }
}
