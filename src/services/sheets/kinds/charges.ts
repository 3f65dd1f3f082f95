import { choiceColumn, codeColumn, decimalColumn, type RowFault, textColumn, wholeColumn } from '@/core/sheets';
import { readChargeRecords, upsertCharges } from '@/data/repositories/sheets/terms';
import { supplierId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  supplierColumn(false),
  textColumn('name', 60, { title: 'Charge', explain: 'What it is called.', example: 'Sea freight', required: true }),
  wholeColumn(
    'position',
    { least: 1, most: 99 },
    { title: 'Position', explain: 'Charges are reckoned in this order.', example: '1', otherwise: 1 },
  ),
  choiceColumn(
    'sign',
    { charge: 'charge', allowance: 'allowance' },
    { title: 'Is a', explain: 'charge or allowance (taken off).', example: 'charge', otherwise: 'charge' },
  ),
  choiceColumn(
    'amount_kind',
    { asked: 'asked each time', fixed: 'fixed', percent: 'percent', duty: 'duty rate' },
    {
      title: 'Amount is',
      explain: 'asked each time, fixed, percent of goods, or the duty rate of each item.',
      example: 'asked each time',
      required: true,
    },
  ),
  decimalColumn(
    'amount',
    { most: 999_999_999 },
    { title: 'Amount', explain: 'Sum per order, or percent; of one asked each time what is usual.', example: '180' },
  ),
  codeColumn('currency', 'currency', {
    title: 'Currency',
    explain: 'Of a sum; empty = the supplier’s.',
    example: '',
  }),
  textColumn('on_charges', 400, {
    title: 'Counts also',
    explain: 'Earlier charges that a percentage or duty is reckoned on besides the goods, parted by semicolons.',
    example: 'Sea freight; Insurance',
  }),
  choiceColumn(
    'spread',
    { value: 'value', quantity: 'quantity', weight: 'weight', volume: 'volume', even: 'evenly' },
    {
      title: 'Spread by',
      explain: 'value, quantity, weight, volume or evenly.',
      example: 'weight',
      otherwise: 'value',
    },
  ),
  choiceColumn(
    'into_cost',
    { stock: 'stock cost', expense: 'an expense account', recoverable: 'recoverable' },
    {
      title: 'Goes into',
      explain: 'stock cost, an expense account, or recoverable.',
      example: 'stock cost',
      otherwise: 'stock',
    },
  ),
  textColumn('account', 20, { title: 'Account', explain: 'Where it does not go into stock cost.', example: '' }),
];

/** Names of other charges in a cell. */
export const chargeNames = (cell: string): string[] =>
  cell
    .split(';')
    .map((n) => n.trim())
    .filter((n) => n !== '');

/** Charges and allowances as suppliers usually have them. */
export const charges: SheetKind = {
  name: 'charges',
  title: 'Charges and allowances',
  about: 'Freight, insurance, duty, fees, discounts: how much, how spread, into which cost.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { supplier: { what: 'supplier' } },
  keyOf: keyed('supplier', 'name'),
  ...foundBy(readChargeRecords, columns, 'supplier', 'name'),
  check: ({ values, whole }): RowFault[] => {
    const faults: RowFault[] = [];
    const kind = text(whole, 'amount_kind');
    if ((kind === 'fixed' || kind === 'percent') && text(whole, 'amount') === '')
      faults.push(faultAt('amount', values, { kind: 'missing' }));
    if (kind === 'percent' && Number(whole.amount) > 1000)
      faults.push(faultAt('amount', values, { kind: 'out_of_range', least: '0', most: '1000' }));
    if ((kind === 'fixed' || kind === 'asked') && text(whole, 'on_charges') !== '')
      faults.push(faultAt('on_charges', values, { kind: 'not_one_of', choices: ['empty for a sum'] }));
    if (chargeNames(text(whole, 'on_charges')).includes(text(whole, 'name')))
      faults.push(faultAt('on_charges', values, { kind: 'loop', through: [text(whole, 'name'), text(whole, 'name')] }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertCharges(
      tx,
      rows.map(({ values: v }) => [
        ...[supplierId(refs, v), v.name, v.position, v.sign, v.amount_kind, v.amount ?? null, text(v, 'currency')],
        ...[chargeNames(text(v, 'on_charges')).join('; '), v.spread, v.into_cost, text(v, 'account')],
      ]) as never,
    ),
  /** A percentage may count only charges that come before it. */
  verify: async (tx) => {
    const all = await readChargeRecords(tx, columns, { after: 0, limit: 100_000 }, false);
    const at = (r: (typeof all)[number]) => `${text(r.values, 'supplier')}\u001f`;
    const positions = new Map(all.map((r) => [`${at(r)}${text(r.values, 'name')}`, Number(r.values.position)]));
    for (const r of all) {
      for (const name of chargeNames(text(r.values, 'on_charges'))) {
        const before = positions.get(`${at(r)}${name}`);
        if (before === undefined || before >= Number(r.values.position))
          return { kind: 'not_on_file', what: 'charge', column: 'on_charges', text: name };
      }
    }
    return null;
  },
  remove: removeByIds('charge_type'),
  replan: false,
};
