import { list, type Tx } from '../sql';
import { byPair, type Pair } from './levels';

export type AllocationRow = Pair & {
  readonly id: number;
  readonly quantity: string;
  readonly taken: string;
  readonly promisedTo: string;
  readonly state: 'held' | 'taken' | 'released';
};

const columns = `id, item_id AS itemId, location_id AS locationId, quantity, taken, promised_to AS promisedTo, state`;

/** What an allocation, joined as `a`, still holds; 0 without one. */
export const HELD = "IF(a.state = 'held', a.quantity - a.taken, 0)";

/** Adds to what is allocated of a level if that much is free beyond what is kept back; false when it is not. */
export async function allocateIfFree(tx: Tx, pair: Pair, quantity: string, keep: string): Promise<boolean> {
  const { itemId, locationId } = pair;
  const done = await tx.run(
    `UPDATE level SET allocated = allocated + :quantity
      WHERE item_id = :itemId AND location_id = :locationId
        AND on_hand - blocked - inspection - allocated >= :quantity + :keep`,
    { itemId, locationId, quantity, keep },
  );
  return done.affected === 1;
}

export const reduceAllocated = (tx: Tx, { itemId, locationId }: Pair, quantity: string) =>
  tx.run('UPDATE level SET allocated = allocated - :quantity WHERE item_id = :itemId AND location_id = :locationId', {
    itemId,
    locationId,
    quantity,
  });

export const insertAllocation = async (
  tx: Tx,
  a: Pair & { quantity: string; promisedTo: string; userId: number; at: string },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO allocation (item_id, location_id, quantity, promised_to, created_by, created_at)
       VALUES (:itemId, :locationId, :quantity, :promisedTo, :userId, :at)`,
      a,
    )
  ).id;

export const updateAllocation = (tx: Tx, a: { id: number; taken: string; state: AllocationRow['state'] }) =>
  tx.run('UPDATE allocation SET taken = :taken, state = :state WHERE id = :id', a);

export const findAllocation = (tx: Tx, id: number) =>
  tx.row<AllocationRow>(`SELECT ${columns} FROM allocation WHERE id = :id`, { id });

/** These allocations, locked; their levels are locked before. */
export async function lockAllocations(tx: Tx, allocationIds: readonly number[]): Promise<AllocationRow[]> {
  const ids = list('id', [...new Set(allocationIds)]);
  if (!ids) return [];
  return tx.rows<AllocationRow>(
    `SELECT ${columns} FROM allocation FORCE INDEX (PRIMARY) WHERE id IN (${ids.sql}) ORDER BY id FOR UPDATE`,
    ids.values,
  );
}

/** Pairs among these where more is allocated than is there to promise, with how much too much. */
export async function readOverpromised(tx: Tx, pairs: readonly Pair[]): Promise<(Pair & { surplus: string })[]> {
  const items = list('id', [...new Set(pairs.map((p) => p.itemId))]);
  if (!items) return [];
  const wanted = new Set(pairs.map((p) => `${p.itemId}/${p.locationId}`));
  const rows = await tx.rows<Pair & { surplus: string }>(
    `SELECT item_id AS itemId, location_id AS locationId,
            allocated - GREATEST(0, on_hand - blocked - inspection) AS surplus
       FROM level WHERE item_id IN (${items.sql}) AND allocated > 0
        AND allocated > GREATEST(0, on_hand - blocked - inspection)`,
    items.values,
  );
  return rows.filter((r) => wanted.has(`${r.itemId}/${r.locationId}`)).sort(byPair);
}

/** What is held of a pair, newest promise first, locked. */
export const lockHeld = (tx: Tx, { itemId, locationId }: Pair) =>
  tx.rows<AllocationRow>(
    `SELECT ${columns} FROM allocation FORCE INDEX (allocation_pair)
      WHERE item_id = :itemId AND location_id = :locationId AND state = 'held' ORDER BY id DESC FOR UPDATE`,
    { itemId, locationId },
  );
