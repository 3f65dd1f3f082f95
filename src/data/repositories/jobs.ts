import type { SqlValue, Tx } from '../sql';

export type JobState = 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
export type JobRow = {
  readonly id: number;
  readonly kind: string;
  readonly input: string;
  readonly state: JobState;
  readonly doneSteps: number;
  readonly totalSteps: number | null;
  readonly resumeAt: string | null;
  readonly cancelWanted: number;
  readonly attempts: number;
  readonly fault: string;
  readonly leaseBy: string | null;
  readonly leaseUntil: string | null;
  readonly createdBy: number | null;
  readonly createdAt: string;
  readonly endedAt: string | null;
};

const columns = `j.id, j.kind, j.input, j.state, j.done_steps AS doneSteps, j.total_steps AS totalSteps, j.resume_at AS resumeAt,
  j.cancel_wanted AS cancelWanted, j.attempts, j.fault, j.lease_by AS leaseBy, j.lease_until AS leaseUntil,
  j.created_by AS createdBy, j.created_at AS createdAt, j.ended_at AS endedAt`;

export const insertJob = async (
  tx: Tx,
  j: { kind: string; input: string; notBefore: string; userId: SqlValue; at: string },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO job (kind, input, not_before, created_by, created_at) VALUES (:kind, :input, :notBefore, :userId, :at)`,
      j,
    )
  ).id;

/** Work of a kind that is waiting and not begun: it will see what is committed before it begins. */
export const findWaiting = (tx: Tx, kind: string) =>
  tx.row<{ id: number }>("SELECT id FROM job WHERE kind = :kind AND state = 'waiting' AND attempts = 0 LIMIT 1", {
    kind,
  });

export const findJob = (tx: Tx, id: number) => tx.row<JobRow>(`SELECT ${columns} FROM job j WHERE j.id = :id`, { id });

/** Takes the oldest work that waits, or whose worker's lease has ended (it died), and leases it. */
export async function claimJob(
  tx: Tx,
  claim: { worker: string; now: string; until: string; kinds: readonly string[] },
): Promise<JobRow | null> {
  const kinds = Object.fromEntries(claim.kinds.map((k, i) => [`kind${i}`, k]));
  const found = await tx.row<{ id: number }>(
    `SELECT id FROM job
      WHERE kind IN (${claim.kinds.map((_, i) => `:kind${i}`).join(',')})
        AND ((state = 'waiting' AND not_before <= :now) OR (state = 'running' AND lease_until < :now))
      ORDER BY id LIMIT 1 FOR UPDATE SKIP LOCKED`,
    { now: claim.now, ...kinds },
  );
  if (!found) return null;
  await tx.run(
    `UPDATE job SET state = 'running', lease_by = :worker, lease_until = :until, attempts = attempts + 1 WHERE id = :id`,
    { worker: claim.worker, until: claim.until, id: found.id },
  );
  return findJob(tx, found.id);
}

/** How far a job is; renews its lease. Says whether it still is this worker's, and whether it is to be cancelled. */
export async function beatJob(
  tx: Tx,
  beat: { id: number; worker: string; until: string; done: number; total: SqlValue; resumeAt: SqlValue },
): Promise<'goes on' | 'lost' | 'cancel'> {
  const { affected } = await tx.run(
    `UPDATE job SET lease_until = :until, done_steps = :done, total_steps = :total, resume_at = :resumeAt
      WHERE id = :id AND state = 'running' AND lease_by = :worker`,
    beat,
  );
  const row = await tx.row<{ cancelWanted: number; leaseBy: string | null; state: JobState }>(
    'SELECT cancel_wanted AS cancelWanted, lease_by AS leaseBy, state FROM job WHERE id = :id',
    { id: beat.id },
  );
  // MariaDB counts a row that already had these values as not affected.
  if (affected === 0 && (row?.leaseBy !== beat.worker || row?.state !== 'running')) return 'lost';
  return row?.cancelWanted === 1 ? 'cancel' : 'goes on';
}

export const endJob = (
  tx: Tx,
  e: { id: number; worker: string; state: 'done' | 'failed' | 'cancelled'; fault: string; at: string },
) =>
  tx.run(
    `UPDATE job SET state = :state, fault = :fault, ended_at = :at, lease_by = NULL, lease_until = NULL
      WHERE id = :id AND lease_by = :worker`,
    e,
  );

/** After a fault: it waits and is tried again. */
export const putOffJob = (tx: Tx, e: { id: number; worker: string; fault: string; notBefore: string }) =>
  tx.run(
    `UPDATE job SET state = 'waiting', fault = :fault, not_before = :notBefore, lease_by = NULL, lease_until = NULL
      WHERE id = :id AND lease_by = :worker`,
    e,
  );

/** A running job stops at its next step, a waiting one at once. */
export const wantCancel = (tx: Tx, id: number, at: string) =>
  tx.run(
    `UPDATE job SET cancel_wanted = 1, ended_at = IF(state = 'waiting', :at, ended_at),
            state = IF(state = 'waiting', 'cancelled', state)
      WHERE id = :id AND state IN ('waiting', 'running')`,
    { id, at },
  );

/** Work that is under way or waiting, then what ended last; newest first. */
export const readJobs = (tx: Tx, limit: number) =>
  tx.rows<JobRow & { who: string | null }>(
    `SELECT ${columns}, u.name AS who FROM job j LEFT JOIN app_user u ON u.id = j.created_by
      ORDER BY j.state IN ('running', 'waiting') DESC, j.id DESC LIMIT ${Math.trunc(limit)}`,
  );

export const deleteOldJobs = (tx: Tx, before: string) =>
  tx.run("DELETE FROM job WHERE state NOT IN ('waiting', 'running') AND created_at < :before", { before });
