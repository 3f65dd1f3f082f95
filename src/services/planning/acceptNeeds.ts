import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { lockNeeds } from '@/data/repositories/planning';
import { step } from '@/data/transaction';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { type AcceptedPart, decisionGround, postAccepted } from './postDecisions';

export type AcceptNeeds = {
  readonly needs: readonly { readonly needId: number; readonly fingerprint: string; readonly packs: string }[];
};
export type AcceptedTogether = {
  readonly accepted: readonly { readonly needId: number; readonly part: AcceptedPart }[];
  /** No longer as they were seen, or without a supplier, or not free at the place that sends: they stay. */
  readonly stayed: readonly number[];
};

/** Takes several needs as decided, each with its quantity, in one step that is undone as one.
 *  Errors: forbidden (for each place), invalid_field needs.<index>. */
export async function acceptNeeds(
  deps: Deps,
  actor: Actor,
  request: Request<AcceptNeeds>,
): Promise<Result<AcceptedTogether, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  const asked = new Map<number, { readonly fingerprint: string; readonly packs: Quantity }>();
  for (const [i, { needId, fingerprint, packs }] of request.input.needs.entries()) {
    const checked = checkLineQuantity(packs);
    if (!checked.ok) return err(invalidField(`needs.${i}`, checked.error));
    asked.set(needId, { fingerprint, packs: checked.value });
  }
  return command(deps, actor, 'accept-needs', request, async (tx, now) => {
    const needs = await lockNeeds(tx, [...asked.keys()]);
    const place = may(actor, 'needs.decide', { locationIds: needs.map((n) => n.locationId) });
    if (!place.ok) return place;
    const same = needs.filter((n) => n.state === 'open' && n.fingerprint === asked.get(n.id)?.fingerprint);
    const ground = await decisionGround(deps, tx, actor, now, same);
    const accepted: AcceptedTogether['accepted'][number][] = [];
    const decided: Decided[] = [];
    for (const need of same) {
      const { packs } = asked.get(need.id) as { packs: Quantity };
      const done = await step(tx, () => postAccepted(ground, need, [{ packs }]));
      if (!done.ok) {
        if (done.error.kind !== 'not_free' && done.error.kind !== 'no_supplier') return done;
        continue;
      }
      const [part] = done.value.parts;
      if (part) accepted.push({ needId: need.id, part });
      decided.push(...done.value.decided);
    }
    if (decided.length > 0)
      await recordUndo(tx, actor, request.key, 'accept-needs', now, { kind: 'decided_many', decided });
    const taken = new Set(accepted.map((a) => a.needId));
    return ok({ accepted, stayed: [...asked.keys()].filter((id) => !taken.has(id)) });
  });
}
