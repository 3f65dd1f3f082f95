import { findCarried } from '@/data/repositories/orderLife';
import { lockOrder, readOrderLines, readParts } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { postSent } from './orderSteps';

/** A mail is out: the order that it carried has been sent with it. */
export async function postMailed(tx: Tx, mailId: number, now: string): Promise<void> {
  const carried = await findCarried(tx, mailId);
  if (!carried) return;
  const order = await lockOrder(tx, carried.id);
  if (order?.state !== 'approved' || order.sendingMailId !== mailId) return;
  const lines = await readOrderLines(tx, [order.id]);
  const parts = await readParts(tx, [order.id]);
  const to = order.supplierEmail;
  await postSent(tx, { userId: carried.userId, now }, { order, lines, parts }, { how: 'email', to });
}
