import { dateColumn, decimalColumn, moneyColumn, type RowFault, textColumn } from '@/core/sheets';
import { readPriceRecords, upsertPrices } from '@/data/repositories/sheets/buying';
import { packId, sourceId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, packColumn, supplierColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const MOST = 999_999_999;
const columns = [
  itemColumn(),
  supplierColumn(),
  decimalColumn(
    'from_packs',
    { most: 1_000_000 },
    {
      title: 'From packs',
      explain: 'The price holds from so many packs on; 0 = from the first.',
      example: '0',
      otherwise: '0',
      aliases: ['from quantity', 'break quantity'],
    },
  ),
  dateColumn('valid_from', { title: 'Valid from', explain: 'First day.', example: '2026-01-01', required: true }),
  dateColumn('valid_to', { title: 'Valid to', explain: 'Last day; empty = until another price.', example: '' }),
  moneyColumn(
    'amount',
    { most: MOST },
    {
      title: 'Price',
      explain: 'In the supplier’s currency, without tax.',
      example: '24.50',
      required: true,
      aliases: ['amount', 'list price', 'purchase price'],
    },
  ),
  decimalColumn(
    'per_quantity',
    { least: 0.000001, most: MOST },
    { title: 'Per', explain: 'The price is for so many packs.', example: '1', otherwise: '1', aliases: ['price per'] },
  ),
  packColumn('The pack it is for; empty = per base unit.'),
  decimalColumn(
    'discount_percent',
    { most: 100, decimals: 3 },
    { title: 'Discount %', explain: 'Off the price.', example: '0', otherwise: '0' },
  ),
  textColumn('reason', 120, {
    title: 'Why',
    explain: 'A new list, a deal, a mistake put right.',
    example: 'List 2026',
  }),
];

/** Price lists of the suppliers. */
export const prices: SheetKind = {
  name: 'prices',
  title: 'Price lists',
  about: 'What suppliers charge, with breaks and from when.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, supplier: { what: 'supplier' }, pack: { what: 'pack' } },
  needsSources: true,
  keyOf: keyed('item', 'supplier', 'from_packs', 'valid_from'),
  ...foundBy(readPriceRecords, columns, 'item', 'supplier', 'from_packs', 'valid_from'),
  check: ({ values, whole }, refs) => {
    const faults: RowFault[] = [];
    const [item, supplier] = [refs.items.has(text(whole, 'item')), refs.suppliers.has(text(whole, 'supplier'))];
    if (item && supplier && sourceId(refs, whole) === null)
      faults.push(faultAt('supplier', values, { kind: 'not_on_file', what: 'source' }));
    const [from, to] = [text(whole, 'valid_from'), text(whole, 'valid_to')];
    if (to !== '' && from > to) faults.push(faultAt('valid_to', values, { kind: 'above_other', other: 'valid_from' }));
    return faults;
  },
  write: (tx, rows, refs, setting) =>
    upsertPrices(
      tx,
      rows.map(({ values: v }) => [
        ...[sourceId(refs, v), v.from_packs, v.valid_from, v.valid_to ?? null, v.amount, v.per_quantity],
        ...[packId(refs, v), v.discount_percent, v.reason ?? '', setting.userId, setting.now],
      ]) as never,
    ),
  remove: removeByIds('price'),
  replan: true,
};
