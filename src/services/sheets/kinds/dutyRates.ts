import { err, ok } from '@/core/result';
import { codeColumn, dateColumn, decimalColumn, type RowFault, textColumn } from '@/core/sheets';
import { readDutyRecords, upsertDutyRates } from '@/data/repositories/sheets/terms';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { foundBy, keyed, removeByIds } from './pages';

const prefix = textColumn('hs_prefix', 10, {
  title: 'HS code',
  explain: '2 to 10 digits: a chapter, a heading, a subheading; the longest that fits counts.',
  example: '5109',
  required: true,
});

const columns = [
  {
    ...prefix,
    read: (t: string) => {
      const digits = t.replace(/[\s.]/g, '');
      return /^\d{2,10}$/.test(digits)
        ? ok(digits)
        : err({ kind: 'no_such_code' as const, what: 'hs_prefix' as const });
    },
  },
  codeColumn('origin', 'country', { title: 'Origin', explain: 'Two letters; empty = any country.', example: 'JP' }),
  decimalColumn(
    'percent',
    { most: 1000, decimals: 3 },
    { title: 'Duty %', explain: 'Of the customs value.', example: '3.8', required: true },
  ),
  dateColumn('valid_from', { title: 'Valid from', explain: 'First day.', example: '2026-01-01', required: true }),
  dateColumn('valid_to', { title: 'Valid to', explain: 'Last day; empty = until another.', example: '' }),
];

/** Duty by HS code and origin. */
export const dutyRates: SheetKind = {
  name: 'duty-rates',
  title: 'Duty rates',
  about: 'Duty by HS code and country of origin, with dates.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('hs_prefix', 'origin', 'valid_from'),
  ...foundBy(readDutyRecords, columns, 'hs_prefix', 'origin', 'valid_from'),
  check: ({ values, whole }): RowFault[] => {
    const [from, to] = [text(whole, 'valid_from'), text(whole, 'valid_to')];
    return to !== '' && from > to ? [faultAt('valid_to', values, { kind: 'above_other', other: 'valid_from' })] : [];
  },
  write: (tx, rows) =>
    upsertDutyRates(
      tx,
      rows.map(({ values: v }) => [
        v.hs_prefix,
        text(v, 'origin'),
        v.percent,
        v.valid_from,
        v.valid_to ?? null,
      ]) as never,
    ),
  remove: removeByIds('duty_rate'),
  replan: false,
};
