import { dateColumn, decimalColumn, type RowFault, textColumn, yesNoColumn } from '@/core/sheets';
import { readTaxRecords, upsertTaxRates } from '@/data/repositories/sheets/terms';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  textColumn('category', 20, {
    title: 'Tax category',
    explain: 'As items have it.',
    example: 'standard',
    required: true,
  }),
  decimalColumn(
    'percent',
    { most: 100, decimals: 3 },
    { title: 'Tax %', explain: 'Of the net with its charges.', example: '19', required: true },
  ),
  decimalColumn(
    'own_use_percent',
    { most: 100, decimals: 3 },
    {
      title: 'Recovered on own use %',
      explain: 'How much of it is given back on what is not sold again; the rest is cost.',
      example: '100',
      otherwise: '100',
    },
  ),
  yesNoColumn('usual', {
    title: 'For the rest',
    explain: 'yes = it holds for what has no tax category.',
    example: 'no',
    otherwise: false,
  }),
  dateColumn('valid_from', { title: 'Valid from', explain: 'First day.', example: '2026-01-01', required: true }),
  dateColumn('valid_to', { title: 'Valid to', explain: 'Last day; empty = until another.', example: '' }),
];

/** What purchases are taxed with, by the category of the item, with dates. */
export const taxRates: SheetKind = {
  name: 'tax-rates',
  title: 'Tax rates',
  about: 'What purchases are taxed with, by the tax category of the item, with dates.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('category', 'valid_from'),
  ...foundBy(readTaxRecords, columns, 'category', 'valid_from'),
  check: ({ values, whole }): RowFault[] => {
    const [from, to] = [text(whole, 'valid_from'), text(whole, 'valid_to')];
    return to !== '' && from > to ? [faultAt('valid_to', values, { kind: 'above_other', other: 'valid_from' })] : [];
  },
  write: (tx, rows) =>
    upsertTaxRates(
      tx,
      rows.map(({ values: v }) => [
        ...[text(v, 'category'), v.percent, v.own_use_percent, v.usual ? 1 : 0, v.valid_from, v.valid_to ?? null],
      ]) as never,
    ),
  remove: removeByIds('tax_rate'),
  replan: false,
};
