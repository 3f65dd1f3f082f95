import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markSent } from '@/data/repositories/orders';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder } from './loadOrder';
import type { OrderVersion } from './putBackOrder';

export type SendOrder = OrderVersion & { readonly how: 'printed' | 'phone' | 'email' };

/** Records that an approved order has gone to the supplier. This cannot be undone.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export async function sendOrder(deps: Deps, actor: Actor, request: Request<SendOrder>): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.send');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'send-order', request, async (tx, now) => {
    const { orderId, version, how } = request.input;
    const loaded = await loadOrder(tx, orderId, 'send', version);
    if (!loaded.ok) return loaded;
    await markSent(tx, { id: orderId, userId: actor.userId, at: now, how });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'sent', after: { how } },
    ]);
    return ok(null);
  });
}
