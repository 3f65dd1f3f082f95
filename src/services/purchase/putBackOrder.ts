import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { loadOrder } from './loadOrder';
import { putBack } from './orderSteps';

export type OrderVersion = { readonly orderId: number; readonly version: number };

/** Puts an order that was not sent back into its trays, with the quantities it has now. A draft that never had a number
 *  is put back; one with a number is cancelled and keeps it.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state (sent, or goods were booked in). */
export async function putBackOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<{ lines: number }, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'put-back-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'put_back', request.input.version);
    if (!loaded.ok) return loaded;
    const { order, lines } = loaded.value;
    const trayLineIds = await putBack(tx, actor, now, loaded.value);
    const effect = { kind: 'put_back' as const, orderId: order.id, before: order.state, trayLineIds };
    await recordUndo(tx, actor, request.key, 'put-back-order', now, effect);
    return ok({ lines: lines.length });
  });
}
