import { partQuantities } from '@/core/packs';
import { isOfPattern } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { dateColumn, decimalColumn, moneyColumn, type RowFault, textColumn, type Values } from '@/core/sheets';
import { type ItemRow, readItemsByIds, readSuppliers, type SupplierRow } from '@/data/repositories/catalogue';
import { insertOrderLine, insertPart } from '@/data/repositories/orders';
import { insertSentOrder, lockOrderByNumber, readOrderRecords, setPromised } from '@/data/repositories/sheets/orders';
import type { Tx } from '@/data/sql';
import { type BuyingBook, readBuying } from '../../catalogue/buying';
import type { References } from '../lookedUp';
import { itemId, packId } from '../references';
import { faultAt, type Setting, type SheetKind, SheetRefusal, text } from '../sheetKind';
import { itemColumn, locationColumn, packColumn, supplierColumn } from './common';
import { foundBy, keyed } from './pages';

const MOST = 999_999_999;
const columns = [
  textColumn('order_number', 40, {
    title: 'Order',
    explain: 'Number under which the supplier has it; not of our own pattern.',
    example: 'A-2207',
    required: true,
    aliases: ['order number', 'po number'],
  }),
  supplierColumn(),
  dateColumn('ordered_on', {
    title: 'Ordered on',
    explain: 'Day it went out.',
    example: '2026-11-10',
    required: true,
    aliases: ['order date'],
  }),
  itemColumn(),
  locationColumn(true),
  decimalColumn(
    'packs',
    { least: 0.000001, most: 1_000_000 },
    {
      title: 'Packs',
      explain: 'Still to come, in the pack named; base units without one.',
      example: '4',
      required: true,
      aliases: ['quantity'],
    },
  ),
  packColumn('The pack it was ordered in.'),
  moneyColumn(
    'price',
    { most: MOST },
    { title: 'Price', explain: 'Per pack, in the supplier’s currency.', example: '24.50', aliases: ['amount'] },
  ),
  decimalColumn(
    'per_quantity',
    { least: 0.000001, most: MOST },
    { title: 'Per', explain: 'The price is for so many packs.', example: '1', otherwise: '1' },
  ),
  dateColumn('wanted_on', {
    title: 'Wanted on',
    explain: 'Day the goods are wanted.',
    example: '2026-12-01',
    required: true,
    aliases: ['wanted date', 'due date'],
  }),
  dateColumn('promised_on', { title: 'Promised for', explain: 'Day the supplier named, if any.', example: '' }),
];

/** Orders that are at their suppliers already. Entered as sent, once; afterwards they are edited like any order. */
export const orders: SheetKind = {
  name: 'orders',
  title: 'Open orders',
  about: 'Orders that are at their suppliers already, with what is still to come.',
  right: 'orders.edit',
  columns,
  refers: {
    supplier: { what: 'supplier' },
    item: { what: 'item' },
    location: { what: 'location' },
    pack: { what: 'pack' },
  },
  needsSources: true,
  shared: { by: 'order_number', columns: ['supplier', 'ordered_on'] },
  keyOf: keyed('order_number', 'item', 'location', 'wanted_on'),
  ...foundBy(readOrderRecords, columns, 'order_number', 'item', 'location', 'wanted_on'),
  check: ({ values, kept, whole, changed }, refs, setting) => {
    const faults: RowFault[] = [];
    if (!kept && isOfPattern(setting.orderNumbers, text(whole, 'order_number')))
      faults.push(faultAt('order_number', values, { kind: 'own_number' }));
    if (kept && changed) faults.push(faultAt('order_number', values, { kind: 'not_changeable', why: 'order_entered' }));
    // Nothing is ordered without a price.
    if (!kept && Number(text(whole, 'price')) === 0) faults.push(faultAt('price', values, { kind: 'missing' }));
    if (!kept && text(whole, 'ordered_on') > setting.today)
      faults.push(faultAt('ordered_on', values, { kind: 'in_the_future' }));
    const source = refs.sources.get(`${itemId(refs, whole)} ${refs.suppliers.get(text(whole, 'supplier'))?.id}`);
    if (itemId(refs, whole) !== null && refs.suppliers.has(text(whole, 'supplier')) && !source)
      faults.push(faultAt('supplier', values, { kind: 'not_on_file', what: 'source' }));
    return faults;
  },
  write: async (tx, rows, refs, setting) => {
    const ids = [...new Set(rows.map((r) => itemId(refs, r.values) as number))];
    const book = {
      ...(await readBuying(tx, ids)),
      suppliers: await readSuppliers(tx),
      items: await readItemsByIds(tx, ids),
    };
    for (const { values } of rows) await enter(tx, values, refs, setting, book);
  },
  replan: true,
};

async function enter(
  tx: Tx,
  v: Values,
  refs: References,
  setting: Setting,
  book: BuyingBook & { readonly suppliers: readonly SupplierRow[]; readonly items: ReadonlyMap<number, ItemRow> },
): Promise<void> {
  const { items, suppliers } = book;
  const supplierId = refs.suppliers.get(text(v, 'supplier'))?.id as number;
  const item = items.get(itemId(refs, v) as number);
  const number = text(v, 'order_number');
  const there = await lockOrderByNumber(tx, number);
  if (!item || (there && there.supplierId !== supplierId))
    throw new SheetRefusal(faultAt('order_number', v, { kind: 'order_of_another' }));
  const orderId =
    there?.id ??
    (await insertSentOrder(
      tx,
      { number, orderDate: text(v, 'ordered_on'), userId: setting.userId, at: setting.now },
      suppliers.find((s) => s.id === supplierId) as SupplierRow,
    ));
  const source = [...book.bySource.values()].find(
    (b) => b.source.itemId === item.id && b.source.supplierId === supplierId,
  );
  const pack = packId(refs, v);
  const content = book.contentOf(pack);
  const packs = fromDecimal(text(v, 'packs'));
  const [base] = partQuantities([packs], content) as [number];
  const price = text(v, 'price') === '' ? null : text(v, 'price');
  const quantities = { packQuantity: toDecimal(packs), baseQuantity: toDecimal(base) };
  const lineId = await insertOrderLine(tx, {
    ...{ orderId, lineNo: (there?.lines ?? 0) + 1, kind: 'stock', itemId: item.id },
    ...{ sourceId: source?.source.id ?? null, description: item.name },
    ...{ supplierItemNumber: source?.source.supplierItemNumber ?? '', packId: pack },
    ...{ packName: text(v, 'pack') || item.unitName, contentNum: Number(content.num), contentDen: Number(content.den) },
    ...quantities,
    ...{
      priceAmount: price,
      expectedAmount: price,
      pricePer: text(v, 'per_quantity') || '1',
      priceOrigin: null,
      edition: source?.source.edition ?? '',
      freeOfCharge: 0,
      unordered: 0,
    },
    ...{ priceContentNum: Number(content.num), priceContentDen: Number(content.den) },
  });
  const locationId = refs.locations.get(text(v, 'location'))?.id as number;
  await insertPart(tx, {
    lineId,
    partNo: 1,
    locationId,
    ...quantities,
    wantedDate: text(v, 'wanted_on'),
    trayLineId: null,
  });
  if (text(v, 'promised_on') !== '') await setPromised(tx, lineId, text(v, 'promised_on'));
}
