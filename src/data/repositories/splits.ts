import type { Tx } from '../sql';

export type SplitRow = {
  readonly id: number;
  readonly userId: number;
  readonly jobId: number | null;
  /** JSON: ids of needs. */
  readonly needIds: string;
  readonly seconds: number;
  /** JSON of what was found; null while nothing is. */
  readonly result: string | null;
  readonly takenAt: string | null;
};

const columns = 'id, user_id AS userId, job_id AS jobId, need_ids AS needIds, seconds, result, taken_at AS takenAt';

export const insertSplit = async (
  tx: Tx,
  s: { readonly userId: number; readonly needIds: string; readonly seconds: number; readonly at: string },
): Promise<number> =>
  (
    await tx.run(
      'INSERT INTO split_run (user_id, need_ids, seconds, created_at) VALUES (:userId, :needIds, :seconds, :at)',
      s,
    )
  ).id;

export const setSplitJob = (tx: Tx, id: number, jobId: number) =>
  tx.run('UPDATE split_run SET job_id = :jobId WHERE id = :id', { id, jobId });

export const findSplit = (tx: Tx, id: number) =>
  tx.row<SplitRow>(`SELECT ${columns} FROM split_run WHERE id = :id`, { id });

export const lockSplit = (tx: Tx, id: number) =>
  tx.row<SplitRow>(`SELECT ${columns} FROM split_run WHERE id = :id FOR UPDATE`, { id });

export const putSplitResult = (tx: Tx, id: number, result: string) =>
  tx.run('UPDATE split_run SET result = :result WHERE id = :id', { id, result });

export const markSplitTaken = (tx: Tx, id: number, at: string) =>
  tx.run('UPDATE split_run SET taken_at = :at WHERE id = :id', { id, at });

export const deleteOldSplits = (tx: Tx, before: string) =>
  tx.run('DELETE FROM split_run WHERE created_at < :before', { before });
