import { openQuantity } from '@/core/netting';
import { nextState, type OrderAction, type OrderFacts, type OrderState } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readChanges } from '@/data/repositories/bookkeeping';
import {
  lockOrder,
  type OrderLineRow,
  type OrderRow,
  type PartRow,
  partFigures,
  readOrderLines,
  readParts,
} from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';

export type LoadedOrder = {
  readonly order: OrderRow;
  readonly lines: OrderLineRow[];
  readonly parts: PartRow[];
  readonly next: OrderState;
};

/** What is still to come of a part, in millionths of its base unit. */
export const openOfPart = (p: PartRow): number => {
  // Charges and services come to no place: nothing of them is waited for.
  if (p.locationId === null) return 0;
  const { base: ordered, received, cancelled } = partFigures(p);
  return openQuantity({ ordered, received, cancelled });
};

/** An order as its transitions look at it. */
export const factsOf = (order: OrderRow, parts: readonly PartRow[]): OrderFacts => ({
  state: order.state,
  number: order.number,
  before: order.before,
  everSent: order.sentAt !== null,
  mailWaits: order.sending === 'waiting',
  anyReceived: parts.some((p) => fromDecimal(p.received) > 0),
  anyOpen: parts.some((p) => openOfPart(p) > 0),
});

/** Locks an order, reads it whole and decides whether the action is possible in its state.
 *  With a version, the order must still be the one the person read. */
export async function loadOrder(
  tx: Tx,
  orderId: number,
  action: OrderAction,
  version?: number,
): Promise<Result<LoadedOrder, Failure>> {
  const order = await lockOrder(tx, orderId);
  if (!order) return err({ kind: 'not_found', what: 'order' });
  const lines = await readOrderLines(tx, [orderId]);
  const parts = await readParts(tx, [orderId]);
  if (version !== undefined && version !== order.version) {
    const last = (await readChanges(tx, 'order', orderId)).at(-1);
    return err({ kind: 'changed_meanwhile', what: 'order', who: last?.who ?? null, now: last?.action ?? null });
  }
  const next = nextState(factsOf(order, parts), action);
  return next.ok ? ok({ order, lines, parts, next: next.value }) : next;
}

/** The pairs an order supplies. */
export const pairsOf = (lines: readonly OrderLineRow[], parts: readonly PartRow[]) => {
  const items = new Map(lines.map((l) => [l.id, l.itemId]));
  return parts.flatMap((p) => {
    const itemId = items.get(p.lineId) ?? null;
    return itemId === null || p.locationId === null ? [] : [{ itemId, locationId: p.locationId }];
  });
};
