import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { type FoundItem, type FoundOrder, findItems, findOrders } from '@/data/repositories/find';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

export type Found = { readonly items: readonly FoundItem[]; readonly orders: readonly FoundOrder[] };

/** Items and orders for the words typed into Find, a handful of each, as far as the person may see them.
 *  Errors: forbidden. */
export async function readFind(deps: Deps, actor: Actor, text: string): Promise<Result<Found, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const words = text.trim();
  if (words === '') return ok({ items: [], orders: [] });
  return readSnapshot(deps.pool, async (tx) =>
    ok({
      items: await findItems(tx, words),
      orders: may(actor, 'orders.read').ok ? await findOrders(tx, words) : [],
    }),
  );
}
