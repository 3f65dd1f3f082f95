import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { readStockValue, type StockValueView } from './readStockValue';

type Row = StockValueView['rows'][number];

/** What stock was worth on a day, by category and place, to be written to a file. Errors: forbidden. */
export async function readStockValueExport(
  deps: Deps,
  actor: Actor,
  asked: { readonly on: string },
): Promise<Result<ListFile, Failure>> {
  const found = await readStockValue(deps, actor, asked);
  if (!found.ok) return found;
  const { places, currency, rows, on } = found.value;
  const fields: FileField<Row>[] = [
    words('category', 'Category', (r) => r.category),
    ...places.map((p, i) => figure(`place_${i}`, p, (r: Row) => minorToDecimal(r.values[i] ?? 0, currency))),
    figure('sum', 'In all', (r) => minorToDecimal(r.sum, currency)),
  ];
  return ok(await shortListFile(deps, `Stock value ${on}`, fields, rows));
}
