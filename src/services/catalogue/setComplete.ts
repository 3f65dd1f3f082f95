import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem } from '@/data/repositories/catalogue';
import { setToComplete } from '@/data/repositories/itemFile';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Takes an item off the list of those to be completed, or puts it there again: what is missing may be meant so.
 *  Errors: forbidden, not_found. */
export async function setComplete(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly itemId: number; readonly complete: boolean }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'catalogue.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'set-complete', request, async (tx, now) => {
    const { itemId, complete } = request.input;
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    await setToComplete(tx, itemId, !complete);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'item', entityId: itemId, action: complete ? 'complete' : 'to be completed' },
    ]);
    return ok(null);
  });
}
