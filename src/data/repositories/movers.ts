import { atLocations, list, type Tx } from '../sql';
import type { Pair } from './levels';

export type MoverRow = Pair & {
  readonly onHand: string;
  readonly value: number;
  readonly lastCostQuantity: string | null;
  readonly lastCost: number | null;
  readonly sold: string;
};

/** What was sold of each pair that stock is kept of since a day, and what lies there. */
export function readMoverRows(tx: Tx, since: string, locationIds: readonly number[] | null): Promise<MoverRow[]> {
  const level = atLocations('l.location_id', locationIds);
  const moved = atLocations('m.location_id', locationIds).sql;
  const brought = atLocations('d.location_id', locationIds).sql;
  return tx.rows<MoverRow>(
    `SELECT l.item_id AS itemId, l.location_id AS locationId, l.on_hand AS onHand, l.value_minor AS value,
            l.last_cost_quantity AS lastCostQuantity, l.last_cost_minor AS lastCost,
            COALESCE(s.sold, 0) AS sold
       FROM level l JOIN location p ON p.id = l.location_id AND p.kind <> 'transit'
       LEFT JOIN (
         SELECT item_id, location_id, SUM(sold) AS sold FROM (
           SELECT m.item_id, m.location_id, -m.on_hand_change AS sold FROM movement m
            WHERE m.kind IN ('sale', 'use') AND m.business_date >= :since ${moved}
           UNION ALL
           SELECT d.item_id, d.location_id, d.quantity FROM daily_demand d WHERE d.day >= :since ${brought}
         ) x GROUP BY item_id, location_id
       ) s ON s.item_id = l.item_id AND s.location_id = l.location_id
      WHERE (l.on_hand <> 0 OR s.sold > 0) ${level.sql}`,
    { since, ...level.values },
  );
}

/** The last day on which something was sold of these items, by place; here, or in history that was brought. */
export async function readLastSold(tx: Tx, itemIds: readonly number[]): Promise<(Pair & { readonly day: string })[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  return tx.rows<Pair & { day: string }>(
    `SELECT item_id AS itemId, location_id AS locationId, MAX(day) AS day FROM (
       SELECT item_id, location_id, business_date AS day FROM movement
        WHERE kind IN ('sale', 'use') AND on_hand_change < 0 AND item_id IN (${ids.sql})
       UNION ALL
       SELECT item_id, location_id, day FROM daily_demand WHERE quantity > 0 AND item_id IN (${ids.sql})
     ) x GROUP BY item_id, location_id`,
    ids.values,
  );
}
