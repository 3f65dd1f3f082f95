import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder } from './loadOrder';
import { dropChange, openChange } from './orderSteps';
import type { OrderVersion } from './putBackOrder';

/** Opens an order that its supplier knows for changing. What is changed is told to the supplier with a number, once it is
 *  approved; until then everything counts as it stands. Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export async function amendOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'amend-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'amend', request.input.version);
    if (!loaded.ok) return loaded;
    await openChange(tx, actor, now, loaded.value);
    return ok(null);
  });
}

/** Drops a change that was begun: the lines are as they were, what came meanwhile stays booked in.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export async function dropAmendment(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'drop-amendment', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'drop_amendment', request.input.version);
    if (!loaded.ok) return loaded;
    return dropChange(tx, actor, now, loaded.value);
  });
}
