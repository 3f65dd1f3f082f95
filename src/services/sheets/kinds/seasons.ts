import { dateColumn, type RowFault, yesNoColumn } from '@/core/sheets';
import { readSeasonRecords, upsertSeasons } from '@/data/repositories/sheets/policies';
import { itemId, locationId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';
import { maxColumn, minColumn } from './policyColumns';

const columns = [
  itemColumn(),
  locationColumn(false),
  dateColumn('from_day', {
    title: 'From',
    explain: 'First day; every year = its year does not matter.',
    example: '2026-10-01',
    required: true,
  }),
  dateColumn('to_day', { title: 'To', explain: 'Last day.', example: '2027-02-28', required: true }),
  yesNoColumn('every_year', {
    title: 'Every year',
    explain: 'yes = it comes back every year, also over New Year.',
    example: 'yes',
    otherwise: true,
  }),
  minColumn,
  maxColumn,
];

/** Minimum and maximum of a part of the year. */
export const seasons: SheetKind = {
  name: 'seasons',
  title: 'Seasons',
  about: 'Minimum and maximum of an item in a part of the year, everywhere or at one place.',
  right: 'policies.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, location: { what: 'location' } },
  keyOf: keyed('item', 'location', 'from_day'),
  ...foundBy(readSeasonRecords, columns, 'item', 'location', 'from_day'),
  check: ({ values, whole }): RowFault[] => {
    const faults: RowFault[] = [];
    const [min, max] = [text(whole, 'min'), text(whole, 'max')];
    if (whole.every_year === false && text(whole, 'from_day') > text(whole, 'to_day'))
      faults.push(faultAt('from_day', values, { kind: 'above_other', other: 'to_day' }));
    if (min === '' && max === '') faults.push(faultAt('min', values, { kind: 'missing' }));
    if (min !== '' && max !== '' && Number(min) > Number(max))
      faults.push(faultAt('min', values, { kind: 'above_other', other: 'max' }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertSeasons(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), locationId(refs, v), v.from_day, v.to_day, v.every_year === false ? 0 : 1],
        ...[v.min ?? null, v.max ?? null],
      ]) as never,
    ),
  remove: removeByIds('policy_season'),
  replan: true,
};
