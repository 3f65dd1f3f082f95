import { textColumn } from '@/core/sheets';
import { readShippingRecords, upsertShippingWays } from '@/data/repositories/sheets/terms';
import { type SheetKind, text } from '../sheetKind';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  textColumn('name', 60, { title: 'Way', explain: 'How goods come.', example: 'Own pick-up', required: true }),
  textColumn('note', 200, { title: 'Note', explain: 'For whoever orders.', example: 'Van goes on Thursdays' }),
];

/** How goods come. */
export const shippingWays: SheetKind = {
  name: 'shipping-ways',
  title: 'Shipping ways',
  about: 'Ways in which suppliers send, own pick-up included.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('name'),
  ...foundBy(readShippingRecords, columns, 'name'),
  write: (tx, rows) => upsertShippingWays(tx, rows.map(({ values: v }) => [v.name ?? '', text(v, 'note')]) as never),
  remove: removeByIds('shipping_way'),
  replan: false,
};
