import { list, type SqlValues, type Tx } from '../sql';
import { HELD } from './allocations';
import type { Pair } from './levels';
import { DRAFTED, EXPECTED, LIVE } from './orderStates';

export type Supply = Pair & {
  /** Open parts of approved and sent orders, of drafts, lines in trays, on the road, approved and not shipped. */
  readonly kind: 'order' | 'draft' | 'tray' | 'transfer' | 'to_be_sent';
  readonly number: string | null;
  readonly orderId: number | null;
  readonly transferId: number | null;
  /** Confirmed, else promised, else wanted; null where nothing is said. */
  readonly date: string | null;
  readonly quantity: string;
  /** Of the document: all of it, and what came. */
  readonly ordered: string;
  readonly received: string;
  /** Whom it was bought from, and when; null for what is not ordered yet, and for transfers. */
  readonly supplierId: number | null;
  readonly orderedOn: string | null;
  /** The decision that it goes back to. */
  readonly decisionId: number | null;
  /** Its supplier sends it straight to a customer: it never comes to the place. */
  readonly straight: number;
};
type Demand = {
  readonly number: string | null;
  readonly transferId: number;
  readonly date: string | null;
  readonly quantity: string;
};

/** A bare NULL would make text of the numbers in the same column of the other parts. */
const NO_NUMBER = 'CAST(NULL AS UNSIGNED)';

/** Every document that brings something, however far ahead; `item` and `place` narrow it (the columns are named for each part). */
const supply = (item: string, place: string) => `
  SELECT l.item_id AS itemId, d.location_id AS locationId, IF(o.state IN ${DRAFTED}, 'draft', 'order') AS kind, o.number,
         o.id AS orderId, ${NO_NUMBER} AS transferId, ${EXPECTED} AS date,
         d.base_quantity - d.received_quantity - d.cancelled_quantity AS quantity, d.base_quantity AS ordered,
         d.received_quantity AS received, o.supplier_id AS supplierId, IF(o.state IN ${DRAFTED}, NULL, o.order_date) AS orderedOn,
         t.decision_id AS decisionId, d.customer_line_id IS NOT NULL AS straight
    FROM purchase_order o JOIN order_line l ON l.order_id = o.id AND l.kind = 'stock'
    JOIN delivery_part d ON d.order_line_id = l.id LEFT JOIN tray_line t ON t.id = d.tray_line_id
   WHERE l.item_id ${item} AND d.location_id ${place} AND o.state IN ${LIVE}
     AND d.base_quantity > d.received_quantity + d.cancelled_quantity
  UNION ALL
  SELECT item_id, location_id, 'tray', NULL, ${NO_NUMBER}, ${NO_NUMBER}, NULL, base_quantity, base_quantity, 0, supplier_id, NULL,
         decision_id, customer_line_id IS NOT NULL FROM tray_line
   WHERE item_id ${item} AND location_id ${place} AND state = 'in_tray'
  UNION ALL
  SELECT l.item_id, t.to_location_id, IF(t.state = 'approved', 'to_be_sent', 'transfer'), t.number, ${NO_NUMBER}, t.id, NULL,
         IF(t.state = 'approved', l.approved, l.shipped - l.received - l.lost), IF(t.state = 'approved', l.approved, l.shipped),
         l.received, ${NO_NUMBER}, NULL, l.decision_id, 0
    FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
   WHERE l.item_id ${item} AND t.to_location_id ${place}
     AND ((t.state = 'approved' AND l.approved > 0) OR (t.state = 'shipped' AND l.shipped > l.received + l.lost))`;

/** Everything that is to come to any place of these items, or straight to its customers, each with its document and day. */
export async function readSupply(tx: Tx, itemIds: readonly number[]): Promise<Supply[]> {
  const ids = list('id', itemIds);
  return ids ? tx.rows<Supply>(supply(`IN (${ids.sql})`, 'IS NOT NULL'), ids.values) : [];
}

export type Coming = Pair & {
  /** Open parts of approved and sent orders; of drafts and lines in trays; on the road; approved and not shipped. */
  readonly onOrder: string;
  readonly inDrafts: string;
  readonly inTransit: string;
  readonly approved: string;
};

/** What is to come to each pair of these items, summed by how far it is. */
export async function readComing(tx: Tx, itemIds: readonly number[]): Promise<Coming[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  const sum = (...kinds: Supply['kind'][]) =>
    `SUM(IF(x.kind IN (${kinds.map((k) => `'${k}'`).join(', ')}), x.quantity, 0))`;
  return tx.rows<Coming>(
    `SELECT x.itemId, x.locationId, ${sum('order')} AS onOrder, ${sum('draft', 'tray')} AS inDrafts,
            ${sum('transfer')} AS inTransit, ${sum('to_be_sent')} AS approved
       FROM (${supply(`IN (${ids.sql})`, 'IS NOT NULL')}) x WHERE x.straight = 0 GROUP BY x.itemId, x.locationId`,
    ids.values,
  );
}

/** What comes to a pair and what other places ask of it, each with its document and day; and who its first supplier is. */
export async function readDatedSupply(
  tx: Tx,
  itemId: number,
  locationId: number,
): Promise<{ receipts: Supply[]; demands: Demand[]; supplier: string | null }> {
  const at: SqlValues = { itemId, locationId };
  const receipts = await tx.rows<Supply>(
    `SELECT x.* FROM (${supply('= :itemId', '= :locationId')}) x WHERE x.straight = 0`,
    at,
  );
  const demands = await tx.rows<Demand>(
    // What lies ready for a line is owed already.
    `SELECT t.number, t.id AS transferId, t.wanted_date AS date, l.asked - ${HELD} AS quantity
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id LEFT JOIN allocation a ON a.id = l.allocation_id
      WHERE l.item_id = :itemId AND t.from_location_id = :locationId AND t.state = 'requested'
     HAVING quantity > 0`,
    at,
  );
  const supplier = await tx.row<{ name: string }>(
    `SELECT p.name FROM item_location_state s JOIN source f ON f.id = s.source_id JOIN supplier p ON p.id = f.supplier_id
      WHERE s.item_id = :itemId AND s.location_id = :locationId`,
    at,
  );
  return { receipts, demands, supplier: supplier?.name ?? null };
}
