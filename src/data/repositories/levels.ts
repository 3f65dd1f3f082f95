import { atLocations, insertStatements, list, type SqlValue, type Tx } from '../sql';

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
  /** What came in last and its value; null when nothing ever did. */
  lastCostQuantity: string | null;
  lastCost: number | null;
};

const columns = `item_id AS itemId, location_id AS locationId, on_hand AS onHand, allocated, inspection, blocked,
                 value_minor AS value, last_posting AS lastPosting, last_cost_quantity AS lastCostQuantity,
                 last_cost_minor AS lastCost`;

/** Pairs as a table, so that rows are found one by one through their key. A list of tuples would be read as a range, on a
 *  small table as the whole of it, and a locking read waits for every row it reads: that was a deadlock in four commands. */
export const THESE = "JSON_TABLE(?, '$[*]' COLUMNS (i INT UNSIGNED PATH '$[0]', l INT UNSIGNED PATH '$[1]')) x";
export const theseOf = (pairs: readonly Pair[]): string => JSON.stringify(pairs.map((p) => [p.itemId, p.locationId]));

export const byPair = (a: Pair, b: Pair): number => a.itemId - b.itemId || a.locationId - b.locationId;

/** Creates missing levels by a no-op upsert in key order, which locks them in that order, and reads them. */
export async function lockLevels(tx: Tx, pairs: readonly Pair[]): Promise<LevelRow[]> {
  const ordered = [...pairs].sort(byPair);
  const values = ordered.map((p) => [p.itemId, p.locationId]);
  const made = insertStatements(
    'INSERT INTO level (item_id, location_id)',
    values,
    'ON DUPLICATE KEY UPDATE on_hand = on_hand',
  );
  const sql = `SELECT ${columns} FROM ${THESE} STRAIGHT_JOIN level ON item_id = x.i AND location_id = x.l FOR UPDATE`;
  return ordered.length === 0 ? [] : tx.rowsBehind<LevelRow>(made, [{ sql, values: [theseOf(ordered)] }]);
}

export const updateLevel = (
  tx: Tx,
  l: Pair & {
    onHand: string;
    inspection: string;
    blocked: string;
    value: number;
    posting: number;
    lastCostQuantity: SqlValue;
    lastCost: SqlValue;
  },
) =>
  tx.later([
    {
      sql: `UPDATE level SET on_hand = ?, inspection = ?, blocked = ?, value_minor = ?, last_posting = ?, last_cost_quantity = ?,
                   last_cost_minor = ? WHERE item_id = ? AND location_id = ?`,
      values: [
        ...[l.onHand, l.inspection, l.blocked, l.value, l.posting, l.lastCostQuantity, l.lastCost],
        ...[l.itemId, l.locationId],
      ],
    },
  ]);

/** What an item last cost at any other place; null when it never came in anywhere. */
export const readLastCostElsewhere = (tx: Tx, itemId: number) =>
  tx.row<{ quantity: string; value: number }>(
    `SELECT l.last_cost_quantity AS quantity, l.last_cost_minor AS value
       FROM level l JOIN location p ON p.id = l.location_id AND p.kind <> 'transit'
      WHERE l.item_id = :itemId AND l.last_cost_quantity > 0 ORDER BY l.location_id LIMIT 1`,
    { itemId },
  );

export type PostedRow = {
  businessDate: string;
  posting: number;
  kind: MovementKind;
  quantity: string;
  value: number;
  variance: number;
};

/** Movements of a pair dated on or after a day, and what the books held of it before that day. */
export async function readPostingsSince(
  tx: Tx,
  pair: Pair,
  date: string,
): Promise<{ before: { quantity: string; value: number }; since: PostedRow[] }> {
  const values = { itemId: pair.itemId, locationId: pair.locationId, date };
  const before = await tx.row<{ quantity: string; value: number }>(
    `SELECT COALESCE(SUM(on_hand_change), 0) AS quantity, CAST(COALESCE(SUM(value_change_minor), 0) AS SIGNED) AS value
       FROM movement WHERE item_id = :itemId AND location_id = :locationId AND business_date < :date`,
    values,
  );
  const since = await tx.rows<PostedRow>(
    `SELECT business_date AS businessDate, posting, kind, on_hand_change AS quantity, value_change_minor AS value,
            variance_minor AS variance
       FROM movement WHERE item_id = :itemId AND location_id = :locationId AND business_date >= :date ORDER BY posting`,
    values,
  );
  return { before: before ?? { quantity: '0', value: 0 }, since };
}

/** What changed on hand at a pair on each day after one. */
export const readChangesByDay = (tx: Tx, { itemId, locationId }: Pair, after: string) =>
  tx.rows<{ date: string; quantity: string }>(
    `SELECT business_date AS date, SUM(on_hand_change) AS quantity FROM movement
      WHERE item_id = :itemId AND location_id = :locationId AND business_date > :after GROUP BY business_date`,
    { itemId, locationId, after },
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

/** Levels of these pairs alone. */
export const readLevelsAt = async (tx: Tx, pairs: readonly Pair[]): Promise<LevelRow[]> =>
  pairs.length === 0
    ? []
    : tx.rowsOf<LevelRow>(
        `SELECT ${columns} FROM ${THESE} STRAIGHT_JOIN level ON item_id = x.i AND location_id = x.l`,
        [theseOf(pairs)],
      );

/** What stock is worth at these places, by item, in minor units. */
export async function readStockValues(tx: Tx, locationIds: readonly number[] | null): Promise<Map<number, number>> {
  const at = atLocations('l.location_id', locationIds);
  const rows = await tx.rows<{ itemId: number; value: string | number }>(
    `SELECT l.item_id AS itemId, SUM(l.value_minor) AS value FROM level l WHERE TRUE ${at.sql} GROUP BY l.item_id`,
    at.values,
  );
  return new Map(rows.map((r) => [r.itemId, Number(r.value)]));
}

export type MovementKind =
  | 'opening'
  | 'receipt'
  | 'sale'
  | 'correction'
  | 'transfer'
  | 'count'
  | 'use'
  | 'receipt_reversal'
  | 'late_charge'
  | 'cost_adjustment';
export type MovementDocument = {
  readonly kind: 'receipt' | 'opening' | 'sales_day' | 'sale' | 'count' | 'transfer' | 'correction';
  readonly id: number | null;
  readonly line: number | null;
};

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
  documentNumber: string | null;
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
            m.document_kind AS documentKind, m.document_id AS documentId,
            COALESCE(r.number, d.number, t.number) AS documentNumber,
            r.order_id AS orderId, u.name AS who,
            SUM(m.on_hand_change) OVER (PARTITION BY m.location_id ORDER BY m.posting) AS runningOnHand
       FROM movement m
       LEFT JOIN goods_receipt r ON m.document_kind = 'receipt' AND r.id = m.document_id
       LEFT JOIN stock_document d ON m.document_kind IN ('sale', 'count', 'correction') AND d.id = m.document_id
       LEFT JOIN transfer t ON m.document_kind = 'transfer' AND t.id = m.document_id
       LEFT JOIN app_user u ON u.id = m.user_id
      WHERE m.item_id = :itemId ${at.sql}
      ORDER BY m.business_date DESC, m.id DESC LIMIT ${Math.trunc(limit)}`,
    { itemId, ...at.values },
  );
}
