import { dateColumn, type RowFault, textColumn } from '@/core/sheets';
import { readDeliveryRecords, upsertDeliveries } from '@/data/repositories/sheets/buying';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, quantityColumn, supplierColumn } from './common';
import { foundBy, keyed } from './pages';

const columns = [
  supplierColumn(),
  textColumn('order_number', 40, {
    title: 'Order',
    explain: 'Number of the order as it was.',
    example: '4711',
    required: true,
    aliases: ['order number', 'po number'],
  }),
  itemColumn(),
  dateColumn('ordered_on', {
    title: 'Ordered on',
    explain: 'Day the order went out.',
    example: '2026-03-02',
    required: true,
    aliases: ['order date'],
  }),
  dateColumn('promised_on', {
    title: 'Promised for',
    explain: 'Day the supplier named, if any.',
    example: '2026-03-10',
    aliases: ['promised on', 'promised date'],
  }),
  dateColumn('received_on', {
    title: 'Received on',
    explain: 'Day the goods came.',
    example: '2026-03-11',
    required: true,
    aliases: ['receipt date', 'delivery date'],
  }),
  quantityColumn('ordered_quantity', 'Ordered', 'In base units.', '100', {
    required: true,
    least: 0.000001,
    aliases: ['ordered quantity'],
  }),
  quantityColumn('received_quantity', 'Received', 'In base units; 0 if it never came.', '100', {
    required: true,
    aliases: ['received quantity'],
  }),
];

/** Orders and receipts from before. */
export const deliveries: SheetKind = {
  name: 'deliveries',
  title: 'Delivery history',
  about: 'Past orders and when they came, so that lead times are known from the first day.',
  right: 'catalogue.edit',
  columns,
  refers: { supplier: { what: 'supplier' }, item: { what: 'item' } },
  keyOf: keyed('supplier', 'order_number', 'item', 'received_on'),
  ...foundBy(readDeliveryRecords, columns, 'supplier', 'order_number', 'item', 'received_on'),
  check: ({ values, whole }, _refs, setting) => {
    const faults: RowFault[] = [];
    const [ordered, received] = [text(whole, 'ordered_on'), text(whole, 'received_on')];
    if (ordered !== '' && received !== '' && ordered > received)
      faults.push(faultAt('ordered_on', values, { kind: 'above_other', other: 'received_on' }));
    if (received > setting.today) faults.push(faultAt('received_on', values, { kind: 'in_the_future' }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertDeliveries(
      tx,
      rows.map(({ values: v }) => [
        ...[refs.suppliers.get(text(v, 'supplier'))?.id, v.order_number, itemId(refs, v), v.ordered_on],
        ...[v.promised_on ?? null, v.received_on, v.ordered_quantity, v.received_quantity],
      ]) as never,
    ),
  replan: false,
};
