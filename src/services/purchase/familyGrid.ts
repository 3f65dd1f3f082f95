import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readFamilyOf } from '@/data/repositories/itemFile';
import { readLevels } from '@/data/repositories/levels';
import { findOrder, readOrderLines } from '@/data/repositories/orders';
import { readStates } from '@/data/repositories/planning';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { freeOf } from '../stock/gauge';

export type FamilyCell = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly value1: string;
  readonly value2: string;
  readonly packName: string;
  readonly free: Quantity;
  readonly coming: Quantity;
  /** Packs of it that are on the order already. */
  readonly onOrder: Quantity;
  /** The order's supplier has sold it to us. */
  readonly sold: boolean;
};
/** A family by its options: values of the first down, of the second across ('' where it has only one). */
export type FamilyGrid = {
  readonly family: string;
  readonly option1: string;
  readonly option2: string;
  readonly down: readonly string[];
  readonly across: readonly string[];
  readonly cells: readonly FamilyCell[];
};

/** The family of an item to be ordered in one go, with what is free and coming at a place. Errors: forbidden (for the place),
 *  not_found when the item is of no family. */
export async function readFamilyGrid(
  deps: Deps,
  actor: Actor,
  { orderId, itemId, locationId }: { readonly orderId: number; readonly itemId: number; readonly locationId: number },
): Promise<Result<FamilyGrid, Failure>> {
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<FamilyGrid, Failure>>(deps.pool, async (tx) => {
    const order = await findOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const members = await readFamilyOf(tx, itemId);
    const [first] = members;
    if (!first) return err({ kind: 'not_found', what: 'item' });
    const ids = members.map((m) => m.itemId);
    const levels = new Map((await readLevels(tx, ids, [locationId])).map((l) => [l.itemId, l]));
    const states = new Map((await readStates(tx, ids, [locationId])).map((s) => [s.itemId, s]));
    const { bySource } = await readBuying(tx, ids);
    const own = new Map(
      [...bySource.values()].filter((b) => b.source.supplierId === order.supplierId).map((b) => [b.source.itemId, b]),
    );
    const onOrder = new Map<number, number>();
    for (const l of await readOrderLines(tx, [orderId]))
      if (l.itemId !== null) onOrder.set(l.itemId, (onOrder.get(l.itemId) ?? 0) + fromDecimal(l.packQuantity));
    const distinct = (values: readonly string[]) => [...new Set(values)];
    return ok({
      ...{ family: first.family, option1: first.option1, option2: first.option2 },
      down: distinct(members.map((m) => m.value1)),
      across: distinct(members.map((m) => m.value2)),
      cells: members.map((m): FamilyCell => {
        const level = levels.get(m.itemId);
        const { itemId: id, number, name, value1, value2 } = m;
        return {
          ...{ itemId: id, number, name, value1, value2, packName: own.get(id)?.packName ?? 'base unit' },
          ...{ free: level ? freeOf(level) : 0, coming: fromDecimal(states.get(id)?.onTheWay ?? '0') },
          ...{ onOrder: onOrder.get(id) ?? 0, sold: own.has(id) },
        };
      }),
    });
  });
}
