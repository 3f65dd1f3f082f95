import type { Minor } from '@/core/money';
import type { Quantity } from '@/core/quantity';

/** What the next break of a price list would do to a line. Amounts in minor units of one currency. */
export type BreakHint = {
  /** Base units that the break asks for, and how many more than now. */
  readonly at: Quantity;
  readonly more: Quantity;
  /** What more is paid now; below 0 the larger quantity costs less outright. */
  readonly outlay: Minor;
  /** What the larger quantity saves against the present price of all of it, and of what is priced together with it. */
  readonly saving: Minor;
  /** Days that the additional quantity lasts, and what holding it for them costs. */
  readonly lastsDays: number;
  readonly holding: number;
  /** Days until purchases that are not needed any more, at the present price, have paid the outlay back; 0 when there is none. */
  readonly paybackDays: number;
  readonly worthIt: boolean;
};

/** The first break beyond a quantity that lowers the price, with what it costs, saves and when it has paid for itself. Null where
 *  there is none, where nothing is used, or where the additional quantity would last longer than `mostDays`.
 *  Holding: half of the additional quantity on average for as long as it lasts.
 *  Units: millionths of the base unit, use per day; `rate` = carrying cost of a year as a share.
 *  Source: calculations 6; common practice (quantity discount against carrying cost).
 *  @example 60 at 1.00, from 100 at 0.80, 2 a day: 80.00 for 100, outlay 20.00, paid back in 10 days */
export function breakHint(line: {
  readonly quantity: Quantity;
  readonly breaks: readonly Quantity[];
  readonly priceOf: (quantity: Quantity) => Minor | null;
  /** What everything else costs whose price follows this quantity (breaks over an order, an item or a price group); none by itself. */
  readonly othersAt?: (quantity: Quantity) => Minor;
  readonly perDay: Quantity;
  readonly rate: number;
  readonly mostDays: number;
}): BreakHint | null {
  const { quantity, perDay } = line;
  const others = line.othersAt ?? (() => 0);
  const now = line.priceOf(quantity);
  if (now === null || now <= 0 || perDay <= 0) return null;
  for (const at of [...line.breaks].sort((a, b) => a - b)) {
    const then = at > quantity ? line.priceOf(at) : null;
    if (then === null) continue;
    const cheaper = others(quantity) - others(at);
    const saving = Math.round((now * at) / quantity) - then + cheaper;
    if (saving <= 0) continue;
    const more = at - quantity;
    const lastsDays = more / perDay;
    if (lastsDays > line.mostDays) return null;
    const outlay = then - now - cheaper;
    const holding = ((then * more) / at) * line.rate * (lastsDays / 2 / 365);
    const paybackDays = outlay <= 0 ? 0 : outlay / ((now / quantity) * perDay);
    return { at, more, outlay, saving, lastsDays, holding, paybackDays, worthIt: saving > holding };
  }
  return null;
}
