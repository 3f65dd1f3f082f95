import type { Tx } from '../sql';

/** Places with the one that usually supplies each; null = bought from suppliers. */
export const readSupplyChain = (tx: Tx) =>
  tx.rows<{ locationId: number; name: string; suppliedBy: number | null }>(
    `SELECT id AS locationId, name, supplied_by_id AS suppliedBy FROM location WHERE kind <> 'transit' ORDER BY sort_order, id`,
  );
