import { type Actor, may } from '@/core/people';
import type { Refill, Trigger } from '@/core/policy';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockRules, updateRules } from '@/data/repositories/company';
import { markSet } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

type Rules = { readonly trigger: Trigger; readonly refill: Refill };

/** What "below minimum" means and how far to refill, for all policies that do not say so themselves. Everything is reckoned
 *  again by the worker. Errors: forbidden, changed_meanwhile (`was` is what the person saw). */
export async function setPlanningRules(
  deps: Deps,
  actor: Actor,
  request: Request<Rules & { readonly was: Rules }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'policies.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'set-planning-rules', request, async (tx, now) => {
    const { was, ...rules } = request.input;
    const had = await lockRules(tx);
    if (had.trigger !== was.trigger || had.refill !== was.refill)
      return err({ kind: 'changed_meanwhile', what: 'policy', who: null, now: `${had.trigger} / ${had.refill}` });
    await updateRules(tx, rules);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'company', entityId: 1, action: 'planning rules', before: had, after: rules },
    ]);
    markSet(tx, 'everything');
    return ok(null);
  });
}
