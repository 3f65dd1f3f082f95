import { eachText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readBoughtFrom } from '@/data/repositories/bought';
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
  /** What was looked for: purchases of the items on the order (or of one), or what else its supplier sold. */
  readonly of: 'items' | 'supplier';
  readonly lines: readonly EarlierLine[];
};

/** Earlier purchases to take over: of one item from whomever, or else what was bought from the order's supplier last, each item once.
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
    const rows = await readBoughtFrom(tx, itemId === null ? { supplierId: order.supplierId } : { itemId }, 60);
    const seen = new Set<number>();
    const lines = rows.flatMap((r): EarlierLine[] => {
      // From a supplier each item once, as it was bought last.
      if (itemId === null && seen.has(r.itemId)) return [];
      seen.add(r.itemId);
      const price = priceOf(r);
      return [
        {
          ...{ itemId: r.itemId, number: r.itemNumber, name: r.name, orderId: r.orderId, order: r.number },
          ...{ orderDate: r.orderDate, supplier: r.supplier, packs: fromDecimal(r.packQuantity), packId: r.packId },
          ...{ packName: r.packName, each: price && eachText(price, r.currency), currency: r.currency },
        },
      ];
    });
    return ok({ of: itemId === null ? 'supplier' : 'items', lines });
  });
}
