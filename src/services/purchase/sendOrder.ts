import { randomBytes } from 'node:crypto';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany, readLocations } from '@/data/repositories/company';
import { markSent } from '@/data/repositories/orders';
import { insertMail } from '@/data/repositories/outbox';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder } from './loadOrder';
import { orderMail } from './orderMail';
import type { OrderVersion } from './putBackOrder';

export type SendOrder = OrderVersion & { readonly how: 'printed' | 'phone' | 'email' };

/** Records that an approved order has gone to the supplier; by mail it goes out of the outbox after this commit. This
 *  cannot be undone. Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, no_mail_address. */
export async function sendOrder(deps: Deps, actor: Actor, request: Request<SendOrder>): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.send');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'send-order', request, async (tx, now) => {
    const { orderId, version, how } = request.input;
    const loaded = await loadOrder(tx, orderId, 'send', version);
    if (!loaded.ok) return loaded;
    if (how === 'email') {
      const { order, lines, parts } = loaded.value;
      if (order.supplierEmail === '') return err({ kind: 'no_mail_address', supplier: order.supplierName });
      await insertMail(tx, {
        ...orderMail(order, lines, parts, await readLocations(tx), await readCompany(tx)),
        messageId: `<order-${orderId}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
        recipient: order.supplierEmail,
        entity: 'order',
        entityId: orderId,
        userId: actor.userId,
        at: now,
      });
    }
    await markSent(tx, { id: orderId, userId: actor.userId, at: now, how });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'sent', after: { how } },
    ]);
    return ok(null);
  });
}
