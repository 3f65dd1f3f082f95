import { list, type Tx } from '../sql';
import type { Pair } from './levels';

export type EarlyRow = Pair & {
  readonly sourceId: number;
  readonly position: string;
  readonly level: string | null;
  readonly max: string | null;
  readonly perDay: string;
};

/** Pairs that buy from a supplier first, are refilled, are used and are not short: what could be bought now instead of later, those
 *  that come to their level first. `atPlaces`: only there. */
export async function readEarlyPairs(
  tx: Tx,
  supplierId: number,
  atPlaces: readonly number[],
  most: number,
): Promise<EarlyRow[]> {
  const at = list('place', atPlaces);
  if (!at) return [];
  return tx.rows<EarlyRow>(
    `SELECT s.item_id AS itemId, s.location_id AS locationId, s.source_id AS sourceId, s.position_quantity AS position,
            s.level_quantity AS level, s.max_quantity AS max, r.per_day AS perDay
       FROM source f JOIN item_location_state s ON s.source_id = f.id AND s.item_id = f.item_id
       JOIN demand_rate r ON r.item_id = s.item_id AND r.location_id = s.location_id
       JOIN item i ON i.id = s.item_id AND i.status = 'active'
      WHERE f.supplier_id = :supplierId AND s.location_id IN (${at.sql}) AND s.supply_location_id IS NULL
        AND s.level_quantity IS NOT NULL AND s.need_state = 'none'
      ORDER BY (s.position_quantity - s.level_quantity) / r.per_day, s.item_id, s.location_id LIMIT ${Math.trunc(most)}`,
    { supplierId, ...at.values },
  );
}

/** Needs of these pairs' ordinary demand, made where there is none yet: nothing is short. */
export async function ensureNeeds(tx: Tx, pairs: readonly Pair[], at: string): Promise<void> {
  await tx.insertMany(
    `INSERT INTO need (item_id, location_id, peg_of, peg, state, cause, shortage, suggested, source_id, supply_location_id,
       fingerprint, first_seen, changed_at)`,
    pairs.map((p) => [p.itemId, p.locationId, 'pair', 0, 'none', '', '0', '0', null, null, '0.000000||0|0', at, at]),
    'ON DUPLICATE KEY UPDATE id = id',
  );
}

/** Ids of the needs of these pairs' ordinary demand. */
export async function readNeedsOfPairs(tx: Tx, pairs: readonly Pair[]): Promise<Map<string, number>> {
  const items = list('id', [...new Set(pairs.map((p) => p.itemId))]);
  if (!items) return new Map();
  const rows = await tx.rows<Pair & { id: number }>(
    `SELECT id, item_id AS itemId, location_id AS locationId FROM need
      WHERE item_id IN (${items.sql}) AND peg_of = 'pair'`,
    items.values,
  );
  return new Map(rows.map((r) => [`${r.itemId}/${r.locationId}`, r.id]));
}
