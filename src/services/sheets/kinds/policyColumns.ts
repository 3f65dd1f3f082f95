import { kindWords, neededFields, type PolicyKind } from '@/core/policy';
import { type Column, choiceColumn, decimalColumn, type RowFault, type Values, wholeColumn } from '@/core/sheets';
import { faultAt, text } from '../sheetKind';
import { quantityColumn } from './common';

const kinds = { ...kindWords, inherit: 'as inherited' };
const columnOf = { min: 'min', fixed: 'order_quantity', coverDays: 'cover_days' } as const;

/** The kind of a policy; what an empty cell means differs. */
export const kindColumn = (otherwise: 'min_max' | 'inherit') =>
  choiceColumn('policy', kinds, {
    title: 'Policy',
    explain: 'How it is refilled; “as inherited” follows what is said more widely.',
    example: 'min/max',
    otherwise,
  });

const yesNo = (key: string, title: string, explain: string) =>
  choiceColumn(key, { '1': 'yes', '0': 'no' }, { title, explain, example: 'yes' });
const days = (key: string, title: string, explain: string, example: string) =>
  wholeColumn(key, { least: 1, most: 999 }, { title, explain, example });

export const minColumn = quantityColumn('min', 'Minimum', 'In base units; a need arises there (reorder point).', '20', {
  aliases: ['min', 'reorder point'],
});
export const maxColumn = quantityColumn('max', 'Maximum', 'Filled up to it; empty = up to the minimum.', '60', {
  aliases: ['max', 'order up to'],
});

/** Everything else that a policy may say. */
export const moreColumns: readonly Column[] = [
  quantityColumn('order_quantity', 'Order quantity', 'Q of a fixed quantity, in base units.', '12'),
  days('cover_days', 'Days of cover', 'Days kept beyond the minimum.', '14'),
  quantityColumn('safety_stock', 'Safety stock', 'By hand, for lot-for-lot and periodic.', '5'),
  days('window_days', 'Days together', 'Days of demand in one lot-for-lot order.', '7'),
  yesNo('use_stock', 'Use stock', 'Lot-for-lot: stock that is there is used up.'),
  yesNo('keep_safety', 'Keep safety stock', 'Lot-for-lot: safety stock is kept.'),
  quantityColumn('display_minimum', 'On display', 'What has to lie on the shelf: a floor under the minimum.', '2'),
  quantityColumn('reserve', 'Reserve', 'Never promised to anybody.', '1'),
  choiceColumn(
    'trigger',
    { at_or_below: 'at or below', strictly_below: 'strictly below' },
    { title: 'Raised', explain: 'At the level or below it, or strictly below.', example: 'at or below' },
  ),
  choiceColumn(
    'refill',
    { up_to_max: 'up to maximum', up_to_min: 'up to minimum' },
    { title: 'Refill', explain: 'How far a need refills.', example: 'up to maximum' },
  ),
  choiceColumn(
    'rounding',
    { up: 'up', nearest: 'nearest', none: 'none' },
    { title: 'Rounding', explain: 'To packs; empty = as the source says.', example: 'up' },
  ),
  choiceColumn(
    'supply',
    { supplier: 'supplier', place: 'place' },
    { title: 'Supplied by', explain: 'A supplier, or the place that supplies this one.', example: 'place' },
  ),
  choiceColumn(
    'target_kind',
    { cycle_service: 'cycles', fill_rate: 'pieces' },
    {
      title: 'Target of',
      explain: 'Order cycles without a shortage, or pieces handed over at once.',
      example: 'cycles',
    },
  ),
  decimalColumn(
    'target_percent',
    { least: 50, most: 99.9, decimals: 1 },
    { title: 'Target', explain: 'Service target in percent.', example: '95' },
  ),
];

/** Values of the shared columns as the tables of policies have them, after kind, min and max. */
export const moreValues = (v: Values) => [
  ...[v.order_quantity ?? null, v.cover_days ?? null, v.safety_stock ?? null, v.window_days ?? null],
  ...[v.use_stock ?? null, v.keep_safety ?? null, v.display_minimum ?? null, v.reserve ?? null],
  ...[v.trigger ?? null, v.refill ?? null, v.rounding ?? null, v.supply ?? null, v.target_kind ?? null],
  v.target_percent == null ? null : Math.round(Number(v.target_percent) * 10),
];

export const kindValue = (v: Values) => (v.policy === 'inherit' ? null : (v.policy ?? null));

/** Minimum above maximum; what a kind can't do without at the level that names it; figures where nothing is kept. */
export function checkPolicy(values: Values, whole: Values): RowFault[] {
  const faults: RowFault[] = [];
  const [min, max] = [text(whole, 'min'), text(whole, 'max')];
  if (whole.policy === 'not_carried') {
    for (const c of ['min', 'max'])
      if (text(whole, c) !== '')
        faults.push(faultAt(c, values, { kind: 'not_one_of', choices: ['empty for “not carried”'] }));
    return faults;
  }
  for (const field of neededFields[whole.policy as PolicyKind] ?? []) {
    const c = columnOf[field];
    if (text(whole, c) === '') faults.push(faultAt(c, values, { kind: 'missing' }));
  }
  if (min !== '' && max !== '' && Number(min) > Number(max))
    faults.push(faultAt('min', values, { kind: 'above_other', other: 'max' }));
  if (text(whole, 'order_quantity') !== '' && Number(whole.order_quantity) === 0)
    faults.push(faultAt('order_quantity', values, { kind: 'out_of_range', least: '0.000001', most: '999999999' }));
  return faults;
}
