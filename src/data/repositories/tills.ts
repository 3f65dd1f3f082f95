import type { Tx } from '../sql';

/** Notes that a day of a place was taken from its till. False when it was before. */
export async function claimTillDay(tx: Tx, locationId: number, day: string, at: string): Promise<boolean> {
  const there = await tx.row<{ day: string }>(
    'SELECT day FROM till_day WHERE location_id = :locationId AND day = :day FOR UPDATE',
    { locationId, day },
  );
  if (there) return false;
  await tx.run('INSERT INTO till_day (location_id, day, taken_at) VALUES (:locationId, :day, :at)', {
    locationId,
    day,
    at,
  });
  return true;
}

/** What is sold at tills: items with what a day of them is, by place. */
export const readAssortment = (tx: Tx) =>
  tx.rows<{ number: string; decimals: number; place: string; perDay: string }>(
    `SELECT i.number, i.sale_decimals AS decimals, l.code AS place, r.per_day AS perDay
       FROM demand_rate r JOIN item i ON i.id = r.item_id AND i.status <> 'stopped' AND i.use_recorded = 1
       JOIN location l ON l.id = r.location_id AND l.status <> 'closed' ORDER BY i.id, l.id`,
  );
export const readKitsForSale = (tx: Tx) =>
  tx.rows<{ number: string; place: string }>(
    `SELECT DISTINCT i.number, l.code AS place FROM kit_component k JOIN item i ON i.id = k.kit_id AND i.status <> 'stopped'
       JOIN location l ON l.kind = 'shop' AND l.status <> 'closed' ORDER BY i.number, l.code`,
  );
