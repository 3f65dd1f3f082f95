import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type JobState, readJobs as readJobRows } from '@/data/repositories/jobs';
import { countDirty } from '@/data/repositories/marks';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { jobName } from './jobNames';

export type JobView = {
  readonly id: number;
  readonly name: string;
  /** What `done` and `total` count. */
  readonly steps: string;
  readonly state: JobState;
  readonly done: number;
  readonly total: number | null;
  readonly attempts: number;
  readonly fault: string;
  readonly cancelWanted: boolean;
  readonly canCancel: boolean;
  readonly who: string | null;
  readonly createdAt: string;
  readonly endedAt: string | null;
};

/** Work in the background, what is under way first, and how many pairs wait for recomputation. Errors: forbidden. */
export async function readJobs(
  deps: Deps,
  actor: Actor,
): Promise<Result<{ jobs: JobView[]; marked: number }, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const jobs = await readJobRows(tx, 30);
    return ok({
      marked: await countDirty(tx),
      jobs: jobs.map((j) => ({
        id: j.id,
        name: jobName(j.kind)[0],
        steps: jobName(j.kind)[1],
        state: j.state,
        done: j.doneSteps,
        total: j.totalSteps,
        attempts: j.attempts,
        fault: j.fault,
        cancelWanted: j.cancelWanted === 1,
        canCancel: j.kind === 'check-needs' && (j.state === 'waiting' || j.state === 'running') && j.cancelWanted === 0,
        who: j.who,
        createdAt: j.createdAt,
        endedAt: j.endedAt,
      })),
    });
  });
}
