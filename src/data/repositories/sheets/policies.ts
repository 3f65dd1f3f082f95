import type { Column } from '@/core/sheets';
import type { Tx } from '../../sql';
import { reader, type SheetRecord, writer } from './record';

const more = (
  p: string,
) => `${p}.fixed_quantity AS order_quantity, ${p}.cover_days, ${p}.safety_quantity AS safety_stock,
  ${p}.window_days, CAST(${p}.use_stock AS CHAR) AS use_stock, CAST(${p}.keep_safety AS CHAR) AS keep_safety,
  ${p}.display_minimum, ${p}.reserve_quantity AS reserve, ${p}.trigger_rule AS \`trigger\`, ${p}.refill_rule AS refill,
  ${p}.rounding, ${p}.supply, ${p}.target_kind, ${p}.target_thousandths / 10 AS target_percent`;
const moreColumns = [
  ...['fixed_quantity', 'cover_days', 'safety_quantity', 'window_days', 'use_stock', 'keep_safety', 'display_minimum'],
  ...['reserve_quantity', 'trigger_rule', 'refill_rule', 'rounding', 'supply', 'target_kind', 'target_thousandths'],
];

export const readPolicyRecords = reader({
  select: `i.number AS item, COALESCE(l.code, '') AS location, COALESCE(p.kind, 'inherit') AS policy, p.min_quantity AS min,
           p.max_quantity AS max, ${more('p')}, COALESCE(s.code, '') AS sent_from`,
  from: `policy p JOIN item i ON i.id = p.item_id LEFT JOIN location l ON l.id = p.location_id
         LEFT JOIN location s ON s.id = p.supply_location_id`,
  id: 'p.id',
  key: ['i.number', "COALESCE(l.code, '')"],
  by: { item: 'i.number' },
});
export const upsertPolicies = writer(
  'policy',
  ['item_id', 'location_id', 'kind', 'min_quantity', 'max_quantity', ...moreColumns, 'supply_location_id'],
  'version = policy.version + 1',
);

const readDefaults = reader({
  select: `p.category_id AS category, COALESCE(p.kind, 'inherit') AS policy, p.min_quantity AS min, p.max_quantity AS max, ${more('p')}`,
  from: 'policy_default p',
  id: 'p.id',
  key: 'p.id',
});
/** All of them; category is its id, null for the company. */
export const readDefaultRecords = (tx: Tx, columns: readonly Column[]): Promise<SheetRecord[]> =>
  readDefaults(tx, columns, { after: 0, limit: 10_000 }, false);
export const upsertDefaults = writer(
  'policy_default',
  ['category_id', 'kind', 'min_quantity', 'max_quantity', ...moreColumns],
  'version = policy_default.version + 1',
);

export const readSeasonRecords = reader({
  select: `i.number AS item, COALESCE(l.code, '') AS location, x.from_day, x.to_day, x.every_year, x.min_quantity AS min,
           x.max_quantity AS max`,
  from: 'policy_season x JOIN item i ON i.id = x.item_id LEFT JOIN location l ON l.id = x.location_id',
  id: 'x.id',
  key: ['i.number', "COALESCE(l.code, '')", 'x.from_day'],
  by: { item: 'i.number' },
});
export const upsertSeasons = writer('policy_season', [
  ...['item_id', 'location_id', 'from_day', 'to_day', 'every_year', 'min_quantity', 'max_quantity'],
]);
