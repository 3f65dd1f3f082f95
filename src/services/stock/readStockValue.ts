import { isDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { readCategoryTree, readItemCategories } from '@/data/repositories/catalogue';
import { readCompany, readLocations, readTransit } from '@/data/repositories/company';
import { readBalances } from '@/data/repositories/movements';
import { readSnapshot } from '@/data/transaction';
import { pathOf } from '../catalogue/findItems';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';

export type StockValueView = {
  readonly on: string;
  readonly today: string;
  readonly currency: string;
  readonly places: readonly string[];
  readonly rows: readonly { readonly category: string; readonly values: readonly number[]; readonly sum: number }[];
  readonly sums: readonly number[];
  readonly total: number;
};

/** What stock was worth at the close of a day, by category and place, goods on the road between our places included. Entries
 *  made later for that day or an earlier one count. Errors: forbidden. */
export async function readStockValue(
  deps: Deps,
  actor: Actor,
  { on }: { readonly on: string },
): Promise<Result<StockValueView, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const day = isDate(on) && on <= today ? on : today;
    const places = (await readLocations(tx)).filter((l) => actor.locations?.includes(l.id) ?? true);
    const columns = [...places.map((l) => l.id), ...(actor.locations === null ? [await readTransit(tx)] : [])];
    const balances = await readBalances(tx, day, columns);
    const categories = await readItemCategories(tx);
    const tree = new Map((await readCategoryTree(tx)).map((c) => [c.id, c]));
    const sums = new Map<string, number[]>();
    for (const b of balances) {
      const category = pathOf(tree, categories.get(b.itemId) ?? 0);
      const row = sums.get(category) ?? columns.map(() => 0);
      const c = columns.indexOf(b.locationId);
      row[c] = (row[c] as number) + b.value;
      sums.set(category, row);
    }
    const rows = [...sums]
      .sort(([a], [b]) => a.localeCompare(b))
      .map(([category, values]) => ({ category, values, sum: values.reduce((a, b) => a + b, 0) }));
    const totals = columns.map((_, c) => rows.reduce((a, r) => a + (r.values[c] as number), 0));
    return ok({
      ...{ on: day, today, currency: company.currency, rows, sums: totals },
      places: [...places.map((l) => l.name), ...(actor.locations === null ? ['On the road'] : [])],
      total: totals.reduce((a, b) => a + b, 0),
    });
  });
}
