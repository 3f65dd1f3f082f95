import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { Asking } from '@/data/asking';
import { askKeptStates } from '@/data/repositories/movedStates';
import { askNeedsLocked, type NeedRow, readLastDecision } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { type AcceptedPart, type Chosen, decisionGround, postAccepted, type Way } from './postDecisions';

export type AcceptNeed = {
  readonly needId: number;
  readonly fingerprint: string;
  /** In the pack of whoever supplies it; of a place chosen besides in base units. */
  readonly packs: string;
  /** Another supplier, or another place, than the need says. */
  readonly way?: Way;
  /** What else covers it: a need that is split over several suppliers or places. */
  readonly also?: readonly { readonly packs: string; readonly way?: Way }[];
};
export type AcceptedNeed = AcceptedPart & { readonly also: readonly AcceptedPart[] };

/** Takes a need as decided and puts it into its supplier's tray, with the reckoning kept as it was. Conditional on the
 *  fingerprint the person saw: of two buyers one wins and the other is told who decided what. What another place sends goes
 *  onto the transfer from there that is still being put together, and is promised there at once. A need may be split over several.
 *  Errors: not_free (of what the other place has); forbidden, not_found, invalid_field packs, already_decided, changed_meanwhile, no_supplier. */
export async function acceptNeed(
  deps: Deps,
  actor: Actor,
  request: Request<AcceptNeed>,
): Promise<Result<AcceptedNeed, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { needId, fingerprint, packs, way, also = [] } = request.input;
  const chosen: Chosen[] = [];
  for (const part of [{ packs, way }, ...also]) {
    const checked = checkLineQuantity(part.packs);
    if (!checked.ok) return err(invalidField('packs', checked.error));
    chosen.push({ packs: checked.value, way: part.way });
  }
  return command(deps, actor, 'accept-need', request, async (tx, now) => {
    const ask = new Asking(tx, 'together');
    const [lock, kept] = [askNeedsLocked(ask, [needId]), askKeptStates(ask, [needId], now)];
    const [need] = await lock();
    if (!need) return err({ kind: 'not_found', what: 'need' });
    const same = await stillOpen(tx, need, fingerprint);
    if (!same.ok) return same;
    const place = may(actor, 'needs.decide', { locationIds: [need.locationId] });
    if (!place.ok) return place;
    const accepted = await postAccepted(await decisionGround(deps, tx, actor, now, [need], kept), need, chosen);
    if (!accepted.ok) return accepted;
    const { parts, decided } = accepted.value;
    const [first, ...rest] = parts as [AcceptedPart, ...AcceptedPart[]];
    const [only] = decided;
    await recordUndo(
      tx,
      actor,
      request.key,
      'accept-need',
      now,
      only && decided.length === 1 ? only : { kind: 'decided_many', decided },
    );
    return ok({ ...first, also: rest });
  });
}

/** That a locked need is still the one that was seen; otherwise who decided it and how. */
async function stillOpen(tx: Tx, need: NeedRow, fingerprint: string): Promise<Result<void, Failure>> {
  if (need.state === 'open' && need.fingerprint === fingerprint) return ok(undefined);
  const last = await readLastDecision(tx, need.id);
  if (need.state === 'decided' && last)
    return err({ kind: 'already_decided', who: last.who, packs: last.packQuantity, supplier: last.supplier });
  return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
}
