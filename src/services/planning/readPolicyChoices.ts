import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCategoryTree, readMakers, readSuppliers } from '@/data/repositories/catalogue';
import { readBuyers } from '@/data/repositories/people';
import { readSnapshot } from '@/data/transaction';
import { pathOf } from '../catalogue/findItems';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** What the policy sheet can be narrowed by. */
export type PolicyChoices = {
  readonly categories: readonly string[];
  readonly suppliers: readonly { readonly code: string; readonly name: string }[];
  readonly makers: readonly string[];
  /** Who is responsible for items, the person that asks first. */
  readonly buyers: readonly { readonly id: number; readonly name: string }[];
};

/** Errors: forbidden. */
export async function readPolicyChoices(deps: Deps, actor: Actor): Promise<Result<PolicyChoices, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const tree = await readCategoryTree(tx);
    const byId = new Map(tree.map((c) => [c.id, c]));
    const suppliers = await readSuppliers(tx);
    return ok({
      categories: tree.map((c) => pathOf(byId, c.id)).sort((a, b) => a.localeCompare(b)),
      suppliers: suppliers.map((s) => ({ code: s.code, name: s.name })),
      makers: await readMakers(tx),
      buyers: [{ id: actor.userId, name: actor.name }, ...(await readBuyers(tx)).filter((b) => b.id !== actor.userId)],
    });
  });
}
