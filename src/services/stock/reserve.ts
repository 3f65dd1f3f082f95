import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import {
  type AllocationRow,
  allocateIfFree,
  insertAllocation,
  lockHeld,
  readOverpromised,
  reduceAllocated,
  updateAllocation,
} from '@/data/repositories/allocations';
import { lockLevels, type Pair } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import type { Tx } from '@/data/sql';
import { freeOf } from './gauge';

/** A promise that could not be kept any more because the stock is not there. */
export type ReleasedPromise = Pair & { readonly promisedTo: string; readonly quantity: Quantity };
export type NotFree = { readonly kind: 'not_free'; readonly itemId: number; readonly free: Quantity };

/** Promises stock that is free, beyond what is kept back (`keep`, the reserve of its policy). With endAllocation and releaseOverpromised the only writer of what is allocated, which
 *  always is the sum of what allocations hold. Errors: not_free, with how much is. */
export async function reserve(
  tx: Tx,
  promise: Pair & { quantity: Quantity; promisedTo: string; userId: number; at: string; keep?: Quantity },
): Promise<Result<number, NotFree>> {
  const quantity = toDecimal(promise.quantity);
  const [level] = await lockLevels(tx, [promise]);
  const keep = promise.keep ?? 0;
  if (!(await allocateIfFree(tx, promise, quantity, toDecimal(keep)))) {
    return err({ kind: 'not_free', itemId: promise.itemId, free: Math.max(0, (level ? freeOf(level) : 0) - keep) });
  }
  const { itemId, locationId, promisedTo, userId, at } = promise;
  markDirty(tx, [promise]);
  return ok(await insertAllocation(tx, { itemId, locationId, quantity, promisedTo, userId, at }));
}

export const heldOf = (a: AllocationRow): Quantity =>
  a.state === 'held' ? checked(fromDecimal(a.quantity) - fromDecimal(a.taken)) : 0;

/** Takes goods out of a promise (they leave now); what it still holds then stays promised, or is released. Without a quantity
 *  everything is released. The level and the allocation are locked by the caller. Returns how much of the promise went. */
export async function endAllocation(
  tx: Tx,
  a: AllocationRow,
  take: Quantity | null,
  rest: 'kept' | 'released' = take === null ? 'released' : 'kept',
): Promise<Quantity> {
  const held = heldOf(a);
  if (held === 0) return 0;
  const out = Math.min(take ?? 0, held);
  const gone = rest === 'released' ? held : out;
  const taken = toDecimal(checked(fromDecimal(a.taken) + out));
  const state = out === held ? 'taken' : rest === 'released' ? 'released' : 'held';
  await updateAllocation(tx, { id: a.id, taken, state });
  await reduceAllocated(tx, a, toDecimal(gone));
  markDirty(tx, [a]);
  return gone;
}

/** After stock went down: where more is promised than is there, the newest promises are released, whole, until it fits.
 *  The levels are locked by the caller. Says which. */
export async function releaseOverpromised(tx: Tx, pairs: readonly Pair[]): Promise<ReleasedPromise[]> {
  const released: ReleasedPromise[] = [];
  for (const pair of await readOverpromised(tx, pairs)) {
    let surplus = fromDecimal(pair.surplus);
    for (const a of await lockHeld(tx, pair)) {
      if (surplus <= 0) break;
      const quantity = await endAllocation(tx, a, null);
      surplus -= quantity;
      released.push({ itemId: a.itemId, locationId: a.locationId, promisedTo: a.promisedTo, quantity });
    }
  }
  return released;
}
