import { list, type Tx } from '../sql';
import type { Change } from './bookkeeping';

/** Notes what a command did. Whoever touches its rows afterwards has waited for its locks, so his change record is later
 *  than any there is now. */
export const insertUndoStep = (
  tx: Tx,
  u: { userId: number; key: string; command: string; effect: string; at: string },
) =>
  tx.later([
    {
      sql: `INSERT INTO undo_step (user_id, idem_key, command, effect, seen_change, done_at)
            VALUES (?, ?, ?, ?, (SELECT COALESCE(MAX(id), 0) FROM change_record), ?)`,
      values: [u.userId, u.key, u.command, u.effect, u.at],
    },
  ]);

export type UndoRow = {
  readonly command: string;
  readonly effect: string;
  readonly state: 'open' | 'undone';
  readonly seenChange: number;
};

export const lockUndoStep = (tx: Tx, userId: number, key: string) =>
  tx.row<UndoRow>(
    `SELECT command, effect, state, seen_change AS seenChange FROM undo_step
      WHERE user_id = :userId AND idem_key = :key FOR UPDATE`,
    { userId, key },
  );

export const markUndone = (tx: Tx, userId: number, key: string) =>
  tx.run("UPDATE undo_step SET state = 'undone' WHERE user_id = :userId AND idem_key = :key", { userId, key });

export const deleteOldUndoSteps = (tx: Tx, before: string) =>
  tx.run('DELETE FROM undo_step WHERE done_at < :before', { before });

export type Touched = { readonly who: string; readonly action: string; readonly at: string };
export type Affected = { readonly entity: Change['entity']; readonly entityId: number };

/** What somebody else has done to one of these since a change record; the latest. The rows are locked by the caller, so
 *  whoever changed one of them afterwards has a later record. */
export async function findTouchedSince(
  tx: Tx,
  affected: readonly Affected[],
  since: number,
  userId: number,
): Promise<Touched | null> {
  let latest: (Touched & { id: number }) | null = null;
  for (const entity of new Set(affected.map((a) => a.entity))) {
    const ids = list(
      'id',
      affected.filter((a) => a.entity === entity).map((a) => a.entityId),
    );
    if (!ids) continue;
    const found = await tx.row<Touched & { id: number }>(
      `SELECT c.id, COALESCE(u.name, '') AS who, c.action, c.at FROM change_record c LEFT JOIN app_user u ON u.id = c.user_id
        WHERE c.entity = :entity AND c.entity_id IN (${ids.sql}) AND c.id > :since AND c.user_id <> :userId
        ORDER BY c.id DESC LIMIT 1`,
      { entity, since, userId, ...ids.values },
    );
    if (found && (latest === null || found.id > latest.id)) latest = found;
  }
  return latest && { who: latest.who, action: latest.action, at: latest.at };
}
