import { eachText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type BoughtRow, readBoughtFrom } from '@/data/repositories/bought';
import { findOrder } from '@/data/repositories/orders';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { priceOf } from './pricing';

export type EarlierLine = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly orderId: number;
  readonly order: string;
  readonly orderDate: string;
  readonly supplier: string;
  readonly packs: Quantity;
  readonly packId: number | null;
  readonly packName: string;
  readonly each: string | null;
  readonly currency: string;
};
export type Earlier = {
  /** Of one item, from whomever, newest first; empty where none was asked for. */
  readonly ofItem: readonly EarlierLine[];
  /** What the order's supplier sold last, each item once. */
  readonly fromSupplier: readonly EarlierLine[];
};

const MOST = 60;

/** Earlier purchases to take over: first of an item, from whomever, then what was bought from the order's supplier.
 *  Errors: forbidden, not_found. */
export async function readEarlier(
  deps: Deps,
  actor: Actor,
  { orderId, itemId }: { readonly orderId: number; readonly itemId: number | null },
): Promise<Result<Earlier, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<Earlier, Failure>>(deps.pool, async (tx) => {
    const order = await findOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const ofItem = itemId === null ? [] : await readBoughtFrom(tx, { itemId }, MOST);
    const last = new Map<number, BoughtRow>();
    for (const r of await readBoughtFrom(tx, { supplierId: order.supplierId }, MOST))
      if (r.itemId !== itemId && !last.has(r.itemId)) last.set(r.itemId, r);
    return ok({ ofItem: ofItem.map(lineOf), fromSupplier: [...last.values()].map(lineOf) });
  });
}

function lineOf(r: BoughtRow): EarlierLine {
  const price = priceOf(r);
  return {
    ...{ itemId: r.itemId, number: r.itemNumber, name: r.name, orderId: r.orderId, order: r.number },
    ...{ orderDate: r.orderDate, supplier: r.supplier, packs: fromDecimal(r.packQuantity), packId: r.packId },
    ...{ packName: r.packName, each: price && eachText(price, r.currency), currency: r.currency },
  };
}
