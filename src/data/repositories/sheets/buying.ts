import type { Column } from '@/core/sheets';
import type { Tx } from '../../sql';
import { reader, type SheetRecord, writer } from './record';

export const readSourceRecords = reader({
  select: `i.number AS item, p.code AS supplier, x.preference AS \`rank\`, x.supplier_item_number, x.supplier_item_name,
               COALESCE(k.name, '') AS pack, x.minimum_quantity, x.multiple_packs, x.rounding, x.lead_time_days,
               x.share_percent, x.break_scope`,
  from: 'source x JOIN item i ON i.id = x.item_id JOIN supplier p ON p.id = x.supplier_id LEFT JOIN pack k ON k.id = x.pack_id',
  id: 'x.id',
  key: ['i.number', 'p.code'],
  by: { item: 'i.number', supplier: 'p.code' },
});
export const upsertSources = writer(
  'source',
  [
    ...['item_id', 'supplier_id', 'preference', 'supplier_item_number', 'supplier_item_name', 'pack_id'],
    ...['minimum_quantity', 'multiple_packs', 'rounding', 'lead_time_days', 'share_percent', 'break_scope'],
  ],
  'version = source.version + 1',
);

export const readPriceRecords = reader({
  select: `i.number AS item, p.code AS supplier, r.from_packs, r.valid_from, r.valid_to, r.amount, r.per_quantity,
               COALESCE(k.name, '') AS pack, r.discount_percent, r.reason`,
  from: `price r JOIN source x ON x.id = r.source_id JOIN item i ON i.id = x.item_id JOIN supplier p ON p.id = x.supplier_id
             LEFT JOIN pack k ON k.id = r.pack_id`,
  id: 'r.id',
  key: ['i.number', 'p.code', 'r.from_packs', 'r.valid_from'],
  by: { item: 'i.number', supplier: 'p.code' },
});
export const upsertPrices = writer('price', [
  ...['source_id', 'from_packs', 'valid_from', 'valid_to', 'amount', 'per_quantity', 'pack_id'],
  ...['discount_percent', 'reason', 'set_by', 'set_at'],
]);

export const readRateRecords = reader({
  select: 'r.currency, r.valid_from, r.direction, r.rate, r.source',
  from: 'currency_rate r',
  id: 'r.id',
  key: ['r.currency', 'r.valid_from'],
  by: { currency: 'r.currency' },
});
export const upsertCurrencyRates = writer('currency_rate', ['currency', 'valid_from', 'direction', 'rate', 'source']);

export const readDeliveryRecords = reader({
  select: `p.code AS supplier, d.order_number, i.number AS item, d.ordered_on, d.promised_on, d.received_on,
               d.ordered_quantity, d.received_quantity`,
  from: 'past_delivery d JOIN supplier p ON p.id = d.supplier_id JOIN item i ON i.id = d.item_id',
  id: 'd.id',
  key: ['p.code', 'd.order_number', 'i.number', 'd.received_on'],
});
/** Shares of an item's sources in percent, by item id; those of one place where it has its own. */
export const sumShares = (tx: Tx, itemIds: readonly number[]) =>
  tx.rowsOf<{ itemId: number; share: string }>(
    'SELECT item_id AS itemId, SUM(share_percent) AS share FROM source WHERE item_id IN (?) GROUP BY item_id',
    itemIds,
  );

export const upsertDeliveries = writer('past_delivery', [
  ...['supplier_id', 'order_number', 'item_id', 'ordered_on', 'promised_on', 'received_on'],
  ...['ordered_quantity', 'received_quantity'],
]);

const readBudgetsOf = reader({
  select: 'b.month, b.category_id AS category, b.amount',
  from: 'purchase_budget b',
  id: 'b.id',
  key: ['b.month', 'b.of_category'],
});
export const readBudgetRecords = (tx: Tx, columns: readonly Column[]): Promise<SheetRecord[]> =>
  readBudgetsOf(tx, columns, { after: 0, limit: 10_000 }, false);
export const upsertBudgets = writer('purchase_budget', ['month', 'category_id', 'amount']);
