import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setOrderState } from '@/data/repositories/orders';
import { markDirty } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder, pairsOf } from './loadOrder';
import type { OrderVersion } from './putBackOrder';

/** Takes an approved order that was not sent back to draft for editing; it keeps its number.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export async function reopenOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'reopen-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'reopen', request.input.version);
    if (!loaded.ok) return loaded;
    const { order, lines, parts, next } = loaded.value;
    await setOrderState(tx, order.id, next);
    await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: order.id, action: 'opened for editing' }]);
    markDirty(tx, pairsOf(lines, parts));
    return ok(null);
  });
}
