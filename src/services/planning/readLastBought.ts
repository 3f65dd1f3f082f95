import { pricePerBaseUnit } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readLastBought as readRows } from '@/data/repositories/orders';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { priceOf } from '../purchase/pricing';

export type Bought = {
  readonly orderId: number;
  readonly number: string;
  readonly orderDate: string;
  readonly supplier: string;
  readonly packs: Quantity;
  readonly packName: string;
  readonly each: string | null;
};

/** The last purchases of an item, newest first. Errors: forbidden. */
export async function readLastBought(deps: Deps, actor: Actor, itemId: number): Promise<Result<Bought[], Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  const rows = await readSnapshot(deps.pool, (tx) => readRows(tx, itemId, 4));
  return ok(
    rows.map((r) => {
      const price = priceOf(r);
      const { orderId, number, orderDate, supplier, packName } = r;
      return {
        orderId,
        number,
        orderDate,
        supplier,
        packName,
        packs: fromDecimal(r.packQuantity),
        each: price && pricePerBaseUnit(price, 2),
      };
    }),
  );
}
