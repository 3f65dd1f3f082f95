import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readList } from '@/data/repositories/lists';
import { lockNeeds } from '@/data/repositories/planning';
import { step } from '@/data/transaction';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { GROUP, printOf } from '../lists/keptList';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { needViewsOf } from './needViews';
import { type AcceptedPart, decisionGround, postAccepted } from './postDecisions';

/** So many needs are accepted at once; the rest stays and can be accepted next. */
export const ACCEPTED_AT_ONCE = 500;

export type AcceptedNeeds = {
  readonly accepted: readonly { readonly needId: number; readonly packs: number; readonly part: AcceptedPart }[];
  /** Needs of the list that have a warning, and those that are no longer as the list shows them; both stay. */
  readonly warned: number;
  readonly changed: number;
  /** Needs beyond those that are accepted at once. */
  readonly left: number;
};

/** Accepts everything that an open list of needs shows, as it is suggested, except what has a warning or is no longer as it was
 *  when the list was opened. `needIds`: only these of it. What another place sends, but no longer has, stays as well.
 *  Errors: forbidden, list_gone. */
export async function acceptShown(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly list: string; readonly needIds?: readonly number[] }>,
): Promise<Result<AcceptedNeeds, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const { list, needIds } = request.input;
  return command(deps, actor, 'accept-shown', request, async (tx, now) => {
    const kept = await readList(tx, { name: list, userId: actor.userId, kind: 'needs' }, { prints: true });
    if (!kept) return err({ kind: 'list_gone' });
    const seen = new Map([...kept.entries].map((id, i) => [id, kept.prints[i]]));
    const asked = [...kept.entries].filter((id) => id !== GROUP && (needIds?.includes(id) ?? true));
    const order = new Map(asked.map((id, i) => [id, i]));
    const locked = (await lockNeeds(tx, asked)).sort(
      (a, b) => (order.get(a.id) as number) - (order.get(b.id) as number),
    );
    const same = locked.filter(
      (n) =>
        n.state === 'open' &&
        seen.get(n.id) === printOf(n.fingerprint) &&
        (actor.locations?.includes(n.locationId) ?? true),
    );
    const views = await needViewsOf(
      deps,
      tx,
      same.map((n) => n.id),
    );
    const clear = same.filter((n) => views.get(n.id)?.warnings.length === 0);
    const chosen = clear.slice(0, ACCEPTED_AT_ONCE);
    const ground = await decisionGround(deps, tx, actor, now, chosen);
    const accepted: AcceptedNeeds['accepted'][number][] = [];
    const decided: Decided[] = [];
    let taken = 0;
    for (const need of chosen) {
      const packs = views.get(need.id)?.packs ?? 0;
      const accept = () => postAccepted(ground, need, [{ packs }]);
      // Of what another place sends, the last free pieces may be gone by now.
      const done = need.supplyLocationId === null ? await accept() : await step(tx, accept);
      if (!done.ok) {
        if (done.error.kind !== 'not_free') return done;
        taken += 1;
        continue;
      }
      const [part] = done.value.parts;
      if (part) accepted.push({ needId: need.id, packs, part });
      decided.push(...done.value.decided);
    }
    if (decided.length > 0)
      await recordUndo(tx, actor, request.key, 'accept-shown', now, { kind: 'decided_many', decided });
    return ok({
      accepted,
      warned: same.length - clear.length + taken,
      changed: asked.length - same.length,
      left: clear.length - chosen.length,
    });
  });
}
