import { type BusinessDate, parseDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { insertDecision, lockNeeds } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type Effect, recordUndo } from '../undo/recordUndo';
import { postDecided } from './decidedNeed';
import { decisionGround, reckoningNow, waitedOf } from './postDecisions';

/** Needs as they were seen. */
export type SeenNeeds = readonly { readonly needId: number; readonly fingerprint: string }[];

/** put_off: until a day, as typed. leave_out: with a reason, until a day or, with '', for good. */
export type SetAside = {
  readonly needs: SeenNeeds;
  readonly kind: 'put_off' | 'leave_out';
  readonly until: string;
  readonly reason: string;
};

/** Puts needs off until a day, or leaves them out with a reason. They come back by themselves on their day, and earlier once the
 *  shortage has grown by a pack or more customers wait. All of them or none. Errors: forbidden, not_found, invalid_field until or
 *  reason, changed_meanwhile, bought_one_to_one (what another place or a customer asks for one to one is decided there). */
export async function setAside(
  deps: Deps,
  actor: Actor,
  request: Request<SetAside>,
): Promise<Result<{ readonly until: BusinessDate | null }, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { needs, kind } = request.input;
  const reason = request.input.reason.trim();
  if (kind === 'leave_out' && reason === '') return err(invalidField('reason', { kind: 'reason_missing' }));
  return command(deps, actor, 'set-aside', request, async (tx, now) => {
    const today = todayOf(deps, await readCompany(tx));
    const until = untilOf(request.input, today);
    if (!until.ok) return until;
    const locked = await lockNeeds(
      tx,
      needs.map((n) => n.needId),
    );
    const ground = await decisionGround(deps, tx, actor, now, locked);
    const seen = new Map(needs.map((n) => [n.needId, n.fingerprint]));
    const done: (Effect & { kind: 'set_aside' })['needs'][number][] = [];
    for (const need of locked) {
      const place = may(actor, 'needs.decide', { locationIds: [need.locationId] });
      if (!place.ok) return place;
      if (need.pegOf !== 'pair') return err({ kind: 'bought_one_to_one' });
      if (need.state !== 'open' || need.fingerprint !== seen.get(need.id))
        return err({ kind: 'changed_meanwhile', what: 'need', who: null, now: null });
      const decisionId = await insertDecision(tx, {
        ...{ needId: need.id, kind, fingerprint: need.fingerprint, shortage: need.shortage },
        ...{ sourceId: need.sourceId, packId: null, packQuantity: '0', baseQuantity: need.suggested },
        ...{ reckoning: JSON.stringify(await reckoningNow(ground, need)), waited: await waitedOf(ground, need) },
        ...{ until: until.value, reason, userId: actor.userId, at: now, previousId: need.lastDecisionId },
      });
      await postDecided(tx, need, 'aside', decisionId, now);
      done.push({ needId: need.id, decisionId, before: need.lastDecisionId, state: 'open' });
    }
    if (done.length < seen.size) return err({ kind: 'not_found', what: 'need' });
    const action = kind === 'put_off' ? 'put off' : 'left out';
    await recordChanges(
      tx,
      actor.userId,
      now,
      done.map((n) => ({
        ...{ entity: 'need', entityId: n.needId, action },
        after: { ...(until.value === null ? {} : { until: until.value }), ...(reason ? { reason } : {}) },
      })),
    );
    await recordUndo(tx, actor, request.key, 'set-aside', now, { kind: 'set_aside', needs: done });
    markDirty(tx, locked);
    return ok({ until: until.value });
  });
}

/** Until when, as typed ("fri", "+7"); what is put off comes back after today, what is left out may stay for good. */
function untilOf({ kind, until }: SetAside, today: BusinessDate): Result<BusinessDate | null, Failure> {
  if (kind === 'leave_out' && until.trim() === '') return ok(null);
  const date = parseDate(until, today);
  if (!date.ok) return err(invalidField('until', date.error));
  return date.value > today ? date : err(invalidField('until', { kind: 'not_to_come', text: until }));
}
