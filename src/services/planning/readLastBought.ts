import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type Bought, readBought } from '../purchase/bought';

/** The last purchases of an item, for the panel beside its need. Errors: forbidden. */
export async function readLastBought(deps: Deps, actor: Actor, itemId: number): Promise<Result<Bought[], Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return ok(await readSnapshot(deps.pool, (tx) => readBought(tx, itemId, 4)));
}
