import { choiceColumn, codeColumn, dateColumn, decimalColumn, type RowFault, textColumn } from '@/core/sheets';
import { readRateRecords, upsertCurrencyRates } from '@/data/repositories/sheets/buying';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  codeColumn('currency', 'currency', {
    title: 'Currency',
    explain: 'The foreign currency, ISO 4217.',
    example: 'USD',
    required: true,
  }),
  dateColumn('valid_from', {
    title: 'Valid from',
    explain: 'In force from this day until the next rate.',
    example: '2026-11-02',
    required: true,
    aliases: ['date', 'day'],
  }),
  choiceColumn(
    'direction',
    { base_per_foreign: 'ours for one', foreign_per_base: 'for one of ours' },
    {
      title: 'Quoted as',
      explain: '“ours for one”: our currency for one of theirs; “for one of ours”: theirs for one of ours.',
      example: 'for one of ours',
      required: true,
    },
  ),
  decimalColumn(
    'rate',
    { least: 0.0000000001, most: 9_999_999, decimals: 10 },
    { title: 'Rate', explain: 'As quoted.', example: '1.0842', required: true },
  ),
  textColumn('source', 80, { title: 'Source', explain: 'Where the rate is from.', example: 'bank' }),
];

/** Exchange rates by day. */
export const rates: SheetKind = {
  name: 'rates',
  title: 'Exchange rates',
  about: 'Rates of foreign currencies, by day, as quoted.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('currency', 'valid_from'),
  ...foundBy(readRateRecords, columns, 'currency', 'valid_from'),
  check: ({ values, whole }, _refs, setting): RowFault[] =>
    text(whole, 'currency') === setting.currency ? [faultAt('currency', values, { kind: 'own_currency' })] : [],
  write: (tx, rows) =>
    upsertCurrencyRates(
      tx,
      rows.map(({ values: v }) => [v.currency, v.valid_from, v.direction, v.rate, v.source ?? '']) as never,
    ),
  remove: removeByIds('currency_rate'),
  replan: false,
};
