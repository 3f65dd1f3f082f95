import { type Actor, may } from '@/core/people';
import type { Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type BookedIn, postReceipt, type ReceiveGoods } from './postReceipt';

/** Confirms that a supplier has sent parts of an order straight to their customers: they are received and handed over in one step and
 *  never lie with us. `deliveryNote`: the supplier's dispatch note; `counted`: packs or base units sent per part.
 *  Errors: those of postReceipt (not_found for a part that comes to a place). */
export async function confirmDispatch(
  deps: Deps,
  actor: Actor,
  request: Request<Omit<ReceiveGoods, 'unordered'>>,
): Promise<Result<BookedIn, Failure>> {
  const allowed = may(actor, 'orders.edit', { locationIds: [request.input.locationId] });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'confirm-dispatch', request, (tx, now) =>
    postReceipt(deps, tx, actor, { key: request.key, now, straight: true }, request.input),
  );
}
