import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { lockNeeds } from '@/data/repositories/planning';
import { ensureNeeds, readNeedsOfPairs } from '@/data/repositories/topUps';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { pairKey } from '../grouping';
import { decisionGround, postAccepted } from '../planning/postDecisions';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { type TopUpTarget, topUpOf } from './topUps';

/** What was seen: how many packs of what, and what it adds to the tray. */
export type TopUpTray = {
  readonly supplierId: number;
  readonly target: TopUpTarget;
  readonly amount: number;
};

/** Brings forward what takes a tray to its minimum or to free freight: decisions that cover no shortage. It is reckoned again; when
 *  it comes to another sum than the person saw, nothing happens. Errors: forbidden, not_found, changed_meanwhile. */
export async function topUpTray(
  deps: Deps,
  actor: Actor,
  request: Request<TopUpTray>,
): Promise<Result<{ readonly lines: number }, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { supplierId, target, amount } = request.input;
  return command(deps, actor, 'top-up-tray', request, async (tx, now) => {
    const found = await topUpOf(tx, todayOf(deps, await readCompany(tx)), supplierId, target);
    if (!found) return err({ kind: 'not_found', what: 'tray' });
    if (found.amount !== amount) return err({ kind: 'changed_meanwhile', what: 'tray', who: null, now: null });
    for (const { locationId } of found.buys) {
      const place = may(actor, 'needs.decide', { locationIds: [locationId] });
      if (!place.ok) return place;
    }
    await ensureNeeds(tx, found.buys, now);
    const ids = await readNeedsOfPairs(tx, found.buys);
    const wanted = new Map(found.buys.map((b) => [ids.get(pairKey(b.itemId, b.locationId)) ?? 0, b]));
    const needs = await lockNeeds(tx, [...wanted.keys()]);
    const ground = await decisionGround(deps, tx, actor, now, needs);
    const decided: Decided[] = [];
    for (const need of needs) {
      const buy = wanted.get(need.id);
      if (!buy) continue;
      const chosen = { packs: buy.packs, way: { sourceId: buy.sourceId } };
      // Nothing is short: it covers no cause.
      const done = await postAccepted(ground, { ...need, shortage: '0', cause: '', fingerprint: '0||0|0' }, [chosen]);
      if (!done.ok) return done;
      decided.push(...done.value.decided);
    }
    await recordUndo(tx, actor, request.key, 'top-up-tray', now, { kind: 'decided_many', decided });
    return ok({ lines: decided.length });
  });
}
