import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { Conventions } from '@/core/sheets';
import { readCategoryTree } from '@/data/repositories/catalogue';
import { readPatternNames } from '@/data/repositories/sheets/choices';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { maySheet } from '../sheets/lockOwn';
import { type RecordsView, recordsIn } from '../sheets/readRecords';
import { pathOf } from './findItems';

export type ItemForm = {
  /** Fields of an item, without a record; null for whoever may not change items. */
  readonly view: RecordsView | null;
  readonly patterns: readonly string[];
  readonly categories: readonly string[];
};

/** What the list of items needs to narrow it and to change many at once. Errors: forbidden. */
export async function readItemForm(
  deps: Deps,
  actor: Actor,
  decimal: Conventions['decimal'],
): Promise<Result<ItemForm, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const tree = await readCategoryTree(tx);
    const byId = new Map(tree.map((c) => [c.id, c]));
    const mayChange = maySheet(actor, sheetKinds.items).ok;
    return ok({
      view: mayChange ? await recordsIn(tx, sheetKinds.items, 'none', decimal) : null,
      patterns: mayChange ? await readPatternNames(tx) : [],
      categories: tree.map((c) => pathOf(byId, c.id)).sort((a, b) => (a < b ? -1 : 1)),
    });
  });
}
