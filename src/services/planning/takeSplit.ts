import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { lockNeeds } from '@/data/repositories/planning';
import { lockSplit, markSplitTaken } from '@/data/repositories/splits';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { decisionGround, postAccepted } from './postDecisions';
import type { SplitResult } from './splitRun';

/** Takes over an assignment that was found, in one step: every need of it goes into the tray of its supplier. Needs that are no longer
 *  as they were then are left. Errors: forbidden, not_found (another's, or nothing was found), changed_meanwhile (taken already, or
 *  nothing of it is as it was). */
export async function takeSplit(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly splitId: number }>,
): Promise<Result<{ readonly taken: readonly number[]; readonly changed: number }, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'take-split', request, async (tx, now) => {
    const row = await lockSplit(tx, request.input.splitId);
    const result = row?.result ? (JSON.parse(row.result) as SplitResult) : null;
    if (!row || row.userId !== actor.userId || result?.kind !== 'found')
      return err({ kind: 'not_found', what: 'need' });
    const meanwhile = { kind: 'changed_meanwhile' as const, what: 'need' as const, who: null, now: null };
    if (row.takenAt !== null) return err(meanwhile);
    const lines = new Map(result.lines.map((l) => [l.needId, l]));
    const needs = (await lockNeeds(tx, [...lines.keys()])).filter(
      (n) => n.state === 'open' && n.fingerprint === lines.get(n.id)?.fingerprint,
    );
    if (needs.length === 0) return err(meanwhile);
    const ground = await decisionGround(deps, tx, actor, now, needs);
    const decided: Decided[] = [];
    for (const need of needs) {
      const place = may(actor, 'needs.decide', { locationIds: [need.locationId] });
      if (!place.ok) return place;
      const best = lines.get(need.id)?.best;
      if (!best) continue;
      const done = await postAccepted(ground, need, [{ packs: best.packs, way: { sourceId: best.sourceId } }]);
      if (!done.ok) return done;
      decided.push(...done.value.decided);
    }
    await markSplitTaken(tx, row.id, now);
    await recordUndo(tx, actor, request.key, 'take-split', now, { kind: 'decided_many', decided });
    return ok({ taken: needs.map((n) => n.id), changed: lines.size - needs.length });
  });
}
