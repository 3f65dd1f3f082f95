import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findJob, wantCancel } from '@/data/repositories/jobs';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Asks for the end of some work: it stops at its next step and what it has done so far stays. What has to be done anyway
 *  (marks, a new day) is not for cancelling. Errors: forbidden, not_found when it has ended or can't be cancelled. */
export async function cancelJob(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly jobId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'needs.decide');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'cancel-job', request, async (tx, now) => {
    const { jobId } = request.input;
    const job = await findJob(tx, jobId);
    if (job?.kind !== 'check-needs') return err({ kind: 'not_found', what: 'job' });
    if ((await wantCancel(tx, jobId, now)).affected === 0) return err({ kind: 'not_found', what: 'job' });
    await recordChanges(tx, actor.userId, now, [{ entity: 'job', entityId: jobId, action: 'cancelled' }]);
    return ok(null);
  });
}
