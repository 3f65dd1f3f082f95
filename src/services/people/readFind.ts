import { parseGtin } from '@/core/codes';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type FoundItem, type FoundOrder, findByCode, findOrders, readFoundItems } from '@/data/repositories/find';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { searchItems } from '../catalogue/itemIndex';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

export type Found = {
  readonly items: readonly FoundItem[];
  /** So many of the items, from the first, have exactly this number or this code on a label. */
  readonly exact: number;
  readonly orders: readonly FoundOrder[];
};

const MOST = 7;

/** Barcodes and exact numbers first (a GTIN in any of its lengths), then what fits best by name and numbers. */
async function idsFor(tx: Tx, words: string): Promise<{ ids: number[]; exact: number }> {
  const gtin = parseGtin(words);
  const exact = await findByCode(tx, words, gtin.ok ? gtin.value : '');
  const fitting = await searchItems(tx, words, MOST);
  return { ids: [...new Set([...exact, ...fitting])].slice(0, MOST), exact: exact.length };
}

/** Items and orders for the words typed into Find, a handful of each, as far as the person may see them.
 *  Errors: forbidden. */
export async function readFind(deps: Deps, actor: Actor, text: string): Promise<Result<Found, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const words = text.trim();
  if (words === '') return ok({ items: [], exact: 0, orders: [] });
  return readSnapshot(deps.pool, async (tx) => {
    const { ids, exact } = await idsFor(tx, words);
    return ok({
      items: await readFoundItems(tx, ids),
      exact,
      orders: may(actor, 'orders.read').ok ? await findOrders(tx, words) : [],
    });
  });
}
