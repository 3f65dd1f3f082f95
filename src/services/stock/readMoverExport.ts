import { minorToDecimal } from '@/core/money';
import type { Actor } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { day, type FileField, figure, type ListFile, shortListFile, words } from '../lists/fileColumns';
import { type MoverLine, type MoversAsked, readMovers } from './readMovers';

/** How items move, all of what is shown, as a file. Errors: forbidden. */
export async function readMoverExport(
  deps: Deps,
  actor: Actor,
  asked: MoversAsked,
): Promise<Result<ListFile, Failure>> {
  const found = await readMovers(deps, actor, asked, Number.MAX_SAFE_INTEGER);
  if (!found.ok) return found;
  const { lines, currency } = found.value;
  const money = (minor: number | null) => (minor === null ? null : minorToDecimal(minor, currency));
  const fields: FileField<MoverLine>[] = [
    words('item', 'Item', (l) => l.number),
    words('name', 'Name', (l) => l.name),
    words('location', 'Location', (l) => l.location),
    words('class', 'Class', (l) => `${l.abc ?? ''}${l.xyz ?? ''}`),
    figure('sold', `Sold in ${asked.days} days`, (l) => toDecimal(l.sold)),
    words('unit', 'Unit', (l) => l.unit),
    day('last_sold', 'Last sold', (l) => l.lastSold),
    figure('cost_of_sales', 'Cost of sales', (l) => money(l.costOfSales)),
    figure('margin', 'Margin', (l) => money(l.margin)),
    figure('on_hand', 'On hand', (l) => toDecimal(l.onHand)),
    figure('value', 'Value', (l) => money(l.value)),
    figure('turns', 'Turns a year', (l) => l.turns?.toFixed(2) ?? null),
    figure('return', 'Margin return', (l) => l.marginReturn?.toFixed(2) ?? null),
    figure('cover', 'Lasts days', (l) => (l.coverDays === null ? null : Math.floor(l.coverDays))),
  ];
  return ok(await shortListFile(deps, 'Movers', fields, lines));
}
