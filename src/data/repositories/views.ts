import type { Tx } from '../sql';

export type SavedViewRow = {
  readonly id: number;
  readonly name: string;
  readonly query: string;
  readonly shared: number;
  readonly userId: number;
  readonly who: string;
};

/** Views of a page that a person has kept, and those that others share. */
export const readViews = (tx: Tx, page: string, userId: number) =>
  tx.rows<SavedViewRow>(
    `SELECT v.id, v.name, v.query, v.shared, v.user_id AS userId, u.name AS who
       FROM saved_view v JOIN app_user u ON u.id = v.user_id
      WHERE v.page = :page AND (v.user_id = :userId OR v.shared = 1) ORDER BY v.user_id <> :userId, v.name, v.id LIMIT 200`,
    { page, userId },
  );

export const upsertView = (tx: Tx, v: { userId: number; page: string; name: string; query: string; shared: number }) =>
  tx.run(
    `INSERT INTO saved_view (user_id, page, name, query, shared) VALUES (:userId, :page, :name, :query, :shared)
     ON DUPLICATE KEY UPDATE query = VALUES(query), shared = VALUES(shared)`,
    v,
  );

export const deleteView = (tx: Tx, id: number, userId: number) =>
  tx.run('DELETE FROM saved_view WHERE id = :id AND user_id = :userId', { id, userId });
