import { textColumn, yesNoColumn } from '@/core/sheets';
import {
  deleteItemPlaces,
  readItemPlacePage,
  readItemPlaceRecords,
  upsertItemPlaces,
} from '@/data/repositories/sheets/terms';
import { itemId, locationId, supplierId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn } from './common';
import { foundBy, keyed, pageOf } from './pages';

const columns = [
  itemColumn(),
  locationColumn(true),
  textColumn('shelf', 40, {
    title: 'Shelf place',
    explain: 'Where it lies there.',
    example: 'B-07',
    aliases: ['shelf', 'bin'],
  }),
  yesNoColumn('straight', {
    title: 'Straight from supplier',
    explain: 'Sold there straight from the supplier; empty = as the item says.',
    example: '',
  }),
  textColumn('straight_supplier', 20, {
    title: 'Sent by',
    explain: 'Code of the supplier that sends it straight; empty = as the item says.',
    example: '',
  }),
];

/** What is said of an item at a place. */
export const itemPlaces: SheetKind = {
  name: 'places',
  title: 'Items at places',
  about: 'Shelf places, and what a place sells straight from the supplier.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {
    item: { what: 'item' },
    location: { what: 'location' },
    straight_supplier: { what: 'supplier' },
  },
  keyOf: keyed('item', 'location'),
  ...foundBy(readItemPlaceRecords, columns, 'item', 'location'),
  page: async (tx, after, limit) => pageOf(columns, await readItemPlacePage(tx, after, limit)),
  check: ({ values, whole }) =>
    text(whole, 'straight_supplier') !== '' && whole.straight === false
      ? [faultAt('straight', values, { kind: 'needs_other', other: 'straight_supplier' })]
      : [],
  write: (tx, rows, refs) =>
    upsertItemPlaces(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), locationId(refs, v), text(v, 'shelf')],
        ...[v.straight === null || v.straight === undefined ? null : v.straight ? 1 : 0],
        supplierId(refs, v, 'straight_supplier'),
      ]) as never,
    ),
  remove: async (tx, records, refs) => {
    await deleteItemPlaces(
      tx,
      records.map((r) => [itemId(refs, r.values), locationId(refs, r.values)]),
    );
  },
  replan: false,
};
