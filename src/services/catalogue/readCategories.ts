import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCategoryTree } from '@/data/repositories/catalogue';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { pathOf } from './findItems';

/** All categories by their names from the top down. Errors: forbidden. */
export async function readCategories(deps: Deps, actor: Actor): Promise<Result<readonly string[], Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const tree = await readSnapshot(deps.pool, readCategoryTree);
  const byId = new Map(tree.map((c) => [c.id, c]));
  return ok(tree.map((c) => pathOf(byId, c.id)).sort((a, b) => a.localeCompare(b)));
}
