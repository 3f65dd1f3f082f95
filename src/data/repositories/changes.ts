import type { Tx } from '../sql';

export type ChangeLine = {
  readonly id: number;
  readonly at: string;
  readonly who: string;
  readonly entity: string;
  readonly entityId: number;
  readonly action: string;
  readonly before: string | null;
  readonly after: string | null;
  /** What it is called: an item's or supplier's name, that of a need's item, an order's number. */
  readonly name: string | null;
};

const columns = `c.id, c.at, COALESCE(u.name, '') AS who, c.entity, c.entity_id AS entityId, c.action, c.before_json AS \`before\`,
  c.after_json AS \`after\`,
  CASE c.entity WHEN 'item' THEN (SELECT name FROM item WHERE id = c.entity_id)
                WHEN 'policy' THEN (SELECT name FROM item WHERE id = c.entity_id)
                WHEN 'need' THEN (SELECT i.name FROM need n JOIN item i ON i.id = n.item_id WHERE n.id = c.entity_id)
                WHEN 'tray_line' THEN (SELECT i.name FROM tray_line t JOIN item i ON i.id = t.item_id WHERE t.id = c.entity_id)
                WHEN 'supplier' THEN (SELECT name FROM supplier WHERE id = c.entity_id)
                WHEN 'location' THEN (SELECT name FROM location WHERE id = c.entity_id)
                WHEN 'user' THEN (SELECT name FROM app_user WHERE id = c.entity_id)
                WHEN 'order' THEN (SELECT COALESCE(number, 'draft') FROM purchase_order WHERE id = c.entity_id)
                WHEN 'receipt' THEN (SELECT number FROM goods_receipt WHERE id = c.entity_id)
                WHEN 'transfer' THEN (SELECT number FROM transfer WHERE id = c.entity_id)
                WHEN 'stock_count' THEN (SELECT number FROM stock_count WHERE id = c.entity_id)
                WHEN 'count_plan' THEN (SELECT name FROM count_plan WHERE id = c.entity_id)
                WHEN 'stock_document' THEN (SELECT number FROM stock_document WHERE id = c.entity_id)
                WHEN 'import' THEN (SELECT file_name FROM import_run WHERE id = c.entity_id)
                ELSE NULL END AS name`;

export type WhichChanges = {
  /** Before this one; 0 = the newest. */
  readonly before: number;
  readonly entities: readonly string[];
  readonly userId: number | null;
  readonly from: string;
  readonly to: string;
};

/** Changes, newest first, a page of them. Ids are drawn in the transaction of the change, so a page is of what is committed. */
export const readChangeLines = (tx: Tx, w: WhichChanges, limit: number) =>
  tx.rows<ChangeLine>(
    `SELECT ${columns} FROM change_record c LEFT JOIN app_user u ON u.id = c.user_id
      WHERE (:before = 0 OR c.id < :before) AND (:entities = '' OR FIND_IN_SET(c.entity, :entities))
        AND (:userId = 0 OR c.user_id = :userId) AND (:from = '' OR c.at >= :from) AND (:to = '' OR c.at < :to)
      ORDER BY c.id DESC LIMIT ${Math.trunc(limit)}`,
    { before: w.before, entities: w.entities.join(','), userId: w.userId ?? 0, from: w.from, to: w.to },
  );

/** What was changed about one thing, newest first. */
export const readChangesOf = (tx: Tx, entities: readonly string[], id: number, limit: number) =>
  tx.rows<ChangeLine>(
    `SELECT ${columns} FROM change_record c LEFT JOIN app_user u ON u.id = c.user_id
      WHERE FIND_IN_SET(c.entity, :entities) AND c.entity_id = :id ORDER BY c.id DESC LIMIT ${Math.trunc(limit)}`,
    { entities: entities.join(','), id },
  );

export const readChangers = (tx: Tx) =>
  tx.rows<{ id: number; name: string }>('SELECT id, name FROM app_user ORDER BY name, id LIMIT 500');
