import type { PolicySetting } from '@/core/policy';
import { fromDecimal } from '@/core/quantity';
import { list, type SqlValue, type Tx } from '../sql';

export type PolicyRow = PolicySetting & {
  readonly id: number;
  readonly itemId: number;
  readonly locationId: number | null;
};

type Raw = Omit<PolicyRow, 'min' | 'max'> & { min: string | null; max: string | null };

const columns = `id, item_id AS itemId, location_id AS locationId, kind, min_quantity AS min, max_quantity AS max,
                 trigger_rule AS \`trigger\`, refill_rule AS refill`;

const toPolicy = (r: Raw): PolicyRow => ({
  ...r,
  min: r.min === null ? null : fromDecimal(r.min),
  max: r.max === null ? null : fromDecimal(r.max),
});

export async function readPoliciesOf(tx: Tx, itemIds: readonly number[]): Promise<PolicyRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return (await tx.rows<Raw>(`SELECT ${columns} FROM policy WHERE item_id IN (${ids.sql})`, ids.values)).map(toPolicy);
}

/** The setting of one scope, locked; scope 0 is every location. */
export async function lockPolicy(tx: Tx, itemId: number, scope: number): Promise<PolicyRow | null> {
  const row = await tx.row<Raw>(`SELECT ${columns} FROM policy WHERE item_id = :itemId AND scope = :scope FOR UPDATE`, {
    itemId,
    scope,
  });
  return row ? toPolicy(row) : null;
}

type MinMaxChange = { itemId: number; locationId: SqlValue; min: SqlValue; max: SqlValue };

export const insertMinMax = (tx: Tx, p: MinMaxChange) =>
  tx.run(
    `INSERT INTO policy (item_id, location_id, kind, min_quantity, max_quantity)
     VALUES (:itemId, :locationId, 'min_max', :min, :max)`,
    p,
  );

export const updateMinMax = (tx: Tx, id: number, min: SqlValue, max: SqlValue) =>
  tx.run(
    `UPDATE policy SET kind = 'min_max', min_quantity = :min, max_quantity = :max, version = version + 1 WHERE id = :id`,
    { id, min, max },
  );

export const deletePolicy = (tx: Tx, id: number) => tx.run('DELETE FROM policy WHERE id = :id', { id });

/** How many of these items' pairs with these places have no setting, neither of their own nor for every location. */
export async function countWithoutPolicy(tx: Tx, search: string, locationIds: readonly number[]): Promise<number> {
  const at = list('at', locationIds);
  if (!at) return 0;
  const row = await tx.row<{ n: string | null }>(
    `SELECT SUM(:places - own) AS n FROM (
       SELECT i.id, COUNT(p.id) AS own FROM item i LEFT JOIN policy p ON p.item_id = i.id AND p.location_id IN (${at.sql})
        WHERE i.stock_kept = 1 AND (:search = '' OR LOCATE(:search, i.name) > 0 OR LOCATE(:search, i.number) > 0)
          AND NOT EXISTS (SELECT 1 FROM policy e WHERE e.item_id = i.id AND e.scope = 0)
        GROUP BY i.id) x`,
    { search, places: locationIds.length, ...at.values },
  );
  return Number(row?.n ?? 0);
}
