import { lineNet, type Minor, type Price } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

export type TotalLine = { readonly base: Quantity; readonly price: Price | null; readonly freeOfCharge: boolean };

/** Line nets in line order and their sum, before tax; a line without a price or free of charge counts 0.
 *  Rounding: half-up at the line, once. */
export function orderTotals(lines: readonly TotalLine[], currency: string): { lines: Minor[]; net: Minor } {
  const nets = lines.map((l) => (l.price && !l.freeOfCharge ? lineNet(l.base, l.price, currency) : 0));
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
