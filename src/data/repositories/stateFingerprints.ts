import type { Tx } from '../sql';

/** Digest over the stored states of one item (its fingerprints, XOR), and how many there are. */
export type ItemDigest = { readonly itemId: number; readonly digest: number; readonly pairs: number };

/** One digest per item, made by the database: a run over everything then reads a row per item, not one per pair. */
export async function readItemDigests(tx: Tx, only: readonly number[] | null = null): Promise<ItemDigest[]> {
  if (only?.length === 0) return [];
  const where = only === null ? '' : `WHERE item_id IN (${only.map(Number).join(',')})`;
  const rows = (await tx.arrays(
    `SELECT item_id, BIT_XOR(fingerprint), COUNT(*) FROM item_location_state ${where} GROUP BY item_id`,
  )) as [number, number, number][];
  return rows.map(([itemId, digest, pairs]) => ({ itemId, digest, pairs }));
}

/** Stored fingerprints of these items' pairs, by `item/location`. */
export async function readStateFingerprints(tx: Tx, itemIds: readonly number[]): Promise<Map<string, number>> {
  if (itemIds.length === 0) return new Map();
  const rows = (await tx.arrays(
    `SELECT item_id, location_id, fingerprint FROM item_location_state WHERE item_id IN (${itemIds.map(Number).join(',')})`,
  )) as [number, number, number][];
  return new Map(rows.map(([item, location, fingerprint]) => [`${item}/${location}`, fingerprint]));
}
