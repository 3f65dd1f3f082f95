import type { Reckoning } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { readNeedsByIds, readStatesAt } from '@/data/repositories/planning';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { pairMap } from '../grouping';
import { readPairPlans, reckoningOf } from './pairPlans';

/** The sums behind needs as they are now, of those at the person's places; null where no policy raises one from stock, or
 *  nobody asks for it any more. Errors: forbidden. */
export async function readReckonings(
  deps: Deps,
  actor: Actor,
  needIds: readonly number[],
): Promise<Result<readonly { readonly needId: number; readonly reckoning: Reckoning | null }[], Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const needs = (await readNeedsByIds(tx, needIds)).filter((n) => actor.locations?.includes(n.locationId) ?? true);
    const today = todayOf(deps, await readCompany(tx));
    const states = pairMap(await readStatesAt(tx, needs));
    const plans = await readPairPlans(
      tx,
      needs.map((n) => n.itemId),
      today,
    );
    return ok(
      needs.map((n) => ({
        needId: n.id,
        reckoning: reckoningOf(plans, states, n),
      })),
    );
  });
}
