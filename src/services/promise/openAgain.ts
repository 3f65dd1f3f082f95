import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  type CustomerOrderRow,
  readCustomerLines,
  readDemands,
  setLineFigures,
  touchCustomerOrder,
} from '@/data/repositories/customerOrders';
import { markDirty } from '@/data/repositories/marks';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { shareOut } from './shareOut';

/** What was cancelled of an order, locked, is open again, and given stock in turn with everybody who waits.
 *  Errors: not_undoable where it is not cancelled any more. */
export async function openAgain(
  tx: Tx,
  at: { readonly userId: number; readonly now: string; readonly today: string },
  order: CustomerOrderRow,
  back: readonly { readonly lineId: number; readonly quantity: Quantity }[],
): Promise<Result<null, Failure>> {
  const lines = await readCustomerLines(tx, [order.id]);
  const chosen = back.flatMap(({ lineId, quantity }) =>
    lines.filter((l) => l.id === lineId).map((line) => ({ line, quantity })),
  );
  if (chosen.some(({ line, quantity }) => fromDecimal(line.cancelled) < quantity))
    return err({ kind: 'not_undoable', because: 'gone_on' });
  for (const { line, quantity } of chosen)
    await setLineFigures(tx, {
      id: line.id,
      handedOver: line.handedOver,
      cancelled: toDecimal(checked(fromDecimal(line.cancelled) - quantity)),
    });
  await touchCustomerOrder(tx, { ...order, state: 'open' });
  await recordChanges(tx, at.userId, at.now, [
    {
      entity: 'customer_order',
      entityId: order.id,
      action: 'open again',
      after: { lines: chosen.map(({ line }) => line.lineNo) },
    },
  ]);
  const places = new Map(chosen.map(({ line }) => [line.id, line.locationId]));
  const pairs = (await readDemands(tx, [...places.keys()])).map((d) => ({
    itemId: d.itemId,
    locationId: places.get(d.lineId) as number,
  }));
  markDirty(tx, pairs);
  await shareOut(tx, at, pairs);
  return ok(null);
}
