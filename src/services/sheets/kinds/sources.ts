import { choiceColumn, decimalColumn, textColumn, wholeColumn } from '@/core/sheets';
import { readSourceRecords, upsertSources } from '@/data/repositories/sheets/buying';
import { itemId, packId } from '../references';
import { type SheetKind, text } from '../sheetKind';
import { itemColumn, packColumn, quantityColumn, supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  itemColumn(),
  supplierColumn(),
  wholeColumn(
    'rank',
    { least: 1, most: 99 },
    {
      title: 'Rank',
      explain: '1 = bought there first.',
      example: '1',
      otherwise: 1,
      aliases: ['preference', 'priority'],
    },
  ),
  textColumn('supplier_item_number', 60, {
    title: 'Supplier’s number',
    explain: 'Its number of the item.',
    example: 'HW-207',
    aliases: ['supplier item number', 'supplier part number', 'order number'],
  }),
  textColumn('supplier_item_name', 200, {
    title: 'Supplier’s name',
    explain: 'Its name of the item.',
    example: 'Fen DK moss',
  }),
  packColumn('The pack it is ordered in; empty = base units.'),
  quantityColumn('minimum_quantity', 'Minimum', 'Least quantity of an order, in base units.', '0', {
    otherwise: '0',
    aliases: ['minimum order quantity', 'moq'],
  }),
  wholeColumn(
    'multiple_packs',
    { least: 1, most: 9999 },
    {
      title: 'Multiple',
      explain: 'Packs are ordered in multiples of so many.',
      example: '1',
      otherwise: 1,
      aliases: ['order multiple'],
    },
  ),
  choiceColumn(
    'rounding',
    { up: 'up', nearest: 'nearest', none: 'none' },
    { title: 'Rounding', explain: 'To whole packs: up, nearest or none.', example: 'up', otherwise: 'up' },
  ),
  wholeColumn(
    'lead_time_days',
    { most: 365 },
    { title: 'Lead time', explain: 'Only if different from the supplier’s, in its kind of days.', example: '' },
  ),
  decimalColumn(
    'share_percent',
    { most: 100, decimals: 3 },
    { title: 'Share %', explain: 'Fixed share of what is bought, instead of the rank.', example: '' },
  ),
  choiceColumn(
    'break_scope',
    { line: 'line', item: 'item', price_group: 'price group' },
    {
      title: 'Breaks count',
      explain: 'Over a line, over the item on the whole order, or over its price group.',
      example: 'item',
      otherwise: 'item',
    },
  ),
];

/** Which supplier sells which item. */
export const sources: SheetKind = {
  name: 'sources',
  title: 'Sources',
  about: 'Which supplier sells which item, in which pack.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, supplier: { what: 'supplier' }, pack: { what: 'pack' } },
  keyOf: keyed('item', 'supplier'),
  ...foundBy(readSourceRecords, columns, 'item', 'supplier'),
  write: (tx, rows, refs) =>
    upsertSources(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), refs.suppliers.get(text(v, 'supplier'))?.id, v.rank, v.supplier_item_number ?? ''],
        ...[v.supplier_item_name ?? '', packId(refs, v), v.minimum_quantity, v.multiple_packs, v.rounding],
        ...[v.lead_time_days ?? null, v.share_percent ?? null, v.break_scope],
      ]) as never,
    ),
  remove: removeByIds('source', { first: ['price', 'source_place'], by: 'source_id' }),
  replan: true,
};
