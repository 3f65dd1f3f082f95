import { atLocations, list, type SqlValue, type Tx } from '../sql';

export type Pair = { readonly itemId: number; readonly locationId: number };

export type LevelRow = {
  itemId: number;
  locationId: number;
  onHand: string;
  allocated: string;
  inspection: string;
  blocked: string;
  value: number;
  lastPosting: number;
};

const columns = `item_id AS itemId, location_id AS locationId, on_hand AS onHand, allocated, inspection, blocked,
                 value_minor AS value, last_posting AS lastPosting`;

export const byPair = (a: Pair, b: Pair): number => a.itemId - b.itemId || a.locationId - b.locationId;

/** Creates missing levels by a no-op upsert in key order and locks them all in that order. */
export async function lockLevels(tx: Tx, pairs: readonly Pair[]): Promise<LevelRow[]> {
  const locked: LevelRow[] = [];
  for (const p of [...pairs].sort(byPair)) {
    await tx.run(
      'INSERT INTO level (item_id, location_id) VALUES (:itemId, :locationId) ON DUPLICATE KEY UPDATE on_hand = on_hand',
      p,
    );
    const row = await tx.row<LevelRow>(
      `SELECT ${columns} FROM level WHERE item_id = :itemId AND location_id = :locationId FOR UPDATE`,
      p,
    );
    if (row) locked.push(row);
  }
  return locked;
}

export const updateLevel = (
  tx: Tx,
  l: Pair & { onHand: string; inspection: string; blocked: string; value: number; posting: number },
) =>
  tx.run(
    `UPDATE level SET on_hand = :onHand, inspection = :inspection, blocked = :blocked, value_minor = :value,
            last_posting = :posting
      WHERE item_id = :itemId AND location_id = :locationId`,
    l,
  );

export async function readLevels(
  tx: Tx,
  itemIds: readonly number[],
  locationIds: readonly number[] | null = null,
): Promise<LevelRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  const at = atLocations('location_id', locationIds);
  return tx.rows<LevelRow>(`SELECT ${columns} FROM level WHERE item_id IN (${ids.sql}) ${at.sql}`, {
    ...ids.values,
    ...at.values,
  });
}

/** Item, location, posting, kind, business date, changes of on hand, inspection, blocked, value, variance, document, person, time. */
export const MOVEMENT_COLUMNS = `(item_id, location_id, posting, kind, business_date, on_hand_change, inspection_change,
  blocked_change, value_change_minor, variance_minor, document_kind, document_id, document_line, user_id, posted_at)`;

export const insertMovements = (tx: Tx, rows: readonly (readonly SqlValue[])[]) =>
  tx.insertMany(`INSERT INTO movement ${MOVEMENT_COLUMNS}`, rows);

export type MovementRow = {
  id: number;
  locationId: number;
  kind: string;
  businessDate: string;
  onHandChange: string;
  valueChange: number;
  variance: number;
  documentKind: string;
  documentId: number | null;
  receiptNumber: string | null;
  orderId: number | null;
  who: string | null;
  runningOnHand: string;
};

/** Newest first, with the quantity on hand at that location after each. */
export function readMovements(tx: Tx, itemId: number, locationIds: readonly number[] | null, limit: number) {
  const at = atLocations('m.location_id', locationIds);
  return tx.rows<MovementRow>(
    `SELECT m.id, m.location_id AS locationId, m.kind, m.business_date AS businessDate,
            m.on_hand_change AS onHandChange, m.value_change_minor AS valueChange, m.variance_minor AS variance,
            m.document_kind AS documentKind, m.document_id AS documentId, r.number AS receiptNumber,
            r.order_id AS orderId, u.name AS who,
            SUM(m.on_hand_change) OVER (PARTITION BY m.location_id ORDER BY m.posting) AS runningOnHand
       FROM movement m
       LEFT JOIN goods_receipt r ON m.document_kind = 'receipt' AND r.id = m.document_id
       LEFT JOIN app_user u ON u.id = m.user_id
      WHERE m.item_id = :itemId ${at.sql}
      ORDER BY m.business_date DESC, m.id DESC LIMIT ${Math.trunc(limit)}`,
    { itemId, ...at.values },
  );
}
