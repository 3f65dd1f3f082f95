import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

export type NamedItem = { readonly id: number; readonly number: string; readonly name: string; readonly unit: string };

/** Number, name and unit of items by their ids; those that are not there are left out. Errors: forbidden. */
export async function readItemsNamed(
  deps: Deps,
  actor: Actor,
  ids: readonly number[],
): Promise<Result<NamedItem[], Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const items = await readSnapshot(deps.pool, (tx) => readItemsByIds(tx, ids));
  return ok([...items.values()].map((i) => ({ id: i.id, number: i.number, name: i.name, unit: i.unitName })));
}
