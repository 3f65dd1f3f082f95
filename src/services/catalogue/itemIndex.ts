import { plainWords, type SearchIndex, searched, searchIndex } from '@/core/search';
import { readIndexRows, readIndexStamp } from '@/data/repositories/itemIndex';
import type { Tx } from '@/data/sql';

type Kept = { readonly stamp: string; readonly index: SearchIndex };
/** The index of a database stays in memory as long as nothing in it has changed. */
const kept = new Map<string, Kept>();
const MOST_KEPT = 4;

async function indexOf(tx: Tx): Promise<SearchIndex> {
  const { database, stamp } = await readIndexStamp(tx);
  const had = kept.get(database);
  if (had?.stamp === stamp) return had.index;
  const index = searchIndex(
    (await readIndexRows(tx)).map(({ id, name, numbers }) => ({
      id,
      words: plainWords(name),
      numbers: numbers.map((n) => n.toLowerCase()),
    })),
  );
  if (kept.size >= MOST_KEPT) kept.clear();
  kept.set(database, { stamp, index });
  return index;
}

/** Ids of the items that fit what was typed, the best first: by name, by any of their numbers, by barcode, forgiving one slip
 *  in words of five letters and more. All of them by name when nothing was typed. */
export async function searchItems(tx: Tx, text: string, most?: number): Promise<number[]> {
  return searched(await indexOf(tx), text, most);
}
