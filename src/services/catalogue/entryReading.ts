import { parseGtin } from '@/core/codes';
import { isPackWord, type LineReading, lineReadings } from '@/core/search';
import { type ItemRow, type PackRow, readItemsByIds, readPacks } from '@/data/repositories/catalogue';
import { findByCode } from '@/data/repositories/find';
import type { Tx } from '@/data/sql';
import { groupBy } from '../grouping';
import { searchItems } from './itemIndex';

const MOST = 7;

export type Fits = {
  readonly reading: LineReading;
  readonly items: readonly ItemRow[];
  /** So many of the items, from the first, have exactly this number or code. */
  readonly exact: number;
  readonly packOf: (itemId: number) => PackRow | null;
};

/** The likeliest reading that some item fits; with a pack, one that has a pack (or a unit) of that name. */
export async function readingThatFits(tx: Tx, text: string): Promise<Fits | null> {
  for (const reading of lineReadings(text)) {
    const gtin = parseGtin(reading.words);
    const exact = await findByCode(tx, reading.words, gtin.ok ? gtin.value : '');
    const ids = [...new Set([...exact, ...(await searchItems(tx, reading.words, MOST))])].slice(0, MOST);
    if (ids.length === 0) continue;
    const rows = await readItemsByIds(tx, ids);
    const packs = groupBy(await readPacks(tx, ids), (p) => p.itemId);
    const packOf = (itemId: number) =>
      reading.pack === '' ? null : ((packs.get(itemId) ?? []).find((p) => isPackWord(reading.pack, p.name)) ?? null);
    const items = ids
      .flatMap((id) => rows.get(id) ?? [])
      .filter((i) => reading.pack === '' || packOf(i.id) !== null || isPackWord(reading.pack, i.unitName));
    if (items.length > 0) return { reading, items, exact: exact.length, packOf };
  }
  return null;
}
