import type { Tx } from '../sql';
import type { Pair } from './levels';

export type HandNeedRow = Pair & {
  readonly quantity: string;
  readonly note: string;
  readonly who: string;
  readonly at: string;
};

/** What is asked for by hand of these items, with who asked. */
export const readHandNeeds = (tx: Tx, itemIds: readonly number[]): Promise<HandNeedRow[]> =>
  tx.rowsOf<HandNeedRow>(
    `SELECT h.item_id AS itemId, h.location_id AS locationId, h.quantity, h.note, u.name AS who, h.at
       FROM hand_need h JOIN app_user u ON u.id = h.user_id WHERE h.item_id IN (?)`,
    itemIds,
  );

/** What is asked for by hand at a pair as decimal text, locked; '0' where nothing is. */
export async function lockHandNeed(tx: Tx, { itemId, locationId }: Pair): Promise<{ quantity: string; note: string }> {
  const row = await tx.row<{ quantity: string; note: string }>(
    'SELECT quantity, note FROM hand_need WHERE item_id = :itemId AND location_id = :locationId FOR UPDATE',
    { itemId, locationId },
  );
  return row ?? { quantity: '0', note: '' };
}

/** What is asked for by hand at a pair from now on; nothing for '0'. */
export async function putHandNeed(
  tx: Tx,
  h: Pair & { readonly quantity: string; readonly note: string; readonly userId: number; readonly at: string },
): Promise<void> {
  const { itemId, locationId, quantity, note, userId, at } = h;
  if (Number(quantity) === 0) {
    await tx.run('DELETE FROM hand_need WHERE item_id = :itemId AND location_id = :locationId', { itemId, locationId });
    return;
  }
  await tx.run(
    `INSERT INTO hand_need (item_id, location_id, quantity, note, user_id, at)
     VALUES (:itemId, :locationId, :quantity, :note, :userId, :at)
     ON DUPLICATE KEY UPDATE quantity = VALUES(quantity), note = VALUES(note), user_id = VALUES(user_id), at = VALUES(at)`,
    { itemId, locationId, quantity, note, userId, at },
  );
}

/** Takes up what is asked for by hand at a pair; returns it as decimal text. */
export async function takeHandNeed(tx: Tx, pair: Pair): Promise<string> {
  const { quantity } = await lockHandNeed(tx, pair);
  if (Number(quantity) > 0)
    await tx.run('DELETE FROM hand_need WHERE item_id = :itemId AND location_id = :locationId', {
      itemId: pair.itemId,
      locationId: pair.locationId,
    });
  return quantity;
}
