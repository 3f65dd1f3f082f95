import { minorToDecimal } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { type Quantity, toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { type Column, decimalColumn, textColumn, type Value, type Values } from '@/core/sheets';
import { readCompany } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import type { ListFile } from '../lists/fileColumns';
import { keptRecords } from '../sheets/checkRows';
import { sheetKinds } from '../sheets/kinds';
import { readReferences } from '../sheets/references';
import { type ItemSummary, readItemRows } from './readItems';

type Figure = {
  readonly key: string;
  readonly title: string;
  readonly number: boolean;
  readonly of: (r: ItemSummary, currency: string) => Value;
};

const quantity = (q: Quantity): string => toDecimal(q);
/** Figures that the list shows besides what is on file; their headings say so, and an import leaves them out. */
const figures: readonly Figure[] = [
  { key: 'free', title: 'Free in all (figure)', number: true, of: (r) => quantity(r.gauge.free) },
  { key: 'on_hand', title: 'On hand (figure)', number: true, of: (r) => quantity(r.gauge.onHand) },
  { key: 'coming', title: 'Coming (figure)', number: true, of: (r) => quantity(r.gauge.coming + r.gauge.inTrays) },
  { key: 'value', title: 'Stock value (figure)', number: true, of: (r, currency) => minorToDecimal(r.value, currency) },
  { key: 'last_cost', title: 'Last cost (figure)', number: true, of: (r) => r.lastCost },
  { key: 'shelf', title: 'Shelf (figure)', number: false, of: (r) => r.shelf },
  { key: 'supplier', title: 'Bought from (figure)', number: false, of: (r) => r.supplier ?? '' },
  { key: 'list_price', title: 'List price each (figure)', number: true, of: (r) => r.each },
  { key: 'needs', title: 'Open needs (figure)', number: true, of: (r) => r.openNeeds },
];

const columnOf = (f: Figure): Column => {
  const about = { title: f.title, explain: '', example: '' };
  return f.number
    ? decimalColumn(`figure_${f.key}`, { least: -1e9, most: 1e9 }, about)
    : textColumn(`figure_${f.key}`, 200, about);
};

const PAGE = 200;

/** The items of an open list in its order: all that is on file of them, so that it imports again, and the figures that the
 *  list shows. Rows come in steps. Errors: forbidden, list_gone. */
export async function readItemExport(
  deps: Deps,
  actor: Actor,
  asked: { readonly list: string; readonly columns: readonly string[] },
): Promise<Result<ListFile, Failure>> {
  const allowed = may(actor, 'stock.read');
  if (!allowed.ok) return allowed;
  const first = await readItemRows(deps, actor, { list: asked.list, from: 0 });
  if (!first.ok) return first;
  const company = await readSnapshot(deps.pool, readCompany);
  const shown = figures.filter((f) => asked.columns.includes(f.key));
  const kind = sheetKinds.items;
  async function* rows(): AsyncGenerator<Values[]> {
    for (let from = 0; ; from += PAGE) {
      const page = await readItemRows(deps, actor, { list: asked.list, from });
      if (!page.ok || page.value.rows.length === 0) return;
      const keys = page.value.rows.map((r): Values => ({ number: r.item.number }));
      const records = await readSnapshot(deps.pool, async (tx) =>
        keptRecords(tx, kind, keys, await readReferences(tx, kind, keys), false),
      );
      yield page.value.rows.map((r) => ({
        ...records.get(r.item.number)?.values,
        ...Object.fromEntries(shown.map((f) => [`figure_${f.key}`, f.of(r, company.currency)])),
      }));
    }
  }
  return ok({
    ...{ title: kind.title, today: todayOf(deps, company), columns: [...kind.columns, ...shown.map(columnOf)] },
    rows: rows(),
  });
}
