import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { findAllocation, lockAllocations } from '@/data/repositories/allocations';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockLevels } from '@/data/repositories/levels';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { itemsInStock, quantitiesOf } from './enterLines';
import { endAllocation, reserve } from './reserve';

export type AllocateStock = {
  readonly itemId: number;
  readonly locationId: number;
  readonly quantity: string;
  readonly promisedTo: string;
};

/** Promises free stock of an item at a place to somebody. Errors: forbidden, not_found, invalid_field lines.0, not_free. */
export async function allocateStock(
  deps: Deps,
  actor: Actor,
  request: Request<AllocateStock>,
): Promise<Result<{ allocationId: number }, Failure>> {
  const { itemId, locationId, promisedTo } = request.input;
  const allowed = may(actor, 'stock.allocate', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const quantity = quantitiesOf([request.input], 'positive');
  if (!quantity.ok) return quantity;
  return command(deps, actor, 'allocate-stock', request, async (tx, now) => {
    const ours = await itemsInStock(tx, [locationId], [itemId]);
    if (!ours.ok) return ours;
    const promise = { itemId, locationId, quantity: quantity.value[0] as number, promisedTo };
    const reserved = await reserve(tx, { ...promise, userId: actor.userId, at: now });
    if (!reserved.ok) return reserved;
    await recordChanges(tx, actor.userId, now, [
      { entity: 'allocation', entityId: reserved.value, action: 'allocated', after: promise },
    ]);
    return ok({ allocationId: reserved.value });
  });
}

/** Gives back what an allocation still holds. Errors: forbidden, not_found (also when it holds nothing any more). */
export async function releaseAllocation(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly allocationId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.allocate');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'release-allocation', request, async (tx, now) => {
    const { allocationId } = request.input;
    const found = await findAllocation(tx, allocationId);
    if (!found) return err({ kind: 'not_found', what: 'allocation' });
    const place = may(actor, 'stock.allocate', { locationIds: [found.locationId] });
    if (!place.ok) return place;
    await lockLevels(tx, [found]);
    const [locked] = await lockAllocations(tx, [allocationId]);
    if (!locked || (await endAllocation(tx, locked, null)) === 0) return err({ kind: 'not_found', what: 'allocation' });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'allocation', entityId: allocationId, action: 'released', before: { quantity: locked.quantity } },
    ]);
    return ok(null);
  });
}
