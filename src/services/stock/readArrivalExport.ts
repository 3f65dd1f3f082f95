import type { Actor } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { day, type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { type Arrival, type ExpectedLine, readArrivals } from './readArrivals';

type Row = { readonly arrival: Arrival; readonly line: ExpectedLine };

const fields: readonly FileField<Row>[] = [
  day('expected', 'Expected', (r) => r.arrival.expectedDate),
  words('location', 'Where', (r) => r.arrival.location),
  words('supplier', 'Supplier', (r) => r.arrival.supplier),
  words('order', 'Order', (r) => r.arrival.number),
  words('item', 'Item', (r) => r.line.itemNumber ?? ''),
  words('name', 'Name', (r) => r.line.description),
  figure('packs', 'Packs open', (r) => toDecimal(r.line.openPacks)),
  words('pack', 'Pack', (r) => r.line.packName),
  figure('base', 'In base units', (r) => toDecimal(r.line.openBase)),
  words('unit', 'Unit', (r) => r.line.unit),
];

/** What is expected, line by line, to be written to a file. Errors: forbidden. */
export async function readArrivalExport(
  deps: Deps,
  actor: Actor,
  filter: { readonly locationId: number | null },
): Promise<Result<ListFile, Failure>> {
  const found = await readArrivals(deps, actor, filter);
  if (!found.ok) return found;
  const rows = found.value.arrivals.flatMap((arrival) => arrival.lines.map((line) => ({ arrival, line })));
  return ok(await shortListFile(deps, 'Arrivals', fields, rows));
}
