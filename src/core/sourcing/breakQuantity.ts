import type { Quantity } from '@/core/quantity';

/** Over what the breaks of a price list are counted. */
export type BreakScope = 'line' | 'item' | 'price_group';

export type BreakLine = {
  readonly itemId: number;
  /** Items of one price group count together; '' = none. */
  readonly priceGroup: string;
  /** Packs in millionths. */
  readonly packs: Quantity;
};

/** The quantity at which the price of a line is looked up: its own, that of its item over the whole order, or that of all
 *  items of its price group there. An item without a group counts alone.
 *  Source: common practice (quantity break over an assortment).
 *  @example ten bags in each of three colours of a quality count as thirty by price group */
export function breakQuantity(line: BreakLine, order: readonly BreakLine[], scope: BreakScope): Quantity {
  if (scope === 'line') return line.packs;
  const counts = (l: BreakLine) =>
    l.itemId === line.itemId || (scope === 'price_group' && line.priceGroup !== '' && l.priceGroup === line.priceGroup);
  return order.filter(counts).reduce((sum, l) => sum + l.packs, 0);
}
