import { parseDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { isOrdered } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { setFollowUp } from '@/data/repositories/orderLife';
import { lockOrder } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import type { OrderVersion } from './putBackOrder';

export type FollowUp = OrderVersion & {
  /** When the supplier is to be asked next, as typed; '' = not at all. */
  readonly next: string;
  readonly note: string;
};

/** Notes what was said about an order, and when to ask its supplier next.
 *  Errors: forbidden, not_found, not_in_this_state, invalid_field next. */
export async function followUpOrder(
  deps: Deps,
  actor: Actor,
  request: Request<FollowUp>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, next, note } = request.input;
  return command(deps, actor, 'follow-up-order', request, async (tx, now) => {
    const order = await lockOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    if (!isOrdered(order.state)) return err({ kind: 'not_in_this_state', state: order.state, action: 'confirm' });
    const today = todayOf(deps, await readCompany(tx));
    const day = next.trim() === '' ? ok(null) : parseDate(next, today);
    if (!day.ok) return err(invalidField('next', day.error));
    await setFollowUp(tx, orderId, day.value);
    const after = { ...(day.value ? { next: day.value } : {}), ...(note.trim() ? { note: note.trim() } : {}) };
    await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: orderId, action: 'asked after', after }]);
    return ok(null);
  });
}
