import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readNeedsByIds } from '@/data/repositories/planning';
import { insertSplit, setSplitJob } from '@/data/repositories/splits';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { leaveToWorker } from '../work/leaveToWorker';

/** Seconds that the solver may take at most. */
export const SPLIT_SECONDS = 10;

/** Has the worker assign needs to suppliers together, the cheapest way. Errors: forbidden, not_found, changed_meanwhile (one of
 *  them is not open any more). */
export async function startSplit(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly needIds: readonly number[] }>,
): Promise<Result<{ readonly splitId: number }, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'start-split', request, async (tx, now) => {
    const ids = [...new Set(request.input.needIds)];
    const needs = await readNeedsByIds(tx, ids);
    if (needs.length < ids.length) return err({ kind: 'not_found', what: 'need' });
    for (const n of needs) {
      const place = may(actor, 'needs.decide', { locationIds: [n.locationId] });
      if (!place.ok) return place;
      if (n.state !== 'open') return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
    }
    const splitId = await insertSplit(tx, {
      ...{ userId: actor.userId, needIds: JSON.stringify(ids), seconds: SPLIT_SECONDS, at: now },
    });
    await setSplitJob(
      tx,
      splitId,
      await leaveToWorker(tx, 'split-needs', now, actor.userId, { split: String(splitId) }),
    );
    return ok({ splitId });
  });
}
