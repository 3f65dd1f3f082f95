import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { endCount } from '@/data/repositories/counts';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { openCount } from './openCount';

/** A count that is not gone on with; its figures stay on it, nothing is posted. Errors: forbidden, not_found, count_ended. */
export async function dropCount(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly countId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'drop-count', request, async (tx, now) => {
    const open = await openCount(tx, actor, request.input.countId);
    if (!open.ok) return open;
    const { id, number: count } = open.value;
    await endCount(tx, { id, state: 'dropped', userId: actor.userId, at: now, documentId: null });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'stock_count', entityId: id, action: 'dropped', after: { count } },
    ]);
    return ok(null);
  });
}
