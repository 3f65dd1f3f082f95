import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { leaveToWorker } from './leaveToWorker';

/** What a person may ask the worker for, with the right it needs. */
const rightFor = {
  'check-needs': 'needs.decide',
  'fetch-rates': 'catalogue.edit',
  'take-web-orders': 'promises.edit',
} as const;

/** Has the worker check all needs afresh, or fetch the file of exchange rates. Errors: forbidden. */
export async function startJob(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly kind: keyof typeof rightFor }>,
): Promise<Result<{ jobId: number }, Failure>> {
  const allowed = may(actor, rightFor[request.input.kind]);
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'start-job', request, async (tx, now) => {
    const jobId = await leaveToWorker(tx, request.input.kind, now, actor.userId);
    await recordChanges(tx, actor.userId, now, [{ entity: 'job', entityId: jobId, action: 'started' }]);
    return ok({ jobId });
  });
}
