import type { Column } from '@/core/sheets';
import { list, type SqlValue, type Tx } from '../../sql';
import { readRecords, type Wanted, writeMany } from './record';

const sql = {
  select: `i.number, i.name, i.category_id AS category, i.base_unit AS unit, i.unit_name, i.sale_decimals, i.status, i.maker,
           i.maker_number, i.tracking, i.purpose, i.tax_category, i.weight_kg, i.volume_l, i.hs_code, i.origin, i.un_number,
           i.hazard_class, i.packing_group, i.hazard_name, i.stock_kept, i.inspect, i.use_recorded, i.availability, i.standard_cost, i.sale_price,
           i.sale_with_tax, i.sale_tax_rate, i.edition, COALESCE(s.number, '') AS successor, i.buyer_note, i.account,
           i.department, COALESCE(u.login, '') AS buyer, i.straight, COALESCE(p.code, '') AS straight_supplier, i.promise_rule`,
  from: `item i LEFT JOIN item s ON s.id = i.successor_id LEFT JOIN app_user u ON u.id = i.buyer_id
         LEFT JOIN supplier p ON p.id = i.straight_supplier_id`,
  id: 'i.id',
  key: 'i.number',
};

/** Items as the template has them; category is still its id. */
export const readItemRecords = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  readRecords(tx, columns, sql, wanted, lock);

/** Columns in the order that rows are given in. */
export const itemColumns = [
  ...['number', 'name', 'category_id', 'base_unit', 'unit_name', 'sale_decimals', 'status', 'maker', 'maker_number'],
  ...['tracking', 'purpose', 'tax_category', 'weight_kg', 'volume_l', 'hs_code', 'origin', 'un_number', 'hazard_class'],
  ...['packing_group', 'hazard_name', 'stock_kept', 'availability', 'standard_cost', 'sale_price', 'sale_with_tax'],
  ...[
    'sale_tax_rate',
    'edition',
    'buyer_note',
    'account',
    'department',
    'buyer_id',
    'straight',
    'straight_supplier_id',
    'use_recorded',
    'inspect',
    'promise_rule',
  ],
] as const;

export const writeItems = (tx: Tx, rows: Parameters<typeof writeMany>[3], defaults: readonly SqlValue[]) =>
  writeMany(tx, 'item', itemColumns, rows, 'version = item.version + 1', defaults);

export const linkSuccessor = (tx: Tx, number: string, successor: string) =>
  tx.run('UPDATE item i LEFT JOIN item s ON s.number = :successor SET i.successor_id = s.id WHERE i.number = :number', {
    number,
    successor,
  });

export const readSuccessions = (tx: Tx) =>
  tx.rows<{ number: string; next: string }>(
    'SELECT i.number, s.number AS next FROM item i JOIN item s ON s.id = i.successor_id',
  );

/** Of which of these items there is stock anywhere, below zero too, promised or in transit. */
export async function itemsWithStock(tx: Tx, itemIds: readonly number[]): Promise<Set<number>> {
  const ids = list('id', itemIds);
  if (!ids) return new Set();
  const rows = await tx.rows<{ id: number }>(
    `SELECT DISTINCT item_id AS id FROM level WHERE item_id IN (${ids.sql})
        AND (on_hand <> 0 OR inspection <> 0 OR blocked <> 0 OR allocated <> 0 OR value_minor <> 0)`,
    ids.values,
  );
  return new Set(rows.map((r) => r.id));
}

/** Which of these items have been worked with in their unit: stock was moved, a pack, a policy, a line of an
 *  order or of a customer's is there. */
export async function itemsWithUnitInUse(tx: Tx, itemIds: readonly number[]): Promise<Set<number>> {
  const ids = list('id', itemIds);
  if (!ids) return new Set();
  const rows = await tx.rows<{ id: number }>(
    `SELECT i.id FROM item i WHERE i.id IN (${ids.sql})
        AND (EXISTS (SELECT 1 FROM movement m WHERE m.item_id = i.id) OR EXISTS (SELECT 1 FROM pack p WHERE p.item_id = i.id)
             OR EXISTS (SELECT 1 FROM policy p WHERE p.item_id = i.id) OR EXISTS (SELECT 1 FROM order_line o WHERE o.item_id = i.id)
             OR EXISTS (SELECT 1 FROM customer_demand d WHERE d.item_id = i.id))`,
    ids.values,
  );
  return new Set(rows.map((r) => r.id));
}
