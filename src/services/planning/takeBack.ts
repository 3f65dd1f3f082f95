import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { decideNeed, insertDecision, lockNeedsOf, markDirty } from '@/data/repositories/planning';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { fingerprintOf } from './recompute';

/** Takes a line out of its tray: the decision is withdrawn and the need is open again.
 *  Errors: forbidden, not_found, changed_meanwhile (already on an order or taken back). */
export async function takeBack(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly trayLineId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'take-back', request, async (tx, now) => {
    const [line] = await lockTrayLines(tx, [request.input.trayLineId]);
    if (!line) return err({ kind: 'not_found', what: 'tray' });
    if (line.state !== 'in_tray') return err({ kind: 'changed_meanwhile', what: 'tray', who: null, now: line.state });
    const place = may(actor, 'needs.decide', { locationIds: [line.locationId] });
    if (!place.ok) return place;
    await updateTrayLine(tx, { ...line, state: 'taken_back' });
    const [need] = await lockNeedsOf(tx, [line]);
    if (need && need.lastDecisionId === line.decisionId) {
      const decisionId = await insertDecision(tx, {
        needId: need.id,
        kind: 'take_back',
        fingerprint: need.fingerprint,
        shortage: need.shortage,
        sourceId: null,
        packId: null,
        packQuantity: '0',
        baseQuantity: '0',
        reckoning: 'null',
        userId: actor.userId,
        at: now,
      });
      await decideNeed(tx, need.id, 'open', decisionId, fingerprintOf({ ...need, lastDecisionId: decisionId }), now);
    }
    await recordChanges(tx, actor.userId, now, [
      { entity: 'tray_line', entityId: line.id, action: 'taken back', before: { packQuantity: line.packQuantity } },
    ]);
    markDirty(tx, [line]);
    return ok(null);
  });
}
