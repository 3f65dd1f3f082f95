import { chooseSource, type SourceRule } from '@/core/sourcing';
import { readSourcePlaces, sourceAt } from '@/data/repositories/sourcePlaces';
import type { Tx } from '@/data/sql';
import type { Buying, BuyingBook } from './buying';

export type Chosen = { readonly sourceId: number; readonly rule: SourceRule };

/** Which source each place buys an item from, and by which rule: the choice that the need run makes, to be told. */
export async function chosenSources(
  tx: Tx,
  book: BuyingBook,
  itemIds: readonly number[],
): Promise<(itemId: number, locationId: number) => Chosen | null> {
  const { placed, bought } = await readSourcePlaces(tx, itemIds);
  const byItem = new Map<number, Buying[]>();
  for (const b of book.bySource.values()) byItem.set(b.source.itemId, [...(byItem.get(b.source.itemId) ?? []), b]);
  return (itemId, locationId) => {
    const here = (byItem.get(itemId) ?? []).map(({ source: s }) =>
      sourceAt(
        {
          ...{ id: s.id, preference: s.preference, supplierActive: s.supplierActive },
          ...{ share: s.share === null ? null : Number(s.share), bought: 0, here: false },
        },
        placed.get(s.id)?.get(locationId),
        bought.get(`${s.id}/${locationId}`) ?? 0,
      ),
    );
    const chosen = chooseSource(here);
    return chosen && { sourceId: chosen.source.id, rule: chosen.rule };
  };
}

/** The same, only the rule. */
export async function sourceRules(tx: Tx, book: BuyingBook, itemIds: readonly number[]) {
  const chosen = await chosenSources(tx, book, itemIds);
  return (itemId: number, locationId: number): SourceRule | null => chosen(itemId, locationId)?.rule ?? null;
}
