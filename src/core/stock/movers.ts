import type { Minor } from '@/core/money';
import { MICRO, type Quantity } from '@/core/quantity';
import { divideHalfUp } from '@/core/units';

/** What was sold of an item at a place over a span of days, and what lies there. */
export type MoverInput = {
  readonly sold: Quantity;
  readonly days: number;
  readonly onHand: Quantity;
  /** Of what lies there, minor units. */
  readonly value: Minor;
  /** What one costs and brings without tax, in minor units; null where it is not known. */
  readonly unitCost: number | null;
  readonly unitNet: number | null;
};

export type MoverFigures = {
  /** What was sold, at today's cost, and what it left over that at today's price; minor units. */
  readonly costOfSales: Minor | null;
  readonly margin: Minor | null;
  /** How often stock is sold in a year; null without stock or cost. */
  readonly turns: number | null;
  /** Margin of a year for each unit of money that lies there; null without stock, price or cost. */
  readonly marginReturn: number | null;
};

/** How an item moves. Cost of sales = sold × cost; margin = sold × (net price − cost), both at today's figures, so that
 *  history that was brought counts as well; turns = cost of sales of a year ÷ value of stock; return on stock = margin of a
 *  year ÷ value of stock. Money is rounded half up, at the end.
 *  Source: common practice (inventory turnover, gross margin return on inventory investment).
 *  @example 26 sold in 91 days at 2.00, net 5.00, 10 there worth 20.00 → cost 52.00, margin 78.00, turns 10.4, return 15.6 */
export function moverFigures(m: MoverInput): MoverFigures {
  const sold = m.sold / MICRO;
  const cost = m.unitCost === null ? null : sold * m.unitCost;
  const margin = m.unitCost === null || m.unitNet === null ? null : sold * (m.unitNet - m.unitCost);
  const stocked = m.onHand > 0 && m.value > 0;
  const yearly = (amount: number) => (amount * 365) / m.days / m.value;
  return {
    costOfSales: cost === null ? null : Math.floor(cost + 0.5),
    margin: margin === null ? null : Math.floor(margin + 0.5),
    turns: stocked && cost !== null ? yearly(cost) : null,
    marginReturn: stocked && margin !== null ? yearly(margin) : null,
  };
}

/** What a part of stock is worth at the average of all of it; no more than all of it. Minor units, rounded half up.
 *  @example 4 of 10 pieces worth 25.00 → 10.00 */
export function worthOfPart(part: Quantity, of: { readonly quantity: Quantity; readonly value: Minor }): Minor {
  if (part <= 0 || of.quantity <= 0) return 0;
  const most = Math.min(part, of.quantity);
  return Number(divideHalfUp(BigInt(of.value) * BigInt(most), BigInt(of.quantity)));
}
