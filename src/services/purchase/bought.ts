import { pricePerBaseUnit } from '@/core/money';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { readLastBought } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { priceOf } from './pricing';

export type Bought = {
  readonly orderId: number;
  readonly number: string;
  readonly orderDate: string;
  readonly supplier: string;
  readonly packs: Quantity;
  readonly packName: string;
  /** Price per base unit, two decimals; null without a price. */
  readonly each: string | null;
};

/** The last purchases of an item, newest first. */
export async function readBought(tx: Tx, itemId: number, limit: number): Promise<Bought[]> {
  return (await readLastBought(tx, itemId, limit)).map((r) => {
    const price = priceOf(r);
    const { orderId, number, orderDate, supplier, packName } = r;
    const packs = fromDecimal(r.packQuantity);
    return { orderId, number, orderDate, supplier, packName, packs, each: price && pricePerBaseUnit(price, 2) };
  });
}
