import { atLocations, insertStatements, list, type SqlValue, type Tx } from '../sql';
import { byPair, type Pair, THESE, theseOf } from './levels';

export type LotStockRow = {
  readonly lotId: number;
  readonly code: string;
  readonly itemId: number;
  readonly locationId: number;
  readonly quantity: string;
  readonly bestBefore: string | null;
  /** Of a serial number, where it is known. */
  readonly cost: number | null;
};

/** Which of these items are kept by lot or serial number. */
export const readTracked = async (tx: Tx, itemIds: readonly number[]) =>
  new Map(
    (
      await tx.rowsOf<{ id: number; tracking: 'lot' | 'serial' }>(
        "SELECT id, tracking FROM item WHERE tracking <> 'none' AND id IN (?)",
        itemIds,
      )
    ).map((r) => [r.id, r.tracking]),
  );

/** What is left of the lots of an item at a place, locked. */
export const lockLotStock = (tx: Tx, pair: Pair) => lockLotStocks(tx, [pair]);

/** What is left of the lots of items at places, the oldest of each first, locked in key order. */
export const lockLotStocks = async (tx: Tx, pairs: readonly Pair[]): Promise<LotStockRow[]> =>
  pairs.length === 0
    ? []
    : tx.rowsOf<LotStockRow>(
        `SELECT l.lot_id AS lotId, k.code, k.item_id AS itemId, l.location_id AS locationId, l.quantity, k.best_before AS bestBefore,
                k.cost_minor AS cost
           FROM ${THESE} STRAIGHT_JOIN lot k ON k.item_id = x.i
           STRAIGHT_JOIN lot_level l ON l.lot_id = k.id AND l.location_id = x.l AND l.quantity > 0
          ORDER BY l.lot_id FOR UPDATE`,
        [theseOf([...pairs].sort(byPair))],
      );

/** What the movements of a line of a document did to lots, by lot; at one place, or at all of them. */
export const readLotsOfLine = (
  tx: Tx,
  line: { kind: string; id: number; line: number },
  pair: { itemId: number; locationId: number | null },
) =>
  tx.rows<{ lotId: number; quantity: string; bestBefore: string | null }>(
    `SELECT x.lot_id AS lotId, SUM(x.quantity) AS quantity, MIN(k.best_before) AS bestBefore
       FROM movement m JOIN movement_lot x ON x.item_id = m.item_id AND x.location_id = m.location_id AND x.posting = m.posting
       JOIN lot k ON k.id = x.lot_id
      WHERE m.document_kind = :kind AND m.document_id = :id AND m.document_line = :line AND m.item_id = :itemId
        ${pair.locationId === null ? '' : 'AND m.location_id = :locationId'}
      GROUP BY x.lot_id HAVING SUM(x.quantity) <> 0 ORDER BY x.lot_id`,
    { ...line, itemId: pair.itemId, ...(pair.locationId === null ? {} : { locationId: pair.locationId }) },
  );

/** Movements of lots, each lot once in each, and what is left of them by it. */
export async function moveLotLevels(
  tx: Tx,
  rows: readonly (Pair & { readonly posting: number; readonly lotId: number; readonly quantity: string })[],
): Promise<void> {
  const moved = rows.map((r) => [r.itemId, r.locationId, r.posting, r.lotId, r.quantity]);
  await tx.later([
    ...insertStatements('INSERT INTO movement_lot (item_id, location_id, posting, lot_id, quantity)', moved),
    ...rows.map((r) => ({
      sql: `INSERT INTO lot_level (lot_id, location_id, quantity) VALUES (?, ?, GREATEST(?, 0))
              ON DUPLICATE KEY UPDATE quantity = quantity + ?`,
      values: [r.lotId, r.locationId, r.quantity, r.quantity],
    })),
  ]);
}

/** Lots of an item by their codes, made where they are new; a best-before date is kept from the first time it was said. */
export async function ensureLots(
  tx: Tx,
  itemId: number,
  lots: readonly { readonly code: string; readonly bestBefore: string | null }[],
  at: string,
): Promise<Map<string, number>> {
  await tx.insertMany(
    'INSERT INTO lot (item_id, code, best_before, made_at)',
    lots.map((l) => [itemId, l.code, l.bestBefore, at] as SqlValue[]),
    'ON DUPLICATE KEY UPDATE best_before = COALESCE(best_before, VALUES(best_before))',
  );
  const codes = list(
    'code',
    lots.map((l) => l.code),
  );
  if (!codes) return new Map();
  const rows = await tx.rows<{ id: number; code: string }>(
    `SELECT id, code FROM lot WHERE item_id = :itemId AND code IN (${codes.sql})`,
    { itemId, ...codes.values },
  );
  return new Map(rows.map((r) => [r.code, r.id]));
}

/** What serial numbers cost when they came. */
export async function setLotCosts(
  tx: Tx,
  costs: readonly { readonly lotId: number; readonly cost: number }[],
): Promise<void> {
  await tx.tell(costs.map((c) => ({ sql: 'UPDATE lot SET cost_minor = ? WHERE id = ?', values: [c.cost, c.lotId] })));
}

/** Which of these serial numbers of an item lie somewhere already. */
export async function serialsThere(tx: Tx, itemId: number, codes: readonly string[]): Promise<string[]> {
  const some = list('code', codes);
  if (!some) return [];
  return (
    await tx.rows<{ code: string }>(
      `SELECT DISTINCT k.code FROM lot k JOIN lot_level l ON l.lot_id = k.id AND l.quantity > 0
        WHERE k.item_id = :itemId AND k.code IN (${some.sql})`,
      { itemId, ...some.values },
    )
  ).map((r) => r.code);
}

export type LotLine = {
  readonly lotId: number;
  readonly code: string;
  readonly bestBefore: string | null;
  readonly cost: number | null;
  readonly madeAt: string;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly unit: string;
  readonly tracking: 'lot' | 'serial' | 'none';
  readonly locationId: number | null;
  readonly location: string | null;
  readonly quantity: string;
};

/** Lots and serial numbers with what is left where; those with nothing left only when they are named. */
export function findLots(
  tx: Tx,
  f: {
    readonly search: string;
    readonly itemId: number | null;
    readonly locationIds: readonly number[] | null;
    /** This very one, also with nothing left. */
    readonly lotId?: number;
  },
  limit: number,
): Promise<LotLine[]> {
  const at = atLocations('l.location_id', f.locationIds);
  const words = f.search.trim();
  return tx.rows<LotLine>(
    `SELECT k.id AS lotId, k.code, k.best_before AS bestBefore, k.cost_minor AS cost, k.made_at AS madeAt, i.id AS itemId, i.number AS itemNumber,
            i.name AS itemName, i.unit_name AS unit, i.tracking, l.location_id AS locationId, p.name AS location,
            COALESCE(l.quantity, 0) AS quantity
       FROM lot k JOIN item i ON i.id = k.item_id
       LEFT JOIN lot_level l ON l.lot_id = k.id AND l.quantity > 0 ${at.sql}
       LEFT JOIN location p ON p.id = l.location_id
      WHERE ${f.itemId === null ? 'TRUE' : 'k.item_id = :itemId'}
        AND ${f.lotId !== undefined ? 'k.id = :lotId' : words === '' ? 'l.quantity > 0' : '(LOCATE(:words, k.code) > 0 OR i.number = :words OR LOCATE(:words, i.name) > 0)'}
      ORDER BY k.best_before IS NULL, k.best_before, i.name, k.id, p.sort_order LIMIT ${Math.trunc(limit)}`,
    {
      ...at.values,
      ...(f.itemId === null ? {} : { itemId: f.itemId }),
      ...(f.lotId !== undefined ? { lotId: f.lotId } : words === '' ? {} : { words }),
    },
  );
}

export type LotMove = {
  readonly businessDate: string;
  readonly kind: string;
  readonly location: string;
  readonly quantity: string;
  readonly documentNumber: string | null;
  readonly who: string | null;
};
/** Everything that happened to a lot at these places, newest first. */
export function readLotMoves(tx: Tx, lotId: number, locationIds: readonly number[] | null): Promise<LotMove[]> {
  const at = atLocations('m.location_id', locationIds);
  return tx.rows<LotMove>(
    `SELECT m.business_date AS businessDate, m.kind, p.name AS location, x.quantity,
            COALESCE(r.number, d.number, t.number) AS documentNumber, u.name AS who
       FROM movement_lot x JOIN movement m ON m.item_id = x.item_id AND m.location_id = x.location_id AND m.posting = x.posting
       JOIN location p ON p.id = m.location_id
       LEFT JOIN goods_receipt r ON m.document_kind = 'receipt' AND r.id = m.document_id
       LEFT JOIN stock_document d ON m.document_kind IN ('sale', 'count', 'correction') AND d.id = m.document_id
       LEFT JOIN transfer t ON m.document_kind = 'transfer' AND t.id = m.document_id
       LEFT JOIN app_user u ON u.id = m.user_id
      WHERE x.lot_id = :lotId ${at.sql} ORDER BY m.id DESC LIMIT 500`,
    { lotId, ...at.values },
  );
}
