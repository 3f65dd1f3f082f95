import type { CustomerOrderState } from '@/core/promise';
import { list, type SqlValue, type Tx } from '../sql';
import { HELD } from './allocations';
import { OPEN_DEMAND } from './needInputs/waits';
import { LIVE } from './orderStates';
import type { PeggedLine } from './transfers';

export type CustomerRow = {
  readonly id: number;
  readonly name: string;
  readonly mail: string;
  readonly phone: string;
  readonly address: string;
  readonly priority: number;
  readonly delivers: 'in_part' | 'complete';
  readonly note: string;
};
const customerColumns = 'id, name, mail, phone, address, priority, delivers, note';

export const findCustomer = (tx: Tx, name: string, mail: string) =>
  tx.row<CustomerRow>(`SELECT ${customerColumns} FROM customer WHERE name = :name AND mail = :mail`, { name, mail });

export const findCustomerById = (tx: Tx, id: number) =>
  tx.row<CustomerRow>(`SELECT ${customerColumns} FROM customer WHERE id = :id`, { id });

/** Customers whose name or mail holds what was typed; those who ordered last first. */
export const findCustomersLike = (tx: Tx, text: string, limit: number) =>
  tx.rows<CustomerRow>(
    `SELECT ${customerColumns} FROM customer
      WHERE name LIKE CONCAT('%', :text, '%') ESCAPE '!' OR mail LIKE CONCAT('%', :text, '%') ESCAPE '!'
      ORDER BY id DESC LIMIT ${Math.trunc(limit)}`,
    { text: text.replace(/[!%_]/g, '!$&') },
  );

export const insertCustomer = async (tx: Tx, c: Omit<CustomerRow, 'id'>): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO customer (name, mail, phone, address, priority, delivers, note)
       VALUES (:name, :mail, :phone, :address, :priority, :delivers, :note)`,
      c,
    )
  ).id;

export type CustomerOrderRow = {
  readonly id: number;
  readonly number: string;
  readonly customerId: number;
  readonly customer: string;
  readonly mail: string;
  readonly channel: 'counter' | 'file' | 'web_shop';
  readonly reference: string | null;
  readonly state: CustomerOrderState;
  readonly orderedOn: string;
  readonly priority: number;
  readonly delivers: 'in_part' | 'complete';
  readonly note: string;
  readonly createdBy: number;
  readonly createdAt: string;
  readonly version: number;
};
const orderColumns = `o.id, o.number, o.customer_id AS customerId, c.name AS customer, c.mail, o.channel, o.reference, o.state,
  o.ordered_on AS orderedOn, o.priority, o.delivers, o.note, o.created_by AS createdBy, o.created_at AS createdAt, o.version`;

export const findCustomerOrder = (tx: Tx, id: number) =>
  tx.row<CustomerOrderRow>(
    `SELECT ${orderColumns} FROM customer_order o JOIN customer c ON c.id = o.customer_id WHERE o.id = :id`,
    { id },
  );

/** The head of an order, locked: what lies ready for its lines changes only under this lock. */
export async function lockCustomerOrder(tx: Tx, id: number): Promise<CustomerOrderRow | null> {
  await tx.row('SELECT id FROM customer_order WHERE id = :id FOR UPDATE', { id });
  return findCustomerOrder(tx, id);
}

/** The order that a channel knows by this number. */
export const findByReference = (tx: Tx, channel: string, reference: string) =>
  tx.row<{ id: number; number: string }>(
    'SELECT id, number FROM customer_order WHERE channel = :channel AND reference = :reference',
    { channel, reference },
  );

export const insertCustomerOrder = async (
  tx: Tx,
  o: {
    number: string;
    customerId: number;
    channel: string;
    reference: SqlValue;
    orderedOn: string;
    priority: number;
    delivers: string;
    note: string;
    userId: number;
    at: string;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO customer_order (number, customer_id, channel, reference, ordered_on, priority, delivers, note, created_by, created_at)
       VALUES (:number, :customerId, :channel, :reference, :orderedOn, :priority, :delivers, :note, :userId, :at)`,
      o,
    )
  ).id;

/** False when somebody has changed it meanwhile. */
export const touchCustomerOrder = async (
  tx: Tx,
  o: { id: number; version: number; state: CustomerOrderState },
): Promise<boolean> =>
  (
    await tx.run(
      'UPDATE customer_order SET state = :state, version = version + 1 WHERE id = :id AND version = :version',
      o,
    )
  ).affected === 1;

export const setCustomerOrderTerms = (tx: Tx, o: { id: number; delivers: string; priority: number; note: string }) =>
  tx.run('UPDATE customer_order SET delivers = :delivers, priority = :priority, note = :note WHERE id = :id', o);

/** Sent from stock, collected at the place, or sent by the supplier straight to the customer. */
export type CustomerWay = 'from_stock' | 'collect' | 'straight';

export type NewCustomerLine = {
  readonly itemId: number;
  readonly locationId: number;
  readonly way: CustomerWay;
  readonly packId: SqlValue;
  readonly packName: string;
  readonly packQuantity: string;
  readonly baseQuantity: string;
  readonly wantedDate: string;
  readonly shipBy: string;
  readonly wholeSets: boolean;
  readonly holdUntil: SqlValue;
  readonly demand: readonly { readonly itemId: number; readonly perSet: string }[];
};

/** Lines behind those an order has, each with what it takes of stock. */
export async function insertCustomerLines(
  tx: Tx,
  orderId: number,
  after: number,
  lines: readonly NewCustomerLine[],
): Promise<void> {
  for (const [i, l] of lines.entries()) {
    const { demand, wholeSets, ...values } = l;
    const { id } = await tx.run(
      `INSERT INTO customer_line (order_id, line_no, item_id, location_id, way, pack_id, pack_name, pack_quantity, base_quantity,
                                  wanted_date, ship_by, whole_sets, hold_until)
       VALUES (:orderId, :lineNo, :itemId, :locationId, :way, :packId, :packName, :packQuantity, :baseQuantity,
               :wantedDate, :shipBy, :whole, :holdUntil)`,
      { ...values, orderId, lineNo: after + i + 1, whole: wholeSets ? 1 : 0 },
    );
    await tx.insertMany(
      'INSERT INTO customer_demand (line_id, item_id, per_set)',
      demand.map((d) => [id, d.itemId, d.perSet]),
    );
  }
}

export type CustomerLineRow = {
  readonly id: number;
  readonly orderId: number;
  readonly lineNo: number;
  readonly itemId: number;
  readonly locationId: number;
  readonly way: CustomerWay;
  readonly packName: string;
  readonly packQuantity: string;
  readonly ordered: string;
  readonly handedOver: string;
  readonly cancelled: string;
  readonly wantedDate: string;
  readonly shipBy: string;
  readonly wholeSets: number;
  readonly holdUntil: string | null;
  readonly byHand: number;
  readonly toldDate: string | null;
  readonly toldAt: string | null;
};
/** Columns of a line, joined as `l`. */
export const lineColumns = `l.id, l.order_id AS orderId, l.line_no AS lineNo, l.item_id AS itemId, l.location_id AS locationId, l.way,
  l.pack_name AS packName, l.pack_quantity AS packQuantity, l.base_quantity AS ordered, l.handed_over AS handedOver,
  l.cancelled, l.wanted_date AS wantedDate, l.ship_by AS shipBy, l.whole_sets AS wholeSets, l.hold_until AS holdUntil,
  l.by_hand AS byHand, l.told_date AS toldDate, l.told_at AS toldAt`;

export const readCustomerLines = (tx: Tx, orderIds: readonly number[]) =>
  tx.rowsOf<CustomerLineRow>(
    `SELECT ${lineColumns} FROM customer_line l WHERE l.order_id IN (?) ORDER BY l.order_id, l.line_no`,
    orderIds,
  );

export type DemandRow = {
  readonly id: number;
  readonly lineId: number;
  readonly itemId: number;
  readonly perSet: string;
  readonly allocationId: number | null;
  /** What lies ready. */
  readonly held: string;
};

export const readDemands = (tx: Tx, lineIds: readonly number[]) =>
  tx.rowsOf<DemandRow>(
    `SELECT d.id, d.line_id AS lineId, d.item_id AS itemId, d.per_set AS perSet, d.allocation_id AS allocationId, ${HELD} AS held
       FROM customer_demand d LEFT JOIN allocation a ON a.id = d.allocation_id WHERE d.line_id IN (?) ORDER BY d.id`,
    lineIds,
  );

export type DemandOf = {
  readonly lineId: number;
  readonly orderId: number;
  readonly number: string;
  readonly customer: string;
  readonly wanted: string;
  readonly straight: number;
};

/** Whose lines these are, by what they take of an item. */
export async function readCustomerOfDemands(tx: Tx, demandIds: readonly number[]): Promise<Map<number, DemandOf>> {
  const rows = await tx.rowsOf<DemandOf & { demandId: number }>(
    `SELECT d.id AS demandId, l.id AS lineId, o.id AS orderId, o.number, c.name AS customer, l.wanted_date AS wanted,
            l.way = 'straight' AS straight
       FROM customer_demand d JOIN customer_line l ON l.id = d.line_id JOIN customer_order o ON o.id = l.order_id
       JOIN customer c ON c.id = o.customer_id WHERE d.id IN (?)`,
    demandIds,
  );
  return new Map(rows.map((r) => [r.demandId, r]));
}

/** The lines of customers' orders that these tray lines, or these decisions, are for one to one; not those that their supplier
 *  sends them straight. */
export async function readPeggedDemands(
  tx: Tx,
  trayLineIds: readonly number[],
  decisionIds: readonly number[],
): Promise<PeggedLine[]> {
  const [trays, decisions] = [list('tray', trayLineIds), list('decision', decisionIds)];
  if (!trays && !decisions) return [];
  const where = [
    ...(trays ? [`y.id IN (${trays.sql})`] : []),
    ...(decisions ? [`e.id IN (${decisions.sql})`] : []),
  ].join(' OR ');
  return tx.rows<PeggedLine>(
    `SELECT y.id AS trayLineId, e.id AS decisionId, d.id AS lineId, o.id AS headId,
            LEFT(CONCAT(o.number, ' ', c.name), 120) AS promisedTo, ${OPEN_DEMAND} AS asked, d.allocation_id AS allocationId
       FROM decision e JOIN need n ON n.id = e.need_id AND n.peg_of = 'customer_demand'
       LEFT JOIN tray_line y ON y.decision_id = e.id
       JOIN customer_demand d ON d.id = n.peg JOIN customer_line l ON l.id = d.line_id AND l.way <> 'straight'
       JOIN customer_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id
      WHERE ${where}`,
    { ...trays?.values, ...decisions?.values },
  );
}

/** The orders that these lines are of, one for each line. */
export const readOrdersOfLines = async (tx: Tx, lineIds: readonly number[]): Promise<number[]> =>
  (await tx.rowsOf<{ orderId: number }>('SELECT order_id AS orderId FROM customer_line WHERE id IN (?)', lineIds)).map(
    (r) => r.orderId,
  );

/** Another way for a line. */
export const setLineWay = (tx: Tx, id: number, way: CustomerWay) =>
  tx.run('UPDATE customer_line SET way = :way WHERE id = :id', { id, way });

/** Where it is fixed that a supplier sends a line straight: the number of its order (null = draft or tray) and who it is; null where
 *  nothing is on its way. */
export const findStraight = (tx: Tx, lineId: number) =>
  tx.row<{ supplier: string; number: string | null }>(
    `SELECT s.name AS supplier, x.number FROM (
       SELECT supplier_id, NULL AS number FROM tray_line WHERE customer_line_id = :lineId AND state = 'in_tray'
       UNION ALL
       SELECT o.supplier_id, o.number FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id
         JOIN purchase_order o ON o.id = l.order_id
        WHERE d.customer_line_id = :lineId AND o.state IN ${LIVE}
          AND d.base_quantity > d.received_quantity + d.cancelled_quantity) x
       JOIN supplier s ON s.id = x.supplier_id LIMIT 1`,
    { lineId },
  );

/** Whom lines go to, with where that is. */
export async function readCustomersOfLines(
  tx: Tx,
  lineIds: readonly number[],
): Promise<Map<number, { lineId: number; orderId: number; number: string; customer: string; address: string }>> {
  const rows = await tx.rowsOf<{ lineId: number; orderId: number; number: string; customer: string; address: string }>(
    `SELECT l.id AS lineId, o.id AS orderId, o.number, c.name AS customer, c.address FROM customer_line l
       JOIN customer_order o ON o.id = l.order_id JOIN customer c ON c.id = o.customer_id WHERE l.id IN (?)`,
    lineIds,
  );
  return new Map(rows.map((r) => [r.lineId, r]));
}

export const setDemandAllocation = (tx: Tx, id: number, allocationId: number | null) =>
  tx.run('UPDATE customer_demand SET allocation_id = :allocationId WHERE id = :id', { id, allocationId });

export const setLineFigures = (tx: Tx, l: { id: number; handedOver: string; cancelled: string }) =>
  tx.run('UPDATE customer_line SET handed_over = :handedOver, cancelled = :cancelled WHERE id = :id', l);

export const setLineHold = (tx: Tx, l: { id: number; holdUntil: SqlValue; byHand: boolean }) =>
  tx.run('UPDATE customer_line SET hold_until = :holdUntil, by_hand = :hand WHERE id = :id', {
    id: l.id,
    holdUntil: l.holdUntil,
    hand: l.byHand ? 1 : 0,
  });

export const setLineTold = (tx: Tx, ids: readonly number[], date: SqlValue, at: string) =>
  tx.tell(
    ids.map((id) => ({
      sql: 'UPDATE customer_line SET told_date = ?, told_at = ? WHERE id = ?',
      values: [date, at, id],
    })),
  );

/** What was handed over: on a sale, or on the receipt of what its supplier has sent straight. */
export const insertHandOver = (
  tx: Tx,
  on: { readonly documentId: number } | { readonly receiptId: number },
  lines: readonly { lineId: number; quantity: string }[],
) =>
  tx.insertMany(
    'INSERT INTO customer_hand_over (line_id, document_id, receipt_id, quantity)',
    lines.map((l) => [
      l.lineId,
      'documentId' in on ? on.documentId : null,
      'receiptId' in on ? on.receiptId : null,
      l.quantity,
    ]),
  );

/** What was handed over on a receipt. */
export const readHandedOn = (tx: Tx, receiptId: number) =>
  tx.rows<{ lineId: number; orderId: number; quantity: string }>(
    `SELECT h.line_id AS lineId, l.order_id AS orderId, h.quantity FROM customer_hand_over h
       JOIN customer_line l ON l.id = h.line_id WHERE h.receipt_id = :receiptId ORDER BY l.order_id, h.id`,
    { receiptId },
  );

export type HandOverRow = {
  readonly lineNo: number;
  /** Number of the sale, or of the receipt of what was sent straight. */
  readonly sale: string;
  readonly day: string;
  readonly quantity: string;
};
export const readHandOvers = (tx: Tx, orderId: number) =>
  tx.rows<HandOverRow>(
    `SELECT l.line_no AS lineNo, COALESCE(d.number, r.number) AS sale, COALESCE(d.business_date, r.business_date) AS day, h.quantity
       FROM customer_hand_over h JOIN customer_line l ON l.id = h.line_id LEFT JOIN stock_document d ON d.id = h.document_id
       LEFT JOIN goods_receipt r ON r.id = h.receipt_id
      WHERE l.order_id = :orderId AND NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = h.receipt_id)
      ORDER BY h.id, l.line_no`,
    { orderId },
  );
