import { decimalColumn, moneyColumn, yesNoColumn } from '@/core/sheets';
import { readSalePriceRecords, upsertSalePrices } from '@/data/repositories/sheets/terms';
import { itemId, locationId, packId } from '../references';
import type { SheetKind } from '../sheetKind';
import { itemColumn, locationColumn, packColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  itemColumn(),
  packColumn('The pack it is for; empty = the base unit.'),
  locationColumn(false),
  moneyColumn(
    'amount',
    { most: 999_999_999 },
    { title: 'Price', explain: 'In the company’s currency.', example: '55.00', required: true },
  ),
  yesNoColumn('with_tax', { title: 'With tax', explain: 'Whether tax is in it.', example: 'yes', otherwise: true }),
  decimalColumn(
    'tax_rate',
    { most: 100, decimals: 3 },
    { title: 'Tax rate %', explain: 'Of this price.', example: '19' },
  ),
];

/** Prices to sell at that are set and not computed: of packs, at places. */
export const salePrices: SheetKind = {
  name: 'sale-prices',
  title: 'Sale prices',
  about: 'Prices set for a pack or a place; others follow from the item’s price per unit.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, pack: { what: 'pack' }, location: { what: 'location' } },
  keyOf: keyed('item', 'pack', 'location'),
  ...foundBy(readSalePriceRecords, columns, 'item', 'pack', 'location'),
  write: (tx, rows, refs) =>
    upsertSalePrices(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), packId(refs, v), locationId(refs, v), v.amount, v.with_tax === true ? 1 : 0],
        v.tax_rate ?? null,
      ]) as never,
    ),
  remove: removeByIds('sale_price'),
  replan: false,
};
