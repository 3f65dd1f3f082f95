import { Asking } from '../asking';
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
  return itemIds.length === 0 ? new Map() : askStateFingerprints(new Asking(tx, 'together'), itemIds)();
}

/** The same, asked for beside other things. */
export function askStateFingerprints(ask: Asking, itemIds: readonly number[]): () => Promise<Map<string, number>> {
  const rows = ask.arrays<[item: number, location: number, fingerprint: number]>(
    'SELECT item_id, location_id, fingerprint FROM item_location_state WHERE item_id IN (?)',
    [itemIds],
  );
  return async () => new Map((await rows()).map(([item, location, print]) => [`${item}/${location}`, print]));
}
