import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { deleteCountPlan, lockCountPlan } from '@/data/repositories/counts';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** A rhythm ends; what was counted by it stays. Errors: forbidden, not_found. */
export async function removeCountPlan(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly planId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'remove-count-plan', request, async (tx, now) => {
    const plan = await lockCountPlan(tx, request.input.planId);
    if (!plan) return err({ kind: 'not_found', what: 'count' });
    const here = may(actor, 'stock.count', { locationIds: [plan.locationId] });
    if (!here.ok) return here;
    await deleteCountPlan(tx, plan.id);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'count_plan', entityId: plan.id, action: 'removed', before: { name: plan.name } },
    ]);
    return ok(null);
  });
}
