import { baseQuantity } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { decideNeed, insertDecision, lockNeed, markDirty, readLastDecision } from '@/data/repositories/planning';
import { insertTrayLine } from '@/data/repositories/trays';
import { readBuying } from '../catalogue/buying';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { reckonPair } from './reckonPair';
import { fingerprintOf } from './recompute';

export type AcceptNeed = { readonly needId: number; readonly fingerprint: string; readonly packs: string };
export type AcceptedNeed = { readonly trayLineId: number; readonly supplier: string };

/** Takes a need as decided and puts it into its supplier's tray, with the reckoning kept as it was. Conditional on the
 *  fingerprint the person saw: of two buyers one wins and the other is told who decided what.
 *  Errors: forbidden, not_found, invalid_field packs, already_decided, changed_meanwhile, no_supplier. */
export async function acceptNeed(
  deps: Deps,
  actor: Actor,
  request: Request<AcceptNeed>,
): Promise<Result<AcceptedNeed, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { needId, fingerprint } = request.input;
  const packs = checkLineQuantity(request.input.packs);
  if (!packs.ok) return err(invalidField('packs', packs.error));
  return command(deps, actor, 'accept-need', request, async (tx, now) => {
    const need = await lockNeed(tx, needId);
    if (!need) return err({ kind: 'not_found', what: 'need' });
    if (need.state !== 'open' || need.fingerprint !== fingerprint) {
      const last = await readLastDecision(tx, needId);
      if (need.state === 'decided' && last) {
        return err({ kind: 'already_decided', who: last.who, packs: last.packQuantity, supplier: last.supplier });
      }
      return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
    }
    const { itemId, locationId } = need;
    const place = may(actor, 'needs.decide', { locationIds: [locationId] });
    if (!place.ok) return place;
    const buying = (await readBuying(tx, [itemId])).bySource.get(need.sourceId ?? 0);
    if (!buying) return err({ kind: 'no_supplier' });
    const reckoning = await reckonPair(tx, await readCompany(tx), itemId, locationId, buying);
    const base = toDecimal(baseQuantity(packs.value, buying.content));
    if (base === '0') return err(invalidField('packs', { kind: 'zero_quantity' }));
    const quantities = { packQuantity: toDecimal(packs.value), baseQuantity: base };
    const decisionId = await insertDecision(tx, {
      needId,
      kind: 'accept',
      fingerprint,
      shortage: need.shortage,
      sourceId: buying.source.id,
      packId: buying.source.packId,
      ...quantities,
      reckoning: JSON.stringify(reckoning),
      userId: actor.userId,
      at: now,
    });
    const trayLineId = await insertTrayLine(tx, {
      supplierId: buying.source.supplierId,
      decisionId,
      itemId,
      locationId,
      sourceId: buying.source.id,
      packId: buying.source.packId,
      ...quantities,
      userId: actor.userId,
      at: now,
    });
    const decided = fingerprintOf({ ...need, lastDecisionId: decisionId });
    await decideNeed(tx, needId, 'decided', decisionId, decided, now);
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'need',
        entityId: needId,
        action: 'accepted',
        before: { suggested: need.suggested },
        after: quantities,
      },
    ]);
    await recordUndo(tx, actor, request.key, 'accept-need', now, { kind: 'accepted', needId, trayLineId });
    markDirty(tx, [{ itemId, locationId }]);
    return ok({ trayLineId, supplier: buying.source.supplierName });
  });
}
