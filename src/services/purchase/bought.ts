import { eachText } from '@/core/money';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { readLastBought } from '@/data/repositories/bought';
import type { Tx } from '@/data/sql';
import { priceOf } from './pricing';

export type Bought = {
  readonly orderId: number;
  readonly number: string;
  readonly orderDate: string;
  readonly supplier: string;
  readonly packs: Quantity;
  readonly packName: string;
  /** Price per base unit in the currency of the order; null without a price. */
  readonly each: string | null;
  readonly currency: string;
};

/** The last purchases of an item, newest first. */
export async function readBought(tx: Tx, itemId: number, limit: number): Promise<Bought[]> {
  return (await readLastBought(tx, itemId, limit)).map((r) => {
    const price = priceOf(r);
    const { orderId, number, orderDate, currency, supplier, packName } = r;
    const packs = fromDecimal(r.packQuantity);
    const each = price && eachText(price, currency);
    return { orderId, number, orderDate, currency, supplier, packName, packs, each };
  });
}
