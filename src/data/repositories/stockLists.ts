import { atLocations, type Tx } from '../sql';

/** Which stock: everything; below minimum, above maximum, below zero, anything there; idle = there and nothing sold for days. */
export type StockShow = '' | 'below' | 'above' | 'negative' | 'in_stock' | 'idle';

/** Items that at one of these places are so; null = no condition. Stored results are looked up, nothing is reckoned. */
export async function readStockItems(
  tx: Tx,
  show: StockShow,
  locationIds: readonly number[],
  idle: { readonly days: number; readonly today: string },
): Promise<ReadonlySet<number> | null> {
  if (show === '') return null;
  const state = atLocations('s.location_id', locationIds);
  const level = atLocations('l.location_id', locationIds);
  const rows =
    show === 'below' || show === 'above'
      ? await tx.rows<{ id: number }>(
          `SELECT DISTINCT s.item_id AS id FROM item_location_state s
            WHERE ${show === 'below' ? 's.below_min = 1' : 's.excess > 0'} ${state.sql}`,
          state.values,
        )
      : await tx.rows<{ id: number }>(
          `SELECT DISTINCT l.item_id AS id FROM level l
            WHERE l.on_hand ${show === 'negative' ? '< 0' : '> 0'} ${level.sql} ${
              show === 'idle'
                ? `AND NOT EXISTS (SELECT 1 FROM movement m WHERE m.item_id = l.item_id AND m.location_id = l.location_id
                     AND m.kind = 'sale' AND m.business_date > DATE_SUB(:today, INTERVAL :days DAY))
                   AND NOT EXISTS (SELECT 1 FROM daily_demand d WHERE d.item_id = l.item_id AND d.location_id = l.location_id
                     AND d.quantity > 0 AND d.day > DATE_SUB(:today, INTERVAL :days DAY))`
                : ''
            }`,
          { ...level.values, ...(show === 'idle' ? { today: idle.today, days: idle.days } : {}) },
        );
  return new Set(rows.map((r) => r.id));
}

/** What lies beyond the maximum at these places, with what all that lies there is worth. */
export function readExcess(tx: Tx, locationIds: readonly number[]) {
  const at = atLocations('s.location_id', locationIds);
  return tx.rows<{ itemId: number; excess: string; onHand: string; value: number }>(
    `SELECT s.item_id AS itemId, s.excess, l.on_hand AS onHand, l.value_minor AS value FROM item_location_state s
       JOIN level l ON l.item_id = s.item_id AND l.location_id = s.location_id WHERE s.excess > 0 ${at.sql}`,
    at.values,
  );
}
