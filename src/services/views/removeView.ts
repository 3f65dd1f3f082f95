import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { deleteView } from '@/data/repositories/views';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Takes away a view that the person has kept. Errors: forbidden, not_found (also for somebody else's). */
export async function removeView(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly viewId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'remove-view', request, async (tx) => {
    const { affected } = await deleteView(tx, request.input.viewId, actor.userId);
    return affected === 0 ? err({ kind: 'not_found', what: 'view' }) : ok(null);
  });
}
