import { atLocations, list, type SqlValues, type Tx } from '../sql';
import type { MovementKind } from './levels';

export type MovementFilter = {
  readonly itemIds: readonly number[] | null;
  readonly locationIds: readonly number[] | null;
  readonly userId: number | null;
  readonly kind: MovementKind | 'opening' | 'value' | null;
  readonly reasonId: number | null;
  /** Number of a document. */
  readonly document: string;
  readonly from: string;
  readonly to: string;
  /** Rows older than this one; 0 = from the newest. */
  readonly before: number;
};

export type MovementLine = {
  readonly id: number;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly unit: string;
  readonly locationId: number;
  readonly kind: string;
  readonly businessDate: string;
  readonly onHandChange: string;
  readonly valueChange: number;
  readonly variance: number;
  readonly documentKind: string;
  readonly documentId: number | null;
  readonly documentNumber: string | null;
  readonly orderId: number | null;
  readonly reason: string | null;
  readonly note: string | null;
  readonly who: string | null;
  readonly postedAt: string;
  /** Quantity and value of the pair after it, in the order of posting; only asked for one pair. */
  readonly runningQuantity: string | null;
  readonly runningValue: number | null;
  /** Lots or serial numbers it is of. */
  readonly lots: string | null;
};

/** Movements, newest first, with what they belong to. With one item and one place also what was there after each. */
export async function readMovementLines(tx: Tx, f: MovementFilter, limit: number): Promise<MovementLine[]> {
  const at = atLocations('m.location_id', f.locationIds);
  const items = f.itemIds === null ? null : list('item', f.itemIds);
  if (f.itemIds !== null && !items) return [];
  const one = f.itemIds?.length === 1 && f.locationIds?.length === 1;
  const where = [
    items ? `m.item_id IN (${items.sql})` : '',
    f.userId ? 'm.user_id = :userId' : '',
    f.kind ? 'm.kind = :kind' : '',
    f.reasonId ? 'd.reason_id = :reasonId' : '',
    f.document ? 'COALESCE(r.number, d.number, t.number) = :document' : '',
    f.from ? 'm.business_date >= :from' : '',
    f.to ? 'm.business_date <= :to' : '',
    f.before ? 'm.id < :before' : '',
  ].filter(Boolean);
  const values: SqlValues = {
    ...at.values,
    ...(items?.values ?? {}),
    ...(f.userId ? { userId: f.userId } : {}),
    ...(f.kind ? { kind: f.kind } : {}),
    ...(f.reasonId ? { reasonId: f.reasonId } : {}),
    ...(f.document ? { document: f.document } : {}),
    ...(f.from ? { from: f.from } : {}),
    ...(f.to ? { to: f.to } : {}),
    ...(f.before ? { before: f.before } : {}),
  };
  // What was there after each is summed over everything of the pair, also over what is not shown.
  const source = one
    ? `(SELECT y.*, SUM(y.on_hand_change) OVER (ORDER BY y.posting) AS running_quantity,
               CAST(SUM(y.value_change_minor) OVER (ORDER BY y.posting) AS SIGNED) AS running_value
          FROM movement y WHERE y.item_id IN (${items?.sql}) ${at.sql.replaceAll('m.', 'y.')})`
    : '(SELECT y.*, NULL AS running_quantity, NULL AS running_value FROM movement y)';
  return tx.rows<MovementLine>(
    `SELECT m.id, m.item_id AS itemId, i.number AS itemNumber, i.name AS itemName, i.unit_name AS unit,
            m.location_id AS locationId, m.kind, m.business_date AS businessDate, m.on_hand_change AS onHandChange,
            m.value_change_minor AS valueChange, m.variance_minor AS variance, m.document_kind AS documentKind,
            m.document_id AS documentId, COALESCE(r.number, d.number, t.number) AS documentNumber, r.order_id AS orderId,
            q.name AS reason, COALESCE(NULLIF(d.note, ''), NULLIF(tl.lost_reason, '')) AS note, u.name AS who,
            m.posted_at AS postedAt, m.running_quantity AS runningQuantity, m.running_value AS runningValue,
            IF(i.tracking = 'none', NULL, (SELECT GROUP_CONCAT(k.code ORDER BY k.id SEPARATOR ', ') FROM movement_lot x
              JOIN lot k ON k.id = x.lot_id WHERE x.item_id = m.item_id AND x.location_id = m.location_id
                AND x.posting = m.posting)) AS lots
       FROM ${source} m JOIN item i ON i.id = m.item_id
       JOIN location p ON p.id = m.location_id AND p.kind <> 'transit'
       LEFT JOIN goods_receipt r ON m.document_kind = 'receipt' AND r.id = m.document_id
       LEFT JOIN stock_document d ON m.document_kind IN ('sale', 'count', 'correction') AND d.id = m.document_id
       LEFT JOIN stock_reason q ON q.id = d.reason_id
       LEFT JOIN transfer t ON m.document_kind = 'transfer' AND t.id = m.document_id
       LEFT JOIN transfer_line tl ON t.id IS NOT NULL AND tl.transfer_id = t.id AND tl.line_no = m.document_line
       LEFT JOIN app_user u ON u.id = m.user_id
      WHERE ${[...where, 'TRUE'].join(' AND ')} ${at.sql}
      ORDER BY m.id DESC LIMIT ${Math.trunc(limit)}`,
    values,
  );
}

export const findReason = (tx: Tx, id: number) =>
  tx.row<{ id: number; name: string; ownUse: number }>(
    'SELECT id, name, own_use AS ownUse FROM stock_reason WHERE id = :id',
    { id },
  );
export const readReasons = (tx: Tx) =>
  tx.rows<{ id: number; name: string; ownUse: number }>(
    'SELECT id, name, own_use AS ownUse FROM stock_reason ORDER BY name',
  );

export type BalanceRow = {
  readonly itemId: number;
  readonly locationId: number;
  readonly quantity: string;
  readonly value: number;
};

/** What the books hold of every pair at the close of a business day: the sum of all movements dated on or before it. */
export async function readBalances(
  tx: Tx,
  day: string,
  locationIds: readonly number[] | null,
  itemIds: readonly number[] | null = null,
): Promise<BalanceRow[]> {
  const at = atLocations('m.location_id', locationIds);
  const items = itemIds === null ? null : list('item', itemIds);
  if (itemIds !== null && !items) return [];
  return tx.rows<BalanceRow>(
    `SELECT m.item_id AS itemId, m.location_id AS locationId, SUM(m.on_hand_change) AS quantity,
            CAST(SUM(m.value_change_minor) AS SIGNED) AS value
       FROM movement m WHERE m.business_date <= :day ${items ? `AND m.item_id IN (${items.sql})` : ''} ${at.sql}
      GROUP BY m.item_id, m.location_id HAVING SUM(m.on_hand_change) <> 0 OR SUM(m.value_change_minor) <> 0`,
    { day, ...at.values, ...(items?.values ?? {}) },
  );
}
