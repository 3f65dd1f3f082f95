import { list, type Tx } from '../sql';
import type { Pair } from './levels';

export type DayOfMovements = Pair & { readonly date: string; readonly change: string; readonly sold: string };

/** What changed and what was sold on each day after one, for all pairs of these items. */
export async function readDays(tx: Tx, itemIds: readonly number[], after: string): Promise<DayOfMovements[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<DayOfMovements>(
    `SELECT item_id AS itemId, location_id AS locationId, business_date AS date, SUM(on_hand_change) AS \`change\`,
            SUM(IF(kind = 'sale', -on_hand_change, 0)) AS sold
       FROM movement WHERE item_id IN (${ids.sql}) AND business_date > :after
      GROUP BY item_id, location_id, business_date`,
    { ...ids.values, after },
  );
}

export type RateRow = Pair & { readonly perDay: string };

export async function readRates(tx: Tx, itemIds: readonly number[]): Promise<RateRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<RateRow>(
    `SELECT item_id AS itemId, location_id AS locationId, per_day AS perDay FROM demand_rate WHERE item_id IN (${ids.sql})`,
    ids.values,
  );
}

export const upsertRates = (tx: Tx, rows: readonly RateRow[], measuredOn: string) =>
  tx.insertMany(
    'INSERT INTO demand_rate (item_id, location_id, per_day, measured_on)',
    rows.map((r) => [r.itemId, r.locationId, r.perDay, measuredOn]),
    'ON DUPLICATE KEY UPDATE per_day = VALUES(per_day), measured_on = VALUES(measured_on)',
  );

export const deleteRate = (tx: Tx, { itemId, locationId }: Pair) =>
  tx.run('DELETE FROM demand_rate WHERE item_id = :itemId AND location_id = :locationId', { itemId, locationId });
