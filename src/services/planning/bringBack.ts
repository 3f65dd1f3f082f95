import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markDirty } from '@/data/repositories/marks';
import { lockNeeds } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { reopenNeed } from './reopenNeed';

/** Brings needs that were put off or left out back into the list, all of them or none.
 *  Errors: forbidden, not_found, changed_meanwhile (it is back already, or was decided). */
export async function bringBack(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly needIds: readonly number[] }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'bring-back', request, async (tx, now) => {
    const asked = new Set(request.input.needIds);
    const locked = await lockNeeds(tx, [...asked]);
    if (locked.length < asked.size) return err({ kind: 'not_found', what: 'need' });
    const done = [];
    for (const need of locked) {
      const place = may(actor, 'needs.decide', { locationIds: [need.locationId] });
      if (!place.ok) return place;
      if (need.state !== 'aside') return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
      const { decisionId } = await reopenNeed(tx, actor, now, need.lastDecisionId);
      if (decisionId === null) throw new Error(`need ${need.id} was put aside by no decision`);
      done.push({ needId: need.id, decisionId, before: need.lastDecisionId, state: 'aside' as const });
    }
    await recordChanges(
      tx,
      actor.userId,
      now,
      done.map(({ needId }) => ({ entity: 'need', entityId: needId, action: 'brought back' })),
    );
    await recordUndo(tx, actor, request.key, 'bring-back', now, { kind: 'set_aside', needs: done });
    markDirty(tx, locked);
    return ok(null);
  });
}
