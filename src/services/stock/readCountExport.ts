import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import { type Quantity, toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import {
  type DifferenceLine,
  type DifferencesAsked,
  type differenceGroups,
  readCountDifferences,
} from './readCountDifferences';
import { type CountedLine, readCount } from './readCounts';

const decimal = (q: Quantity | null) => (q === null ? null : toDecimal(q));

/** A count as a file, to be filled in under "Counted" and brought back; what a blind one expects is not in it.
 *  Errors: forbidden, not_found. */
export async function readCountExport(deps: Deps, actor: Actor, id: number): Promise<Result<ListFile, Failure>> {
  const found = await readCount(deps, actor, id);
  if (!found.ok) return found;
  const { number, rows, blind, state } = found.value;
  const fields: FileField<CountedLine>[] = [
    words('shelf', 'Shelf', (r) => r.shelf),
    words('item', 'Item', (r) => r.number),
    words('name', 'Name', (r) => r.name),
    words('unit', 'Unit', (r) => r.unit),
    ...(blind === 1 && state === 'open'
      ? []
      : [figure<CountedLine>('expected', 'Expected', (r) => decimal(r.expected))]),
    figure('counted', 'Counted', (r) => decimal(r.again ?? r.counted)),
  ];
  return ok(await shortListFile(deps, `Count ${number}`, fields, rows));
}

/** What counts found, as it is shown. Errors: forbidden. */
export async function readDifferenceExport(
  deps: Deps,
  actor: Actor,
  asked: DifferencesAsked,
): Promise<Result<ListFile, Failure>> {
  const found = await readCountDifferences(deps, actor, asked);
  if (!found.ok) return found;
  const { rows, currency } = found.value;
  const title = differenceTitles[asked.by];
  const items = asked.by === 'item';
  const money = (key: 'moreValue' | 'lessValue' | 'usedValue', name: string) =>
    figure<DifferenceLine>(key, name, (r) => minorToDecimal(r[key], currency));
  const count = (key: 'more' | 'less' | 'used', name: string) =>
    items ? [figure<DifferenceLine>(key, name, (r) => decimal(r[key]))] : [];
  const fields: FileField<DifferenceLine>[] = [
    ...(items ? [words<DifferenceLine>('number', 'Item', (r) => r.number)] : []),
    words('name', title, (r) => r.name),
    figure('counted', 'Times counted', (r) => String(r.counted)),
    figure('differing', 'Times different', (r) => String(r.differing)),
    ...count('more', 'Found'),
    ...count('less', 'Missing'),
    ...count('used', 'Used'),
    money('moreValue', `Found, ${currency}`),
    money('lessValue', `Missing, ${currency}`),
    money('usedValue', `Used, ${currency}`),
  ];
  return ok(await shortListFile(deps, 'Count differences', fields, rows));
}

const differenceTitles: Readonly<Record<(typeof differenceGroups)[number], string>> = {
  item: 'Name',
  place: 'Location',
  reason: 'Reason',
  month: 'Month',
};
