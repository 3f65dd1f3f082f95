import type { Tx } from '../sql';

export type TrayChoiceRow = {
  readonly supplierId: number;
  readonly held: number;
  readonly becomes: 'by_rule' | 'new' | 'joins';
  readonly orderId: number | null;
};

/** What is said about trays; those of which nothing is said are not there. */
export const readTrayChoices = (tx: Tx) =>
  tx.rows<TrayChoiceRow>(
    'SELECT supplier_id AS supplierId, held, becomes, order_id AS orderId FROM tray ORDER BY supplier_id',
  );

export const putTrayChoice = (tx: Tx, c: TrayChoiceRow & { readonly userId: number; readonly at: string }) =>
  tx.run(
    `INSERT INTO tray (supplier_id, held, becomes, order_id, user_id, at)
     VALUES (:supplierId, :held, :becomes, :orderId, :userId, :at)
     ON DUPLICATE KEY UPDATE held = VALUES(held), becomes = VALUES(becomes), order_id = VALUES(order_id),
       user_id = VALUES(user_id), at = VALUES(at)`,
    c,
  );

/** What is said about a tray holds for what lies in it, not for the next. */
export const clearTrayChoice = (tx: Tx, supplierId: number) =>
  tx.run('DELETE FROM tray WHERE supplier_id = :supplierId', { supplierId });

export type DraftRow = {
  readonly id: number;
  readonly supplierId: number;
  /** When it was begun, UTC. */
  readonly begunAt: string;
  readonly orderDate: string;
  readonly locationId: number | null;
  readonly wanted: string | null;
  /** The number of an order that its supplier knows; null for a draft. */
  readonly told: string | null;
};

/** Drafts that can still be added to, and orders that can be changed, one row for each place and day they deliver to; a draft without parts has one with neither. */
export const readOpenDrafts = (tx: Tx) =>
  tx.rows<DraftRow>(
    `SELECT DISTINCT o.id, o.supplier_id AS supplierId, o.created_at AS begunAt, o.order_date AS orderDate,
            d.location_id AS locationId, d.wanted_date AS wanted, IF(o.state = 'draft', NULL, o.number) AS told
       FROM purchase_order o LEFT JOIN order_line l ON l.order_id = o.id LEFT JOIN delivery_part d ON d.order_line_id = l.id
      WHERE o.state IN ('draft', 'sent', 'confirmed', 'amending')
        AND (o.state = 'draft' OR EXISTS (SELECT 1 FROM order_line l2 JOIN delivery_part d2 ON d2.order_line_id = l2.id
              WHERE l2.order_id = o.id AND d2.location_id IS NOT NULL
                AND d2.base_quantity > d2.received_quantity + d2.cancelled_quantity)) ORDER BY o.id`,
  );
