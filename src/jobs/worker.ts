import { randomBytes } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { ok } from '@/core/result';
import { DatabaseBusy, DatabaseUnavailable } from '@/data/errors';
import { beatJob, claimJob, endJob, type JobRow, putOffJob } from '@/data/repositories/jobs';
import { write } from '@/data/transaction';
import { type Deps, stamp } from '@/services/deps';
import { type Handler, handlers } from './handlers';
import { sendWaitingMail } from './mail';
import { tick } from './tick';

/** While a lease lasts nobody else takes the job; a step must be much shorter. */
export const LEASE_SECONDS = 30;
const MAX_ATTEMPTS = 5;

class Cancelled extends Error {}
class LeaseLost extends Error {}

export type Worker = { readonly id: string; readonly deps: Deps; readonly kinds?: Readonly<Record<string, Handler>> };

const at = (deps: Deps, seconds = 0) => stamp(new Date(deps.clock().getTime() + seconds * 1000));

/** Takes one job and carries it out step by step; each step renews the lease and notes where to resume, so that after a
 *  crash another worker goes on there. Returns the job it had, null when none was waiting. */
export async function workOnce({ id: worker, deps, kinds = handlers }: Worker): Promise<JobRow | null> {
  const claimed = await write<JobRow | null, never>(deps.pool, async (tx) =>
    ok(await claimJob(tx, { worker, now: at(deps), until: at(deps, LEASE_SECONDS), kinds: Object.keys(kinds) })),
  );
  const job = claimed.ok ? claimed.value : null;
  if (!job) return null;
  const id = job.id;
  const end = (state: 'done' | 'failed' | 'cancelled', fault = '') =>
    write(deps.pool, async (tx) => ok(await endJob(tx, { id, worker, state, fault, at: at(deps) })));
  try {
    if (job.cancelWanted === 1) throw new Cancelled();
    await (kinds[job.kind] as Handler)(deps, {
      input: JSON.parse(job.input),
      resumeAt: job.resumeAt === null ? null : JSON.parse(job.resumeAt),
      step: async ({ done, total, resumeAt }) => {
        const beat = { id, worker, until: at(deps, LEASE_SECONDS), done, total, resumeAt: JSON.stringify(resumeAt) };
        const answer = await write(deps.pool, async (tx) => ok(await beatJob(tx, beat)));
        if (answer.ok && answer.value === 'lost') throw new LeaseLost();
        if (answer.ok && answer.value === 'cancel') throw new Cancelled();
      },
    });
    await end('done');
  } catch (e) {
    if (e instanceof LeaseLost) return job;
    if (e instanceof Cancelled) await end('cancelled');
    else if (e instanceof DatabaseUnavailable) throw e;
    else await afterFault(deps, job, worker, e, end);
  }
  return job;
}

async function afterFault(
  deps: Deps,
  job: JobRow,
  worker: string,
  e: unknown,
  end: (state: 'failed', fault: string) => Promise<unknown>,
): Promise<void> {
  const fault = (e instanceof Error ? e.message : String(e)).slice(0, 400);
  if (!(e instanceof DatabaseBusy)) console.error(`job ${job.id} (${job.kind})`, e);
  if (job.attempts >= MAX_ATTEMPTS) await end('failed', fault);
  else {
    const notBefore = at(deps, 2 ** job.attempts);
    await write(deps.pool, async (tx) => ok(await putOffJob(tx, { id: job.id, worker, fault, notBefore })));
  }
}

/** Works until told to stop: the clock's doings, jobs, mail; rests when there is nothing. A database that is away is
 *  waited for. */
export async function runWorker(deps: Deps, stopped: AbortSignal): Promise<void> {
  const worker = { id: `w${process.pid}-${randomBytes(4).toString('hex')}`, deps };
  while (!stopped.aborted) {
    try {
      await tick(deps);
      const job = await workOnce(worker);
      const mails = await sendWaitingMail(deps);
      if (!job && mails === 0) await pause(500, undefined, { signal: stopped }).catch(() => undefined);
    } catch (e) {
      if (!(e instanceof DatabaseUnavailable)) console.error('worker', e);
      await pause(1000, undefined, { signal: stopped }).catch(() => undefined);
    }
  }
}
