import { dateColumn, type RowFault, textColumn, type Values } from '@/core/sheets';
import { readClosureRecords, readHolidayRecords, upsertClosedDays } from '@/data/repositories/sheets/terms';
import { locationId, supplierId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { locationColumn, supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const days = [
  dateColumn('from_day', { title: 'From', explain: 'First day.', example: '2026-08-03', required: true }),
  dateColumn('to_day', { title: 'To', explain: 'Last day; empty = the same day.', example: '2026-08-21' }),
  textColumn('name', 80, { title: 'What', explain: 'As people call it.', example: 'Summer closure' }),
];
const ofSupplier = [supplierColumn(), ...days];
const ofPlace = [locationColumn(false), ...days];

/** One day is from and to the same. */
const settle = (v: Values): Values =>
  text(v, 'to_day') === '' && text(v, 'from_day') !== '' ? { ...v, to_day: v.from_day ?? null } : v;

const check = ({ values, whole }: { values: Values; whole: Values }): RowFault[] => {
  const [from, to] = [text(whole, 'from_day'), text(whole, 'to_day')];
  return to !== '' && from > to ? [faultAt('from_day', values, { kind: 'above_other', other: 'to_day' })] : [];
};

/** When suppliers are closed. */
export const closures: SheetKind = {
  name: 'closures',
  title: 'Closures of suppliers',
  about: 'Days on which a supplier makes and sends nothing.',
  right: 'catalogue.edit',
  columns: ofSupplier,
  byHand: true,
  refers: { supplier: { what: 'supplier' } },
  settle,
  keyOf: keyed('supplier', 'from_day'),
  ...foundBy(readClosureRecords, ofSupplier, 'supplier', 'from_day'),
  check,
  write: (tx, rows, refs) =>
    upsertClosedDays(
      tx,
      rows.map(({ values: v }) => [supplierId(refs, v), null, v.from_day, v.to_day, text(v, 'name')]) as never,
    ),
  remove: removeByIds('closed_days'),
  replan: true,
};

/** When nobody works at a place, or anywhere. */
export const holidays: SheetKind = {
  name: 'holidays',
  title: 'Holidays',
  about: 'Days on which nothing is received, everywhere or at one place.',
  right: 'setup.edit',
  columns: ofPlace,
  byHand: true,
  refers: { location: { what: 'location' } },
  settle,
  keyOf: keyed('location', 'from_day'),
  ...foundBy(readHolidayRecords, ofPlace, 'location', 'from_day'),
  check,
  write: (tx, rows, refs) =>
    upsertClosedDays(
      tx,
      rows.map(({ values: v }) => [null, locationId(refs, v), v.from_day, v.to_day, text(v, 'name')]) as never,
    ),
  remove: removeByIds('closed_days'),
  replan: true,
};
