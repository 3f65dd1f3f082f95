import { type Actor, may } from '@/core/people';
import type { Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { loadOrder } from './loadOrder';
import { type ApprovedOrder, postApproved } from './postApproved';
import type { OrderVersion } from './putBackOrder';

/** Approves a draft that has nothing missing; the number is drawn here, once, and kept from then on. A change of an order
 *  is approved in the same way and gets its own number, with what it says otherwise than the supplier was told.
 *  Errors: forbidden, above_limit, four_eyes, not_found, changed_meanwhile, not_in_this_state, not_ready with what is missing. */
export async function approveOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<ApprovedOrder, Failure>> {
  const allowed = may(actor, 'orders.approve');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'approve-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'approve', request.input.version);
    if (!loaded.ok) return loaded;
    const approved = await postApproved(deps, tx, actor, now, loaded.value);
    // A change is not undone: its supplier would have to be told again.
    if (approved.ok && approved.value.amendment === undefined)
      await recordUndo(tx, actor, request.key, 'approve-order', now, {
        ...{ kind: 'approved', orderId: request.input.orderId },
      });
    return approved;
  });
}
