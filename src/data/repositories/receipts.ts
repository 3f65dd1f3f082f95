import { atLocations, type Tx } from '../sql';
import { EXPECTED, ORDERED } from './orderStates';

export const insertReceipt = async (
  tx: Tx,
  r: {
    number: string;
    orderId: number;
    locationId: number;
    businessDate: string;
    deliveryNote: string;
    userId: number;
    at: string;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO goods_receipt (number, order_id, location_id, business_date, delivery_note, received_by, received_at)
       VALUES (:number, :orderId, :locationId, :businessDate, :deliveryNote, :userId, :at)`,
      r,
    )
  ).id;

export const insertReceiptLines = (
  tx: Tx,
  receiptId: number,
  lines: readonly {
    partId: number;
    itemId: number | null;
    packQuantity: string;
    baseQuantity: string;
    value: number;
    orderValue: number;
    movesStock: boolean;
  }[],
) =>
  tx.insertMany(
    'INSERT INTO goods_receipt_line (receipt_id, line_no, delivery_part_id, item_id, pack_quantity, base_quantity, value_minor, order_minor, moves_stock)',
    lines.map((l, i) => [
      ...[receiptId, i + 1, l.partId, l.itemId, l.packQuantity, l.baseQuantity],
      ...[l.value, l.orderValue, l.movesStock ? 1 : 0],
    ]),
  );

export type ReceiptRow = {
  id: number;
  number: string;
  orderId: number;
  location: string;
  businessDate: string;
  deliveryNote: string;
  who: string;
  value: number;
  lines: number;
  reversedBy: string | null;
  reversedReason: string | null;
};

/** Receipts of an order, oldest first, with the number and value of their lines. */
export const readReceiptsOf = (tx: Tx, orderId: number) =>
  tx.rows<ReceiptRow>(
    `SELECT r.id, r.number, r.order_id AS orderId, l.name AS location, r.business_date AS businessDate,
            r.delivery_note AS deliveryNote, u.name AS who,
            (SELECT CAST(SUM(x.value_minor) AS SIGNED) FROM goods_receipt_line x WHERE x.receipt_id = r.id) AS value,
            (SELECT COUNT(*) FROM goods_receipt_line x WHERE x.receipt_id = r.id) AS \`lines\`,
            b.name AS reversedBy, v.reason AS reversedReason
       FROM goods_receipt r JOIN location l ON l.id = r.location_id JOIN app_user u ON u.id = r.received_by
       LEFT JOIN receipt_reversal v ON v.receipt_id = r.id LEFT JOIN app_user b ON b.id = v.reversed_by
      WHERE r.order_id = :orderId ORDER BY r.id`,
    { orderId },
  );

export type ExpectedRow = {
  partId: number;
  orderId: number;
  orderNumber: string;
  /** Its supplier knows it. */
  everSent: number;
  currency: string;
  supplier: string;
  locationId: number;
  itemId: number | null;
  itemNumber: string | null;
  tracking: 'none' | 'lot' | 'serial' | null;
  /** What the buyer noted for whoever books it in, and whether it is to be inspected. */
  internalNote: string;
  inspect: number;
  description: string;
  unitName: string | null;
  packName: string;
  contentNum: number;
  contentDen: number;
  packQuantity: string;
  baseQuantity: string;
  received: string;
  receivedPacks: string;
  cancelled: string;
  /** As confirmed, else as promised, else as wanted. */
  expectedDate: string | null;
};

/** Parts that are still to come to us, of approved and sent orders; at these locations, of one order, of one item. */
export async function readExpected(
  tx: Tx,
  locationIds: readonly number[] | null,
  only: { readonly orderId?: number; readonly itemId?: number } = {},
): Promise<ExpectedRow[]> {
  const at = atLocations('d.location_id', locationIds);
  return tx.rows<ExpectedRow>(
    `SELECT d.id AS partId, o.id AS orderId, o.number AS orderNumber, o.sent_at IS NOT NULL AS everSent, o.currency, s.name AS supplier,
            d.location_id AS locationId, l.item_id AS itemId, i.number AS itemNumber, i.tracking, l.internal_note AS internalNote,
            COALESCE(l.inspect, i.inspect, 0) AS inspect, l.description, i.unit_name AS unitName, l.pack_name AS packName, l.content_num AS contentNum, l.content_den AS contentDen,
            d.pack_quantity AS packQuantity, d.base_quantity AS baseQuantity, d.received_quantity AS received,
            d.received_packs AS receivedPacks, d.cancelled_quantity AS cancelled,
            ${EXPECTED} AS expectedDate
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
       LEFT JOIN item i ON i.id = l.item_id
      WHERE o.state IN ${ORDERED} AND l.kind IN ('stock', 'non_stock') AND d.location_id IS NOT NULL
        AND d.customer_line_id IS NULL
        AND d.base_quantity > d.received_quantity + d.cancelled_quantity
        ${at.sql} ${only.orderId === undefined ? '' : 'AND o.id = :orderId'}
        ${only.itemId === undefined ? '' : 'AND l.item_id = :itemId'}
      ORDER BY expectedDate, o.id, l.line_no, d.part_no`,
    { ...at.values, ...only },
  );
}

export type ReceiptHead = {
  readonly id: number;
  readonly number: string;
  readonly orderId: number;
  readonly locationId: number;
};

/** A receipt with whether it was reversed; its order is locked before. */
export const findReceipt = (tx: Tx, id: number) =>
  tx.row<ReceiptHead & { reversed: number }>(
    `SELECT r.id, r.number, r.order_id AS orderId, r.location_id AS locationId, v.receipt_id IS NOT NULL AS reversed
       FROM goods_receipt r LEFT JOIN receipt_reversal v ON v.receipt_id = r.id WHERE r.id = :id`,
    { id },
  );

export type ReceiptLineRow = {
  readonly lineNo: number;
  readonly partId: number;
  readonly itemId: number | null;
  readonly packQuantity: string;
  readonly baseQuantity: string;
  /** In the company's currency, and in the order's. */
  readonly value: number;
  readonly orderValue: number;
  movesStock: number;
};

export const readReceiptLines = (tx: Tx, receiptId: number) =>
  tx.rows<ReceiptLineRow>(
    `SELECT line_no AS lineNo, delivery_part_id AS partId, item_id AS itemId, pack_quantity AS packQuantity,
            base_quantity AS baseQuantity, value_minor AS value, order_minor AS orderValue, moves_stock AS movesStock
       FROM goods_receipt_line WHERE receipt_id = :receiptId ORDER BY line_no`,
    { receiptId },
  );

export const insertReceiptReversal = (
  tx: Tx,
  v: { receiptId: number; businessDate: string; reason: string; userId: number; at: string },
) =>
  tx.run(
    `INSERT INTO receipt_reversal (receipt_id, business_date, reason, reversed_by, reversed_at)
     VALUES (:receiptId, :businessDate, :reason, :userId, :at)`,
    v,
  );

/** When goods of these orders came last; receipts that were reversed do not count. */
export async function readLastReceipts(tx: Tx, orderIds: readonly number[]): Promise<ReadonlyMap<number, string>> {
  const rows = await tx.rowsOf<{ orderId: number; date: string }>(
    `SELECT r.order_id AS orderId, MAX(r.business_date) AS date FROM goods_receipt r
       LEFT JOIN receipt_reversal v ON v.receipt_id = r.id
      WHERE r.order_id IN (?) AND v.receipt_id IS NULL GROUP BY r.order_id`,
    orderIds,
  );
  return new Map(rows.map((r) => [r.orderId, r.date]));
}
