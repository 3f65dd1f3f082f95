import type { PolicySetting } from '@/core/policy';
import { toDecimal } from '@/core/quantity';
import { list, type SqlValue, type Tx } from '../sql';
import { readItemSettings } from './policySettings';

/** Where a setting stands: an item, everywhere (location null) or at one place. */
export type PolicyScope = { readonly itemId: number; readonly locationId: number | null };

/** In key order, so that nobody waits for somebody who waits for him. */
export const byScope = (a: PolicyScope, b: PolicyScope): number =>
  a.itemId - b.itemId || (a.locationId ?? 0) - (b.locationId ?? 0);

/** Locks the rows of these scopes and gives the settings of their items, by `scopeKey`. */
export async function lockSettings(
  tx: Tx,
  scopes: readonly PolicyScope[],
): Promise<ReadonlyMap<string, PolicySetting>> {
  for (const { itemId, locationId } of [...scopes].sort(byScope))
    await tx.row('SELECT id FROM policy WHERE item_id = :itemId AND scope = :scope FOR UPDATE', {
      itemId,
      scope: locationId ?? 0,
    });
  return readItemSettings(tx, [...new Set(scopes.map((s) => s.itemId))]);
}

const columns = [
  'item_id',
  'location_id',
  'kind',
  'min_quantity',
  'max_quantity',
  'fixed_quantity',
  'cover_days',
  'safety_quantity',
  'window_days',
  'use_stock',
  'keep_safety',
  'display_minimum',
  'reserve_quantity',
  'trigger_rule',
  'refill_rule',
  'rounding',
  'supply',
  'supply_location_id',
  'target_kind',
  'target_thousandths',
];

const decimal = (q: number | null): SqlValue => (q === null ? null : toDecimal(q));
const flag = (b: boolean | null): SqlValue => (b === null ? null : b ? 1 : 0);

/** Writes whole settings over what is there. Seasons are kept apart and not written here. */
export const upsertSettings = (tx: Tx, rows: readonly (PolicyScope & { readonly setting: PolicySetting })[]) =>
  tx.insertMany(
    `INSERT INTO policy (${columns.join(', ')})`,
    [...rows]
      .sort(byScope)
      .map(({ itemId, locationId, setting: s }) => [
        ...[itemId, locationId, s.kind, decimal(s.min), decimal(s.max), decimal(s.fixed), s.coverDays],
        ...[decimal(s.safety), s.windowDays, flag(s.useStock), flag(s.keepSafety), decimal(s.displayMin)],
        ...[decimal(s.reserve), s.trigger, s.refill, s.rounding, s.supply, s.supplyPlace, s.targetKind],
        s.targetThousandths,
      ]),
    `ON DUPLICATE KEY UPDATE ${columns.map((c) => `${c} = VALUES(${c})`).join(', ')}, version = policy.version + 1`,
  );

/** Takes a setting away: its scope follows the next wider level. */
export const deleteSetting = (tx: Tx, { itemId, locationId }: PolicyScope) =>
  tx.run('DELETE FROM policy WHERE item_id = :itemId AND scope = :scope', { itemId, scope: locationId ?? 0 });

/** How many of these items' pairs with these places have no policy: none of their own, of the item, of its category or of the
 *  company. `withDefault` are the categories that have one by themselves or from above. */
export async function countWithoutPolicy(
  tx: Tx,
  itemIds: readonly number[],
  locationIds: readonly number[],
  withDefault: ReadonlySet<number>,
): Promise<number> {
  const [at, ids] = [list('at', locationIds), itemIds];
  if (!at || ids.length === 0) return 0;
  let missing = 0;
  for (let from = 0; from < ids.length; from += 5000) {
    const part = list('id', ids.slice(from, from + 5000)) as NonNullable<ReturnType<typeof list>>;
    const rows = await tx.rows<{ categoryId: number; n: string }>(
      `SELECT x.category_id AS categoryId, SUM(:places - x.own) AS n FROM (
         SELECT i.id, i.category_id, COUNT(p.id) AS own FROM item i
           LEFT JOIN policy p ON p.item_id = i.id AND p.location_id IN (${at.sql}) AND p.kind IS NOT NULL
          WHERE i.id IN (${part.sql})
            AND NOT EXISTS (SELECT 1 FROM policy e WHERE e.item_id = i.id AND e.scope = 0 AND e.kind IS NOT NULL)
          GROUP BY i.id, i.category_id) x GROUP BY x.category_id`,
      { places: locationIds.length, ...at.values, ...part.values },
    );
    for (const r of rows) if (!withDefault.has(r.categoryId)) missing += Number(r.n);
  }
  return missing;
}
