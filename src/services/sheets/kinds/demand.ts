import { dateColumn, type RowFault } from '@/core/sheets';
import { readDemandRecords, writeDemand } from '@/data/repositories/sheets/stock';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn, quantityColumn } from './common';
import { foundBy, keyed } from './pages';

const columns = [
  itemColumn(),
  locationColumn(true),
  dateColumn('day', {
    title: 'Day',
    explain: 'Day of sale.',
    example: '2026-10-05',
    required: true,
    aliases: ['date'],
  }),
  quantityColumn('quantity', 'Quantity', 'Sold or used on that day, in base units; below 0 = more came back.', '3', {
    required: true,
    least: -999_999_999,
    aliases: ['sold', 'sales', 'demand'],
  }),
];

/** What was sold or used on each day before Vorrat kept the stock. */
export const demand: SheetKind = {
  name: 'demand',
  title: 'Daily demand',
  about: 'What was sold or used each day before stock was kept here. Stock does not move by it.',
  right: 'catalogue.edit',
  columns,
  refers: { item: { what: 'item' }, location: { what: 'location' } },
  keyOf: keyed('item', 'location', 'day'),
  ...foundBy(readDemandRecords, columns, 'item', 'location', 'day'),
  check: ({ values, whole }, _refs, setting): RowFault[] =>
    text(whole, 'day') >= setting.today ? [faultAt('day', values, { kind: 'in_the_future' })] : [],
  write: (tx, rows, refs) =>
    writeDemand(
      tx,
      rows.map(({ values: v, kept }) => ({
        isNew: kept === null,
        values: [itemId(refs, v), refs.locations.get(text(v, 'location'))?.id, v.day, v.quantity],
      })) as never,
    ),
  replan: true,
};
