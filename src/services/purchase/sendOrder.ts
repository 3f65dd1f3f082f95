import { randomBytes } from 'node:crypto';
import { type Actor, may } from '@/core/people';
import { orderMail, type SentHow } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setSendingMail } from '@/data/repositories/orderLife';
import { insertMail } from '@/data/repositories/outbox';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder } from './loadOrder';
import { paperOf } from './orderPaper';
import { postSent } from './orderSteps';
import type { OrderVersion } from './putBackOrder';

export type SendOrder = OrderVersion & {
  readonly how: SentHow;
  /** Whom it was told at the supplier's; '' = not said. */
  readonly to?: string;
};

/** An approved order, or its change, goes to the supplier. By mail it waits in the outbox and is sent once the mail is out;
 *  every other way somebody has gone already. This cannot be undone.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, no_mail_address. */
export async function sendOrder(deps: Deps, actor: Actor, request: Request<SendOrder>): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.send');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'send-order', request, async (tx, now) => {
    const { orderId, version, how, to = '' } = request.input;
    const loaded = await loadOrder(tx, orderId, 'send', version);
    if (!loaded.ok) return loaded;
    if (how !== 'email') {
      await postSent(tx, { userId: actor.userId, now }, loaded.value, { how, to: to.trim() });
      return ok(null);
    }
    const { order } = loaded.value;
    if (order.supplierEmail === '') return err({ kind: 'no_mail_address', supplier: order.supplierName });
    const paper = await paperOf(deps, tx, orderId);
    if (!paper) return err({ kind: 'not_found', what: 'order' });
    const mailId = await insertMail(tx, {
      ...orderMail(paper),
      messageId: `<order-${orderId}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
      recipient: order.supplierEmail,
      entity: 'order',
      entityId: orderId,
      userId: actor.userId,
      at: now,
    });
    await setSendingMail(tx, orderId, mailId);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'handed to the mail', after: { to: order.supplierEmail } },
    ]);
    return ok(null);
  });
}
