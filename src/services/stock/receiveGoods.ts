import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type BookedIn, postReceipt, type ReceiveGoods } from './postReceipt';

/** Books in what was counted of an order at one location, in one transaction. Errors: those of postReceipt. */
export async function receiveGoods(
  deps: Deps,
  actor: Actor,
  request: Request<ReceiveGoods>,
): Promise<Result<BookedIn, Failure>> {
  const { locationId, unordered } = request.input;
  const allowed = may(actor, 'goods.receive', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  // Who may not see prices may not say one either.
  const says = unordered?.some((u) => u.price.trim() !== '' || u.freeOfCharge) ?? false;
  const prices = says ? may(actor, 'orders.read') : ok(null);
  if (!prices.ok) return prices;
  return command(deps, actor, 'receive-goods', request, (tx, now) =>
    postReceipt(deps, tx, actor, { key: request.key, now, straight: false }, request.input),
  );
}
