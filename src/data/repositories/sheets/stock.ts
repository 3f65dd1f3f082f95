import { list, type Tx } from '../../sql';
import type { Pair } from '../levels';
import { reader, writeMany } from './record';

/** Opening stock as it was posted; value in minor units. */
export const readOpeningRecords = reader({
  select: `i.number AS item, l.code AS location, m.on_hand_change AS quantity, m.value_change_minor AS value, m.business_date AS day`,
  from: "movement m JOIN item i ON i.id = m.item_id AND m.kind = 'opening' JOIN location l ON l.id = m.location_id",
  id: 'm.id',
  key: ['i.number', 'l.code'],
});

/** Pairs that have had movements of stock. */
export async function readMovedPairs(tx: Tx, itemIds: readonly number[]): Promise<Pair[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<Pair>(
    `SELECT item_id AS itemId, location_id AS locationId FROM level WHERE item_id IN (${ids.sql}) AND last_posting > 0`,
    ids.values,
  );
}

export const readDemandRecords = reader({
  select: 'i.number AS item, l.code AS location, d.day, d.quantity',
  from: 'daily_demand d JOIN item i ON i.id = d.item_id JOIN location l ON l.id = d.location_id',
  id: 'd.id',
  key: ['i.number', 'l.code', 'd.day'],
});
export const writeDemand = (tx: Tx, rows: Parameters<typeof writeMany>[3]) =>
  writeMany(tx, 'daily_demand', ['item_id', 'location_id', 'day', 'quantity'], rows);
