import type { CountState } from '@/core/stock';
import { atLocations, list, type SqlValue, type Tx } from '../sql';
import type { Pair } from './levels';

export type CountScope = 'all' | 'category' | 'shelf' | 'marked';

export type CountPlanRow = {
  readonly id: number;
  readonly name: string;
  readonly locationId: number;
  readonly what: CountScope;
  readonly category: string;
  readonly shelf: string;
  readonly everyDays: number;
  readonly blind: number;
  readonly nextOn: string;
  readonly version: number;
};
const planColumns = `id, name, location_id AS locationId, what, category, shelf, every_days AS everyDays, blind, next_on AS nextOn,
  version`;

/** What is counted again and again at these places, what is due first. */
export const readCountPlans = (tx: Tx, locationIds: readonly number[] | null) => {
  const at = atLocations('location_id', locationIds);
  return tx.rows<CountPlanRow>(
    `SELECT ${planColumns} FROM count_plan WHERE TRUE ${at.sql} ORDER BY next_on, name`,
    at.values,
  );
};
export const lockCountPlan = (tx: Tx, id: number) =>
  tx.row<CountPlanRow>(`SELECT ${planColumns} FROM count_plan WHERE id = :id FOR UPDATE`, { id });
export const readPlanItems = async (tx: Tx, planId: number) =>
  (await tx.rows<{ id: number }>('SELECT item_id AS id FROM count_plan_item WHERE plan_id = :planId', { planId })).map(
    (r) => r.id,
  );

export async function insertCountPlan(
  tx: Tx,
  p: Omit<CountPlanRow, 'id' | 'version' | 'blind'> & { readonly blind: boolean },
  itemIds: readonly number[],
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO count_plan (name, location_id, what, category, shelf, every_days, blind, next_on)
     VALUES (:name, :locationId, :what, :category, :shelf, :everyDays, :blind, :nextOn)`,
    { ...p, blind: p.blind ? 1 : 0 },
  );
  await tx.insertMany(
    'INSERT INTO count_plan_item (plan_id, item_id)',
    itemIds.map((itemId) => [id, itemId]),
  );
  return id;
}
export const findPlanNamed = (tx: Tx, locationId: number, name: string) =>
  tx.row<{ id: number }>('SELECT id FROM count_plan WHERE location_id = :locationId AND name = :name', {
    locationId,
    name,
  });
export const setNextCount = (tx: Tx, id: number, nextOn: string) =>
  tx.run('UPDATE count_plan SET next_on = :nextOn, version = version + 1 WHERE id = :id', { id, nextOn });
export const deleteCountPlan = (tx: Tx, id: number) => tx.run('DELETE FROM count_plan WHERE id = :id', { id });

export type CountRow = {
  readonly id: number;
  readonly number: string;
  readonly name: string;
  readonly locationId: number;
  readonly planId: number | null;
  readonly state: CountState;
  readonly blind: number;
  readonly businessDate: string;
  readonly version: number;
};
const countColumns = `id, number, name, location_id AS locationId, plan_id AS planId, state, blind, business_date AS businessDate,
  version`;

export async function insertCount(
  tx: Tx,
  c: {
    number: string;
    name: string;
    locationId: number;
    planId: SqlValue;
    blind: boolean;
    userId: number;
    at: string;
    businessDate: string;
  },
  itemIds: readonly number[],
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO stock_count (number, name, location_id, plan_id, blind, begun_by, begun_at, business_date)
     VALUES (:number, :name, :locationId, :planId, :blind, :userId, :at, :businessDate)`,
    { ...c, blind: c.blind ? 1 : 0 },
  );
  await appendCountLines(tx, id, itemIds);
  return id;
}

/** Items that are counted as well, numbered on. */
export async function appendCountLines(tx: Tx, countId: number, itemIds: readonly number[]): Promise<void> {
  const last = await tx.row<{ n: number }>(
    'SELECT COALESCE(MAX(line_no), 0) AS n FROM stock_count_line WHERE count_id = :countId',
    { countId },
  );
  const first = Number(last?.n ?? 0) + 1;
  await tx.insertMany(
    'INSERT INTO stock_count_line (count_id, line_no, item_id)',
    itemIds.map((itemId, i) => [countId, first + i, itemId]),
  );
}

export const lockCount = (tx: Tx, id: number) =>
  tx.row<CountRow>(`SELECT ${countColumns} FROM stock_count WHERE id = :id FOR UPDATE`, { id });

export type CountHead = CountRow & {
  readonly begunBy: string;
  readonly begunAt: string;
  readonly endedBy: string | null;
  readonly endedAt: string | null;
  readonly documentId: number | null;
  readonly lines: number;
  readonly counted: number;
};
const headSql = `SELECT c.id, c.number, c.name, c.location_id AS locationId, c.plan_id AS planId, c.state, c.blind,
    c.business_date AS businessDate, c.version, b.name AS begunBy, c.begun_at AS begunAt, e.name AS endedBy, c.ended_at AS endedAt,
    c.document_id AS documentId,
    (SELECT COUNT(*) FROM stock_count_line l WHERE l.count_id = c.id) AS \`lines\`,
    (SELECT COUNT(l.counted) FROM stock_count_line l WHERE l.count_id = c.id) AS counted
  FROM stock_count c JOIN app_user b ON b.id = c.begun_by LEFT JOIN app_user e ON e.id = c.ended_by`;

/** Counts under way, or those that ended, newest first. */
export const readCountHeads = (tx: Tx, which: 'open' | 'ended', locationIds: readonly number[] | null, limit = 300) => {
  const at = atLocations('c.location_id', locationIds);
  return tx.rows<CountHead>(
    `${headSql} WHERE c.state ${which === 'open' ? "= 'open'" : "<> 'open'"} ${at.sql}
      ORDER BY c.id DESC LIMIT ${Math.trunc(limit)}`,
    at.values,
  );
};
export const findCount = (tx: Tx, id: number) => tx.row<CountHead>(`${headSql} WHERE c.id = :id`, { id });

export type CountLineRow = {
  readonly lineNo: number;
  readonly itemId: number;
  readonly counted: string | null;
  readonly countedExpected: string | null;
  readonly countedBy: string | null;
  readonly again: string | null;
  readonly againExpected: string | null;
  readonly againBy: string | null;
  readonly reasonId: number | null;
  readonly note: string;
};
export const readCountLines = (tx: Tx, countId: number) =>
  tx.rows<CountLineRow>(
    `SELECT l.line_no AS lineNo, l.item_id AS itemId, l.counted, l.counted_expected AS countedExpected, a.name AS countedBy,
            l.again, l.again_expected AS againExpected, b.name AS againBy, l.reason_id AS reasonId, l.note
       FROM stock_count_line l LEFT JOIN app_user a ON a.id = l.counted_by LEFT JOIN app_user b ON b.id = l.again_by
      WHERE l.count_id = :countId ORDER BY l.line_no`,
    { countId },
  );

export type CountFigure = { readonly found: string; readonly expected: string } | null;

/** What was counted of a line, first or again; null takes the figure back. Another first figure is another count: what was
 *  counted again belongs to the one before and goes. */
export const setCountFigure = (
  tx: Tx,
  l: { countId: number; lineNo: number; round: 'first' | 'again'; figure: CountFigure; userId: number; at: string },
) => {
  const c = l.round === 'first' ? 'counted' : 'again';
  return tx.run(
    `UPDATE stock_count_line SET ${c} = :found, ${c}_expected = :expected, ${c}_by = :userId, ${c}_at = :at
            ${l.round === 'first' ? ', again = NULL, again_expected = NULL, again_by = NULL, again_at = NULL' : ''}
      WHERE count_id = :countId AND line_no = :lineNo`,
    {
      ...{ countId: l.countId, lineNo: l.lineNo, found: l.figure?.found ?? null, expected: l.figure?.expected ?? null },
      ...{ userId: l.figure ? l.userId : null, at: l.figure ? l.at : null },
    },
  );
};

export const setCountReason = (tx: Tx, countId: number, lineNo: number, reasonId: SqlValue, note: string) =>
  tx.run(
    'UPDATE stock_count_line SET reason_id = :reasonId, note = :note WHERE count_id = :countId AND line_no = :lineNo',
    { countId, lineNo, reasonId, note },
  );

export const endCount = (
  tx: Tx,
  c: { id: number; state: 'posted' | 'dropped'; userId: number; at: string; documentId: SqlValue },
) =>
  tx.run(
    `UPDATE stock_count SET state = :state, ended_by = :userId, ended_at = :at, document_id = :documentId,
            version = version + 1 WHERE id = :id`,
    c,
  );

/** Of these items, what lies at a place or ever did: active there, or with stock. */
export async function itemsEverAt(tx: Tx, locationId: number, itemIds: readonly number[] | null): Promise<Set<number>> {
  const ids = itemIds === null ? null : list('id', itemIds);
  if (itemIds !== null && !ids) return new Set();
  const rows = await tx.rows<{ id: number }>(
    `SELECT l.item_id AS id FROM level l JOIN item i ON i.id = l.item_id AND i.stock_kept = 1
      WHERE l.location_id = :locationId AND (l.on_hand <> 0 OR i.status <> 'stopped') ${ids ? `AND l.item_id IN (${ids.sql})` : ''}`,
    { locationId, ...(ids?.values ?? {}) },
  );
  return new Set(rows.map((r) => r.id));
}

/** Items that lie on a shelf of a place, or on one whose name begins so. */
export const itemsOnShelf = async (tx: Tx, locationId: number, shelf: string) =>
  (
    await tx.rows<{ id: number }>(
      `SELECT item_id AS id FROM item_place WHERE location_id = :locationId AND shelf <> ''
          AND LEFT(shelf, CHAR_LENGTH(:shelf)) = :shelf`,
      { locationId, shelf },
    )
  ).map((r) => r.id);

export const readShelvesAt = (tx: Tx, locationIds: readonly number[] | null) => {
  const at = atLocations('location_id', locationIds);
  return tx.rows<{ locationId: number; shelf: string; items: number }>(
    `SELECT location_id AS locationId, shelf, COUNT(*) AS items FROM item_place WHERE shelf <> '' ${at.sql}
      GROUP BY location_id, shelf ORDER BY location_id, shelf`,
    at.values,
  );
};

/** What has moved of these items at a place after a moment. */
export async function readMovedSince(
  tx: Tx,
  locationId: number,
  itemIds: readonly number[],
  at: string,
): Promise<Map<number, string>> {
  const ids = list('id', itemIds);
  if (!ids) return new Map();
  const rows = await tx.rows<{ itemId: number; moved: string }>(
    `SELECT item_id AS itemId, SUM(on_hand_change) AS moved FROM movement
      WHERE location_id = :locationId AND posted_at > :at AND item_id IN (${ids.sql}) GROUP BY item_id`,
    { locationId, at, ...ids.values },
  );
  return new Map(rows.map((r) => [r.itemId, r.moved]));
}

export type CountDay = Pair & { readonly date: string; readonly used: string; readonly saleDecimals: number };

/** Days on which items were counted whose use nobody records, and what was missing then. */
export async function readCountDays(tx: Tx, itemIds: readonly number[]): Promise<CountDay[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<CountDay>(
    `SELECT l.item_id AS itemId, d.location_id AS locationId, d.business_date AS date, l.expected - l.quantity AS used,
            i.sale_decimals AS saleDecimals
       FROM stock_document_line l JOIN stock_document d ON d.id = l.document_id AND d.kind = 'count'
       JOIN item i ON i.id = l.item_id AND i.use_recorded = 0
      WHERE l.item_id IN (${ids.sql}) ORDER BY d.id`,
    ids.values,
  );
}

export type RecountRow = { readonly share: number; readonly minor: number };
export const readRecountLimits = async (tx: Tx, lock = false): Promise<RecountRow> =>
  (await tx.row<RecountRow>(
    `SELECT recount_share AS share, recount_minor AS minor FROM company WHERE id = 1${lock ? ' FOR UPDATE' : ''}`,
  )) ?? { share: 0, minor: 0 };
export const updateRecountLimits = (tx: Tx, l: RecountRow) =>
  tx.run('UPDATE company SET recount_share = :share, recount_minor = :minor WHERE id = 1', l);

export type CountGroup = 'item' | 'place' | 'reason' | 'month';
export type DifferenceRow = {
  readonly id: number | null;
  readonly name: string | null;
  readonly number: string | null;
  readonly unit: string | null;
  /** Lines counted, and those that differed. */
  readonly counted: number;
  readonly differing: number;
  /** Base units; only of one item they can be added. */
  readonly more: string;
  readonly less: string;
  /** Minor units. */
  readonly moreValue: number;
  readonly lessValue: number;
  /** Of which use that nobody recorded: quantity and value. */
  readonly used: string;
  readonly usedValue: number;
};
const groups: Readonly<Record<CountGroup, { key: string; name: string; number: string; unit: string }>> = {
  item: { key: 'l.item_id', name: 'MIN(i.name)', number: 'MIN(i.number)', unit: 'MIN(i.unit_name)' },
  place: { key: 'd.location_id', name: 'MIN(p.name)', number: 'NULL', unit: 'NULL' },
  reason: { key: 'l.reason_id', name: 'MIN(q.name)', number: 'NULL', unit: 'NULL' },
  month: {
    key: "DATE_FORMAT(d.business_date, '%Y-%m')",
    name: "DATE_FORMAT(d.business_date, '%Y-%m')",
    number: 'NULL',
    unit: 'NULL',
  },
};

/** What counts found over a span of days, by item (those that differed), place, reason or month; the largest value first, the
 *  latest month first. */
export function readDifferences(
  tx: Tx,
  by: CountGroup,
  span: { readonly from: string; readonly to: string },
  locationIds: readonly number[] | null,
): Promise<DifferenceRow[]> {
  const at = atLocations('d.location_id', locationIds);
  const g = groups[by];
  const sum = (what: string, when: string) => `COALESCE(SUM(IF(${when}, ${what}, 0)), 0)`;
  const money = (when: string) => `CAST(${sum('m.value_change_minor + m.variance_minor', when)} AS SIGNED)`;
  return tx.rows<DifferenceRow>(
    `SELECT ${by === 'month' ? 'NULL' : g.key} AS id, ${g.name} AS name, ${g.number} AS number, ${g.unit} AS unit,
            COUNT(*) AS counted, COUNT(m.id) AS differing,
            ${sum('m.on_hand_change', "m.kind = 'count' AND m.on_hand_change > 0")} AS more,
            ${sum('-m.on_hand_change', "m.kind = 'count' AND m.on_hand_change < 0")} AS less,
            ${money("m.kind = 'count' AND m.on_hand_change > 0")} AS moreValue,
            -${money("m.kind = 'count' AND m.on_hand_change < 0")} AS lessValue,
            ${sum('-m.on_hand_change', "m.kind = 'use'")} AS used, -${money("m.kind = 'use'")} AS usedValue
       FROM stock_document d JOIN stock_document_line l ON l.document_id = d.id JOIN item i ON i.id = l.item_id
       JOIN location p ON p.id = d.location_id LEFT JOIN stock_reason q ON q.id = l.reason_id
       LEFT JOIN movement m ON m.item_id = l.item_id AND m.location_id = d.location_id AND m.document_kind = 'count'
            AND m.document_id = d.id AND m.document_line = l.line_no
      WHERE d.kind = 'count' ${span.from ? 'AND d.business_date >= :from' : ''} ${span.to ? 'AND d.business_date <= :to' : ''} ${at.sql}
      GROUP BY ${g.key} ${by === 'item' ? 'HAVING COUNT(m.id) > 0' : ''}
      ORDER BY ${by === 'month' ? 'name DESC' : 'COALESCE(SUM(ABS(m.value_change_minor + m.variance_minor)), 0) DESC, name'} LIMIT 2000`,
    { ...at.values, ...(span.from ? { from: span.from } : {}), ...(span.to ? { to: span.to } : {}) },
  );
}
