import type { Tx } from '../sql';
import { BOOKED, DRAFTED } from './orderStates';

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
    name: 'what is allocated is what allocations hold',
    sql: `SELECT COUNT(*) AS n FROM level l LEFT JOIN (SELECT item_id, location_id, SUM(quantity - taken) q
            FROM allocation WHERE state = 'held' GROUP BY item_id, location_id) a
              ON a.item_id = l.item_id AND a.location_id = l.location_id
          WHERE l.allocated <> COALESCE(a.q, 0)`,
  },
  {
    name: 'no more is promised than is there',
    sql: `SELECT COUNT(*) AS n FROM level WHERE allocated > 0 AND allocated > GREATEST(0, on_hand - blocked - inspection)`,
  },
  {
    name: 'a promise is taken when all of it went, held while some is left',
    sql: `SELECT COUNT(*) AS n FROM allocation WHERE (state = 'taken' AND taken <> quantity) OR (state = 'held' AND taken >= quantity)`,
  },
  {
    name: 'what stands in transit is what transfers have on the way, in quantity and value',
    sql: `SELECT COUNT(*) AS n FROM level l JOIN location p ON p.id = l.location_id AND p.kind = 'transit'
            LEFT JOIN (SELECT item_id, SUM(shipped - received - lost) q,
                              SUM(shipped_value_minor - received_value_minor - lost_value_minor) v
                         FROM transfer_line GROUP BY item_id) t ON t.item_id = l.item_id
          WHERE l.on_hand <> COALESCE(t.q, 0) OR l.value_minor <> COALESCE(t.v, 0)`,
  },
  {
    name: 'a transfer is received when nothing of it is on the way',
    sql: `SELECT COUNT(*) AS n FROM (SELECT t.id, t.state, SUM(l.shipped - l.received - l.lost) AS open
            FROM transfer t LEFT JOIN transfer_line l ON l.transfer_id = t.id GROUP BY t.id, t.state) x
          WHERE x.open IS NULL OR (x.state IN ('shipped', 'received') AND (x.state = 'received') <> (x.open = 0))
             OR (x.state NOT IN ('shipped', 'received') AND x.open <> 0)`,
  },
  {
    name: 'a transfer moves value without making or losing any',
    sql: `SELECT COUNT(*) AS n FROM transfer_line l LEFT JOIN (
            SELECT m.document_id, m.document_line, SUM(m.on_hand_change) q, SUM(m.value_change_minor + m.variance_minor) v
              FROM movement m WHERE m.document_kind = 'transfer' GROUP BY m.document_id, m.document_line
          ) x ON x.document_id = l.transfer_id AND x.document_line = l.line_no
          WHERE (x.q IS NULL AND l.shipped > 0) OR COALESCE(x.q, 0) <> -l.lost OR COALESCE(x.v, 0) <> -l.lost_value_minor`,
  },
  {
    name: 'what an approved transfer sends is promised for it, or was released because it is not there; of what is only asked for, what was bought for it',
    sql: `SELECT COUNT(*) AS n FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
            JOIN allocation a ON a.id = l.allocation_id
          WHERE a.item_id <> l.item_id OR a.location_id <> t.from_location_id
             OR (t.state = 'approved' AND a.state = 'held' AND a.quantity <> l.approved)
             OR (t.state = 'requested' AND a.state = 'held' AND a.quantity - a.taken > l.asked)
             OR (t.state NOT IN ('requested','approved') AND a.state = 'held')`,
  },
  {
    name: 'every line of a sale, count or correction has its movement',
    sql: `SELECT COUNT(*) AS n FROM (SELECT kind, document_id, line FROM (
              SELECT CAST(d.kind AS CHAR) AS kind, l.document_id, l.line_no AS line,
                     IF(l.moves_stock = 0, 0, CASE d.kind WHEN 'sale' THEN -l.quantity WHEN 'correction' THEN l.quantity ELSE l.quantity - l.expected END) AS q
                FROM stock_document d JOIN stock_document_line l ON l.document_id = d.id
              UNION ALL
              SELECT CAST(document_kind AS CHAR), document_id, document_line, -on_hand_change FROM movement
               WHERE document_kind IN ('sale', 'count', 'correction')) x
            GROUP BY kind, document_id, line HAVING SUM(q) <> 0) y`,
  },
  {
    name: 'what is left of lots is the sum of their movements',
    sql: `SELECT COUNT(*) AS n FROM (SELECT lot_id, location_id, SUM(q) AS q FROM (
              SELECT lot_id, location_id, quantity AS q FROM lot_level
              UNION ALL SELECT lot_id, location_id, -quantity FROM movement_lot) x
            GROUP BY lot_id, location_id HAVING SUM(q) <> 0) y`,
  },
  {
    name: 'no more lies in lots than is there, and a serial number lies at one place',
    sql: `SELECT (SELECT COUNT(*) FROM (SELECT k.item_id, l.location_id, SUM(l.quantity) AS q FROM lot_level l
              JOIN lot k ON k.id = l.lot_id GROUP BY k.item_id, l.location_id HAVING q > 0) x
              JOIN level v ON v.item_id = x.item_id AND v.location_id = x.location_id WHERE x.q > GREATEST(v.on_hand, 0))
            + (SELECT COUNT(*) FROM (SELECT l.lot_id FROM lot_level l JOIN lot k ON k.id = l.lot_id
              JOIN item i ON i.id = k.item_id AND i.tracking = 'serial' GROUP BY l.lot_id HAVING SUM(l.quantity) > 1) z) AS n`,
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
            SELECT x.delivery_part_id, SUM(x.base_quantity) q, SUM(x.pack_quantity) p, SUM(x.order_minor) v
              FROM goods_receipt_line x WHERE NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = x.receipt_id)
             GROUP BY x.delivery_part_id) r ON r.delivery_part_id = d.id
          WHERE d.received_quantity <> COALESCE(r.q, 0) OR d.received_packs <> COALESCE(r.p, 0)
             OR d.received_value_minor <> COALESCE(r.v, 0)`,
  },
  {
    name: 'every receipt line has its movement with its value, and a reversed one its reversal',
    sql: `SELECT COUNT(*) AS n FROM goods_receipt_line x LEFT JOIN receipt_reversal v ON v.receipt_id = x.receipt_id
            LEFT JOIN movement m ON m.kind = 'receipt' AND m.document_kind = 'receipt' AND m.document_id = x.receipt_id
              AND m.document_line = x.line_no
            LEFT JOIN movement r ON r.kind = 'receipt_reversal' AND r.document_kind = 'receipt'
              AND r.document_id = x.receipt_id AND r.document_line = x.line_no
          WHERE x.moves_stock = 1 AND (m.id IS NULL OR m.on_hand_change <> x.base_quantity
             OR m.value_change_minor + m.variance_minor <> x.value_minor
             OR (v.receipt_id IS NULL) <> (r.id IS NULL)
             OR COALESCE(r.on_hand_change, -x.base_quantity) <> -x.base_quantity
             OR COALESCE(r.value_change_minor + r.variance_minor, -x.value_minor) <> -x.value_minor)`,
  },
  {
    name: 'orders beyond draft have a number, other drafts have none unless approved before',
    sql: `SELECT COUNT(*) AS n FROM purchase_order WHERE ((state IN ${BOOKED} OR state = 'cancelled') AND number IS NULL)
            OR (state = 'put_back' AND number IS NOT NULL) OR (state IN ${DRAFTED} AND number IS NOT NULL AND approved_at IS NULL AND own_number = 0)`,
  },
  {
    name: 'a posted count has the document of its number with all that was counted, any other has none',
    sql: `SELECT COUNT(*) AS n FROM stock_count c LEFT JOIN stock_document d ON d.id = c.document_id AND d.kind = 'count'
            AND d.number = c.number AND d.location_id = c.location_id
          WHERE (c.state = 'posted') <> (d.id IS NOT NULL) OR (d.id IS NOT NULL AND
            (SELECT COUNT(counted) FROM stock_count_line l WHERE l.count_id = c.id)
              <> (SELECT COUNT(*) FROM stock_document_line x WHERE x.document_id = d.id))`,
  },
  {
    name: 'no number is missing or beyond its counter',
    sql: `SELECT COUNT(*) AS n FROM number_counter c WHERE c.last_number - c.skipped <>
            CASE c.pattern WHEN 'PO' THEN (SELECT COUNT(*) FROM purchase_order o WHERE o.number_series = c.period AND o.number_no <= c.last_number)
              WHEN 'GR' THEN (SELECT COUNT(*) FROM goods_receipt r WHERE r.number LIKE CONCAT('R', c.period, '-%'))
              WHEN 'SA' THEN (SELECT COUNT(*) FROM stock_document d WHERE d.number LIKE CONCAT('S', c.period, '-%'))
              WHEN 'CR' THEN (SELECT COUNT(*) FROM stock_document d WHERE d.number LIKE CONCAT('K', c.period, '-%'))
              WHEN 'CN' THEN (SELECT COUNT(*) FROM (SELECT number FROM stock_document WHERE kind = 'count' UNION
                SELECT number FROM stock_count) d WHERE d.number LIKE CONCAT('C', c.period, '-%'))
              WHEN 'CO' THEN (SELECT COUNT(*) FROM customer_order o WHERE o.number LIKE CONCAT('CO', c.period, '-%'))
              WHEN 'TR' THEN (SELECT COUNT(*) FROM transfer t WHERE t.number LIKE CONCAT('T', c.period, '-%')) END`,
  },
  {
    name: 'ordered tray lines stand on exactly one live order, others on none',
    sql: `SELECT COUNT(*) AS n FROM (SELECT t.id, t.state, COUNT(DISTINCT o.id) c FROM tray_line t
            LEFT JOIN delivery_part d ON d.tray_line_id = t.id LEFT JOIN order_line l ON l.id = d.order_line_id
            LEFT JOIN purchase_order o ON o.id = l.order_id AND o.state <> 'put_back' AND (o.state <> 'cancelled' OR o.sent_at IS NOT NULL)
          GROUP BY t.id, t.state) x WHERE (x.state = 'ordered' AND x.c <> 1) OR (x.state <> 'ordered' AND x.c <> 0)`,
  },
  {
    name: 'nothing that stayed was received on an order that is not approved',
    sql: `SELECT COUNT(*) AS n FROM goods_receipt r JOIN purchase_order o ON o.id = r.order_id
            LEFT JOIN receipt_reversal v ON v.receipt_id = r.id
          WHERE v.receipt_id IS NULL AND o.state NOT IN ${BOOKED}`,
  },
  {
    name: 'nothing is still to come of a closed or a cancelled order that its supplier knew, and nothing was cancelled beyond what was ordered',
    sql: `SELECT COUNT(*) AS n FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
          WHERE (o.state = 'closed' OR (o.state = 'cancelled' AND o.sent_at IS NOT NULL))
            AND d.location_id IS NOT NULL AND d.base_quantity > d.received_quantity + d.cancelled_quantity
             OR d.cancelled_quantity > d.base_quantity`,
  },
  {
    name: 'an order that a mail carries is approved, and the mail is its own',
    sql: `SELECT COUNT(*) AS n FROM purchase_order o JOIN outbox_mail m ON m.id = o.sending_mail_id
          WHERE o.state <> 'approved' AND m.state = 'waiting' OR m.entity <> 'order' OR m.entity_id <> o.id`,
  },
  {
    name: 'no line is approved without a price unless free of charge',
    sql: `SELECT COUNT(*) AS n FROM order_line l JOIN purchase_order o ON o.id = l.order_id
          WHERE o.state IN ('approved', 'sent', 'confirmed') AND l.base_quantity > 0 AND l.free_of_charge = 0 AND (l.price_amount IS NULL OR l.price_amount = 0)`,
  },
  {
    name: 'nothing lies ready for a customer beyond what is open of the line, or at another place',
    sql: `SELECT COUNT(*) AS n FROM customer_demand d JOIN customer_line l ON l.id = d.line_id
            JOIN customer_order o ON o.id = l.order_id JOIN allocation a ON a.id = d.allocation_id AND a.state = 'held'
          WHERE o.state <> 'open' OR a.item_id <> d.item_id OR a.location_id <> l.location_id
             OR a.quantity - a.taken > CAST((l.base_quantity - l.handed_over - l.cancelled) * d.per_set AS DECIMAL(18,6))`,
  },
  {
    name: 'a customer’s order is open as long as something of it is',
    sql: `SELECT COUNT(*) AS n FROM (SELECT o.id, o.state, SUM(l.base_quantity - l.handed_over - l.cancelled) AS open,
              SUM(l.handed_over) AS went FROM customer_order o LEFT JOIN customer_line l ON l.order_id = o.id
            GROUP BY o.id, o.state) x
          WHERE x.open IS NULL OR (x.state = 'open') <> (x.open > 0) OR (x.state = 'cancelled' AND x.went > 0)`,
  },
  {
    name: 'what was handed over to a customer stands on sales, or on receipts of what was sent straight',
    sql: `SELECT COUNT(*) AS n FROM customer_line l LEFT JOIN (SELECT line_id, SUM(quantity) q FROM customer_hand_over x
              WHERE NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = x.receipt_id) GROUP BY line_id) h
            ON h.line_id = l.id WHERE l.handed_over <> COALESCE(h.q, 0)`,
  },
  {
    name: 'a need that is bought for one line is of a line of its item from its place',
    sql: `SELECT COUNT(*) AS n FROM need n LEFT JOIN transfer_line l ON l.id = n.peg
            LEFT JOIN transfer t ON t.id = l.transfer_id
          WHERE n.peg_of = 'transfer_line'
            AND (t.id IS NULL OR l.item_id <> n.item_id OR t.from_location_id <> n.location_id)`,
  },
  {
    name: 'a need that is bought for one customer is of a line of its item at its place',
    sql: `SELECT COUNT(*) AS n FROM need n LEFT JOIN customer_demand d ON d.id = n.peg LEFT JOIN customer_line l ON l.id = d.line_id
          WHERE n.peg_of = 'customer_demand' AND (d.id IS NULL OR d.item_id <> n.item_id OR l.location_id <> n.location_id)`,
  },
  {
    name: 'what goes straight to a customer is bought for that line, is of its item, and moves no stock',
    sql: `SELECT (SELECT COUNT(*) FROM tray_line t JOIN customer_line c ON c.id = t.customer_line_id
              JOIN decision e ON e.id = t.decision_id JOIN need n ON n.id = e.need_id LEFT JOIN customer_demand d ON d.id = n.peg
             WHERE n.peg_of <> 'customer_demand' OR d.line_id <> c.id OR t.item_id <> c.item_id)
            + (SELECT COUNT(*) FROM delivery_part p JOIN tray_line t ON t.id = p.tray_line_id
             WHERE NOT p.customer_line_id <=> t.customer_line_id)
            + (SELECT COUNT(*) FROM goods_receipt_line x JOIN delivery_part p ON p.id = x.delivery_part_id
             WHERE p.customer_line_id IS NOT NULL AND x.moves_stock = 1) AS n`,
  },
  {
    name: 'needs agree with the state of their pair (unless marked for recomputation)',
    sql: `SELECT COUNT(*) AS n FROM item_location_state s
            LEFT JOIN need n ON n.item_id = s.item_id AND n.location_id = s.location_id AND n.peg_of = 'pair' AND n.peg = 0
            LEFT JOIN dirty_pair d ON d.item_id = s.item_id AND d.location_id = s.location_id
          WHERE d.item_id IS NULL AND (COALESCE(n.state, 'none') <> s.need_state OR (n.id IS NOT NULL AND n.suggested <> s.suggested))`,
  },
];

/** Each invariant with its count of violations; all zero in sound books. */
export async function checkInvariants(tx: Tx): Promise<{ name: string; violations: number }[]> {
  const found = [];
  for (const { name, sql } of invariants) {
    // Sums are made once for all rows, not again for each: that took a hundred times as long.
    const row = await tx.row<{ n: number }>(`SET STATEMENT optimizer_switch = 'split_materialized=off' FOR ${sql}`);
    found.push({ name, violations: Number(row?.n ?? 0) });
  }
  return found;
}
