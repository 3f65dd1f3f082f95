import { decimalColumn, type RowFault, wholeColumn } from '@/core/sheets';
import { readSourcePlaceRecords, upsertSourcePlaces } from '@/data/repositories/sheets/terms';
import { locationId, sourceId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn, supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  itemColumn(),
  supplierColumn(),
  locationColumn(true),
  wholeColumn('rank', { least: 1, most: 99 }, { title: 'Rank there', explain: 'Empty = as everywhere.', example: '1' }),
  decimalColumn(
    'share_percent',
    { most: 100, decimals: 3 },
    { title: 'Share % there', explain: 'Fixed share of what this place buys; empty = as everywhere.', example: '' },
  ),
];

/** Where a place buys otherwise than the others. */
export const sourcePlaces: SheetKind = {
  name: 'source-places',
  title: 'Sources of places',
  about: 'Rank or share of a source where a place differs from the others.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, supplier: { what: 'supplier' }, location: { what: 'location' } },
  needsSources: true,
  keyOf: keyed('item', 'supplier', 'location'),
  ...foundBy(readSourcePlaceRecords, columns, 'item', 'supplier', 'location'),
  check: ({ values, whole }, refs): RowFault[] =>
    refs.items.has(text(whole, 'item')) && refs.suppliers.has(text(whole, 'supplier')) && sourceId(refs, whole) === null
      ? [faultAt('supplier', values, { kind: 'not_on_file', what: 'source' })]
      : [],
  write: (tx, rows, refs) =>
    upsertSourcePlaces(
      tx,
      rows.map(({ values: v }) => [
        ...[sourceId(refs, v), locationId(refs, v), v.rank ?? null, v.share_percent ?? null],
      ]) as never,
    ),
  remove: removeByIds('source_place'),
  replan: true,
};
