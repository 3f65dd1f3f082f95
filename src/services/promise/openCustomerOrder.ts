import { type Actor, may } from '@/core/people';
import { type CustomerOrderAction, checkCustomerOrder } from '@/core/promise';
import { err, ok, type Result } from '@/core/result';
import { readChanges } from '@/data/repositories/bookkeeping';
import {
  type CustomerLineRow,
  type CustomerOrderRow,
  type DemandRow,
  lockCustomerOrder,
  readCustomerLines,
  readDemands,
} from '@/data/repositories/customerOrders';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';

export type OrderVersion = { readonly orderId: number; readonly version: number };
export type OpenCustomerOrder = {
  readonly order: CustomerOrderRow;
  readonly lines: readonly CustomerLineRow[];
  readonly demandsOf: (lineId: number) => readonly DemandRow[];
};

/** Locks a customer's order for a step that its state allows, as the person read it; every one of its lines has to be at a
 *  place of theirs. Errors: not_found, forbidden, changed_meanwhile, customer_order_not_in_this_state. */
export async function openCustomerOrder(
  tx: Tx,
  actor: Actor,
  { orderId, version }: OrderVersion,
  action: CustomerOrderAction,
): Promise<Result<OpenCustomerOrder, Failure>> {
  const order = await lockCustomerOrder(tx, orderId);
  if (!order) return err({ kind: 'not_found', what: 'order' });
  const lines = await readCustomerLines(tx, [orderId]);
  const here = may(actor, 'promises.edit', { locationIds: lines.map((l) => l.locationId) });
  if (!here.ok) return here;
  const state = checkCustomerOrder(order.state, action);
  if (!state.ok) return state;
  if (order.version !== version) {
    const last = (await readChanges(tx, 'customer_order', orderId)).at(-1);
    return err({ kind: 'changed_meanwhile', what: 'order', who: last?.who ?? null, now: last?.action ?? null });
  }
  const demands = groupBy(
    await readDemands(
      tx,
      lines.map((l) => l.id),
    ),
    (d) => d.lineId,
  );
  return ok({ order, lines, demandsOf: (lineId) => demands.get(lineId) ?? [] });
}
