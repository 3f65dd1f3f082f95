import { openOf } from '@/core/promise';
import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  type CustomerLineRow,
  type CustomerOrderRow,
  insertHandOver,
  lockCustomerOrder,
  readCustomerLines,
  readHandedOn,
  readOrdersOfLines,
  setLineFigures,
  touchCustomerOrder,
} from '@/data/repositories/customerOrders';
import { markDirty } from '@/data/repositories/marks';
import type { PartRow } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { figuresOf } from '../promise/shareOut';

/** A customer's order that goods were sent for, straight from their supplier. */
export type Handed = {
  readonly orderId: number;
  readonly order: string;
  readonly customer: string;
  readonly quantity: Quantity;
  /** Sent beyond what the order still asks for. */
  readonly beyond: Quantity;
};

/** The customers' orders that these parts go straight to, locked; before levels, as everywhere. */
export async function lockCustomers(
  tx: Tx,
  parts: readonly Pick<PartRow, 'customerLineId'>[],
): Promise<readonly CustomerOrderRow[]> {
  const lineIds = parts.flatMap((p) => p.customerLineId ?? []);
  return lockOrders(tx, lineIds.length === 0 ? [] : await readOrdersOfLines(tx, lineIds));
}

async function lockOrders(tx: Tx, ids: readonly number[]): Promise<CustomerOrderRow[]> {
  const orders: CustomerOrderRow[] = [];
  for (const id of [...new Set(ids)].sort((a, b) => a - b)) {
    const order = await lockCustomerOrder(tx, id);
    if (order) orders.push(order);
  }
  return orders;
}

type At = { readonly userId: number; readonly now: string };

/** Hands over what a supplier has sent straight to customers, on the receipt it stands on. Where it is more than a line still asks
 *  for, the rest stays with the customer all the same. */
export async function postHandedOver(
  tx: Tx,
  at: At,
  { receiptId, receipt }: { readonly receiptId: number; readonly receipt: string },
  orders: readonly CustomerOrderRow[],
  sent: readonly { readonly part: Pick<PartRow, 'customerLineId'>; readonly base: Quantity }[],
): Promise<Handed[]> {
  const done: Handed[] = [];
  for (const order of orders) {
    const lines = await readCustomerLines(tx, [order.id]);
    const bases = new Map<number, Quantity>();
    for (const { part, base } of sent) {
      const id = part.customerLineId ?? 0;
      if (lines.some((l) => l.id === id)) bases.set(id, checked((bases.get(id) ?? 0) + base));
    }
    const handed = lines
      .filter((l) => bases.has(l.id))
      .map((l) => ({ line: l, quantity: Math.min(bases.get(l.id) as number, openOf(figuresOf(l))) }));
    for (const { line, quantity } of handed) await addHandedOver(tx, line, quantity);
    await insertHandOver(
      tx,
      { receiptId },
      handed
        .filter((h) => h.quantity > 0)
        .map(({ line, quantity }) => ({ lineId: line.id, quantity: toDecimal(quantity) })),
    );
    await follow(tx, at, order, new Set(bases.keys()), 'sent straight to the customer', { receipt });
    const quantity = handed.reduce((sum, h) => sum + h.quantity, 0);
    const all = [...bases.values()].reduce((sum, q) => sum + q, 0);
    const { id: orderId, number, customer } = order;
    done.push({ orderId, order: number, customer, quantity, beyond: all - quantity });
  }
  return done;
}

/** Takes back what was handed over on a receipt: it is open again. The receipt's order is locked. */
export async function takeBackHandedOver(tx: Tx, at: At, receiptId: number): Promise<void> {
  const handed = await readHandedOn(tx, receiptId);
  const orders = await lockOrders(
    tx,
    handed.map((h) => h.orderId),
  );
  for (const order of orders) {
    const lines = await readCustomerLines(tx, [order.id]);
    for (const h of handed.filter((x) => x.orderId === order.id)) {
      const line = lines.find((l) => l.id === h.lineId);
      if (line) await addHandedOver(tx, line, -fromDecimal(h.quantity));
    }
  }
  const concerned = new Set(handed.map((h) => h.lineId));
  for (const order of orders) await follow(tx, at, order, concerned, 'dispatch taken back', { receipt: receiptId });
}

const addHandedOver = (tx: Tx, line: CustomerLineRow, quantity: Quantity) =>
  setLineFigures(tx, {
    id: line.id,
    handedOver: toDecimal(checked(fromDecimal(line.handedOver) + quantity)),
    cancelled: line.cancelled,
  });

/** The state of an order follows its lines, and that of their pairs what was handed over of them (`concerned`), whichever way they go now. */
async function follow(
  tx: Tx,
  at: At,
  order: CustomerOrderRow,
  concerned: ReadonlySet<number>,
  action: string,
  after: object,
): Promise<void> {
  const lines = await readCustomerLines(tx, [order.id]);
  const open = lines.some((l) => openOf(figuresOf(l)) > 0);
  const went = lines.some((l) => fromDecimal(l.handedOver) > 0);
  await touchCustomerOrder(tx, { ...order, state: open ? 'open' : went ? 'done' : order.state });
  await recordChanges(tx, at.userId, at.now, [{ entity: 'customer_order', entityId: order.id, action, after }]);
  markDirty(
    tx,
    lines.filter((l) => concerned.has(l.id)),
  );
}
