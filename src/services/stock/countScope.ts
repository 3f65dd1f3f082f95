import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { readItemsByIds, readShelves } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import { type CountScope, itemsEverAt, itemsOnShelf } from '@/data/repositories/counts';
import type { Tx } from '@/data/sql';
import { everyItem, findItems } from '../catalogue/findItems';
import type { Failure } from '../failure';

/** Lines that one sheet may have: what a few people count in a day. */
export const MOST_COUNTED = 2000;

/** What is counted at a place: everything there, a category with what is below it, a shelf or all whose names begin so, or
 *  marked items. */
export type WhatToCount = {
  readonly locationId: number;
  readonly what: CountScope;
  readonly category: string;
  readonly shelf: string;
  readonly itemIds: readonly number[];
};

/** The items of a count in the order they are walked: by shelf, then by name. Marked items are counted whether they ever lay
 *  there or not. Errors: not_found (location), nothing_to_count, too_much_to_count. */
export async function itemsToCount(tx: Tx, actor: Actor, w: WhatToCount): Promise<Result<number[], Failure>> {
  if (!(await readLocations(tx)).some((l) => l.id === w.locationId))
    return err({ kind: 'not_found', what: 'location' });
  const ids = await idsOf(tx, actor, w);
  if (ids.length === 0) return err({ kind: 'nothing_to_count' });
  if (ids.length > MOST_COUNTED) return err({ kind: 'too_much_to_count', items: ids.length, most: MOST_COUNTED });
  const shelves = new Map((await readShelves(tx, ids, w.locationId)).map((s) => [s.itemId, s.shelf]));
  const items = await readItemsByIds(tx, ids);
  const place = (id: number) => shelves.get(id) || '\uffff';
  const name = (id: number) => items.get(id)?.name ?? '';
  return ok(
    [...ids].sort(
      (a, b) => place(a).localeCompare(place(b), 'en', { numeric: true }) || name(a).localeCompare(name(b)),
    ),
  );
}

async function idsOf(tx: Tx, actor: Actor, w: WhatToCount): Promise<number[]> {
  switch (w.what) {
    case 'marked': {
      const kept = await readItemsByIds(tx, [...new Set(w.itemIds)]);
      return [...kept.values()].filter((i) => i.stockKept === 1).map((i) => i.id);
    }
    case 'all':
      return [...(await itemsEverAt(tx, w.locationId, null))];
    case 'category': {
      const found = await findItems(tx, actor, { ...everyItem, category: w.category, stockKept: true }, null);
      return [...(await itemsEverAt(tx, w.locationId, found))];
    }
    case 'shelf':
      return [...(await itemsEverAt(tx, w.locationId, await itemsOnShelf(tx, w.locationId, w.shelf.trim())))];
  }
}
