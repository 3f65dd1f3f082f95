import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder } from './loadOrder';
import { reopen } from './orderSteps';
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
    await reopen(tx, actor, now, loaded.value);
    return ok(null);
  });
}
