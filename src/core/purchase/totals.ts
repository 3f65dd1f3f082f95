import { percentOf } from '@/core/landed';
import { lineNet, type Minor, type Price } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

export type TotalLine = {
  readonly base: Quantity;
  readonly price: Price | null;
  readonly freeOfCharge: boolean;
  /** Taken off the line, in percent; '0' = nothing. */
  readonly discountPercent: string;
};

/** Net of a line: quantity by price, less its discount; without a price or free of charge 0.
 *  Rounding: half-up at quantity by price and at the discount, once each (EN 16931: a line allowance is an amount of money). */
export function netOfLine(l: TotalLine, currency: string): Minor {
  if (!l.price || l.freeOfCharge) return 0;
  const full = lineNet(l.base, l.price, currency);
  return full - percentOf(l.discountPercent, full);
}

/** Line nets in line order and their sum, before charges and tax. */
export function orderTotals(lines: readonly TotalLine[], currency: string): { lines: Minor[]; net: Minor } {
  const nets = lines.map((l) => netOfLine(l, currency));
  const net = nets.reduce((a, b) => a + b, 0);
  if (!Number.isSafeInteger(net)) throw new RangeError('order total out of range');
  return { lines: nets, net };
}

/** Value of a part receipt = round(line value × cumulative received ÷ ordered) − posted so far, so that the receipts of a
 *  line add up to its value. What comes beyond the ordered quantity is valued at the same rate.
 *  Units: quantities in millionths; money in minor units of the base currency. */
export function receiptValue(
  lineValue: Minor,
  ordered: Quantity,
  receivedBefore: Quantity,
  postedBefore: Minor,
  now: Quantity,
): Minor {
  if (ordered <= 0) return 0;
  return Number(divideHalfUp(BigInt(lineValue) * BigInt(receivedBefore + now), BigInt(ordered))) - postedBefore;
}
