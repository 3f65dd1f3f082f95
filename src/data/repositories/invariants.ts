import type { Tx } from '../sql';

/** What must always hold in the books, each as a SELECT of its violations. */
const invariants: readonly { readonly name: string; readonly sql: string }[] = [
  {
    name: 'levels equal the sum of their movements',
    sql: `SELECT COUNT(*) AS n FROM level l LEFT JOIN (
            SELECT item_id, location_id, SUM(on_hand_change) h, SUM(inspection_change) i, SUM(blocked_change) b,
                   SUM(value_change_minor) v, MAX(posting) p, COUNT(*) c FROM movement GROUP BY item_id, location_id
          ) m ON m.item_id = l.item_id AND m.location_id = l.location_id
          WHERE l.on_hand <> COALESCE(m.h, 0) OR l.inspection <> COALESCE(m.i, 0) OR l.blocked <> COALESCE(m.b, 0)
             OR l.value_minor <> COALESCE(m.v, 0) OR l.last_posting <> COALESCE(m.p, 0) OR l.last_posting <> COALESCE(m.c, 0)`,
  },
  {
    name: 'nothing on hand has no value',
    sql: 'SELECT COUNT(*) AS n FROM level WHERE on_hand = 0 AND value_minor <> 0',
  },
  {
    name: 'nothing is allocated that no allocation holds',
    sql: 'SELECT COUNT(*) AS n FROM level WHERE allocated <> 0',
  },
  {
    name: 'inspection and blocked are never negative',
    sql: 'SELECT COUNT(*) AS n FROM level WHERE inspection < 0 OR blocked < 0',
  },
  {
    name: 'delivery parts add up to their line',
    sql: `SELECT COUNT(*) AS n FROM (SELECT l.id FROM order_line l LEFT JOIN delivery_part d ON d.order_line_id = l.id
          GROUP BY l.id, l.base_quantity, l.pack_quantity
          HAVING l.base_quantity <> COALESCE(SUM(d.base_quantity), 0) OR l.pack_quantity <> COALESCE(SUM(d.pack_quantity), 0)) x`,
  },
  {
    name: 'received quantities and values equal their receipts',
    sql: `SELECT COUNT(*) AS n FROM delivery_part d LEFT JOIN (
            SELECT delivery_part_id, SUM(base_quantity) q, SUM(pack_quantity) p, SUM(value_minor) v
              FROM goods_receipt_line GROUP BY delivery_part_id) r ON r.delivery_part_id = d.id
          WHERE d.received_quantity <> COALESCE(r.q, 0) OR d.received_packs <> COALESCE(r.p, 0)
             OR d.received_value_minor <> COALESCE(r.v, 0)`,
  },
  {
    name: 'every receipt line has its movement',
    sql: `SELECT COUNT(*) AS n FROM goods_receipt_line x LEFT JOIN movement m
            ON m.document_kind = 'receipt' AND m.document_id = x.receipt_id AND m.document_line = x.line_no
          WHERE x.item_id IS NOT NULL AND (m.id IS NULL OR m.on_hand_change <> x.base_quantity)`,
  },
  {
    name: 'orders beyond draft have a number, other drafts have none unless approved before',
    sql: `SELECT COUNT(*) AS n FROM purchase_order WHERE (state IN ('approved','sent','cancelled') AND number IS NULL)
            OR (state = 'put_back' AND number IS NOT NULL) OR (state = 'draft' AND number IS NOT NULL AND approved_at IS NULL)`,
  },
  {
    name: 'no number is missing or beyond its counter',
    sql: `SELECT COUNT(*) AS n FROM number_counter c WHERE c.last_number <>
            CASE c.pattern WHEN 'PO' THEN (SELECT COUNT(*) FROM purchase_order o WHERE o.number LIKE CONCAT(c.period, '-%'))
                           ELSE (SELECT COUNT(*) FROM goods_receipt r WHERE r.number LIKE CONCAT('R', c.period, '-%')) END`,
  },
  {
    name: 'ordered tray lines stand on exactly one live order, others on none',
    sql: `SELECT COUNT(*) AS n FROM (SELECT t.id, t.state, COUNT(o.id) c FROM tray_line t
            LEFT JOIN delivery_part d ON d.tray_line_id = t.id LEFT JOIN order_line l ON l.id = d.order_line_id
            LEFT JOIN purchase_order o ON o.id = l.order_id AND o.state NOT IN ('put_back', 'cancelled')
          GROUP BY t.id, t.state) x WHERE (x.state = 'ordered' AND x.c <> 1) OR (x.state <> 'ordered' AND x.c <> 0)`,
  },
  {
    name: 'nothing was received on an order that is not approved',
    sql: `SELECT COUNT(*) AS n FROM goods_receipt r JOIN purchase_order o ON o.id = r.order_id WHERE o.state NOT IN ('approved','sent')`,
  },
  {
    name: 'no line is approved without a price unless free of charge',
    sql: `SELECT COUNT(*) AS n FROM order_line l JOIN purchase_order o ON o.id = l.order_id
          WHERE o.state IN ('approved','sent') AND l.free_of_charge = 0 AND (l.price_amount IS NULL OR l.price_amount = 0)`,
  },
  {
    name: 'needs agree with the state of their pair (unless marked for recomputation)',
    sql: `SELECT COUNT(*) AS n FROM item_location_state s
            LEFT JOIN need n ON n.item_id = s.item_id AND n.location_id = s.location_id AND n.peg = 0
            LEFT JOIN dirty_pair d ON d.item_id = s.item_id AND d.location_id = s.location_id
          WHERE d.item_id IS NULL AND (COALESCE(n.state, 'none') <> s.need_state OR (n.id IS NOT NULL AND n.suggested <> s.suggested))`,
  },
];

/** Each invariant with its count of violations; all zero in sound books. */
export async function checkInvariants(tx: Tx): Promise<{ name: string; violations: number }[]> {
  const found = [];
  for (const { name, sql } of invariants) {
    const row = await tx.row<{ n: number }>(sql);
    found.push({ name, violations: Number(row?.n ?? 0) });
  }
  return found;
}
