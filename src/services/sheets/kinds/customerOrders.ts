import { dateColumn, decimalColumn, type RowFault, textColumn, type Values, yesNoColumn } from '@/core/sheets';
import { drawNumber } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import {
  findByReference,
  findCustomer,
  insertCustomer,
  insertCustomerLines,
  insertCustomerOrder,
  lockCustomerOrder,
  readCustomerLines,
  touchCustomerOrder,
} from '@/data/repositories/customerOrders';
import type { Pair } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { readCustomerOrderRecords } from '@/data/repositories/sheets/customerOrders';
import type { Tx } from '@/data/sql';
import { linesToEnter, pairsOfLines } from '../../promise/postLines';
import { shareOut } from '../../promise/shareOut';
import { numberText, periodOf } from '../../purchase/orderNumber';
import type { References } from '../lookedUp';
import { itemId, packId } from '../references';
import { faultAt, type Setting, type SheetKind, SheetRefusal, text } from '../sheetKind';
import { itemColumn, locationColumn, packColumn } from './common';
import { foundBy, keyed } from './pages';

const columns = [
  textColumn('order_number', 60, {
    title: 'Order',
    explain: 'The number the customer knows it by.',
    example: '1043',
    required: true,
    aliases: ['order number', 'reference'],
  }),
  textColumn('customer', 120, {
    title: 'Customer',
    explain: 'Name; who is not on file yet becomes a customer.',
    example: 'Ada Fenwright',
    required: true,
    aliases: ['name', 'customer name'],
  }),
  textColumn('mail', 200, { title: 'Mail', explain: 'Where the customer is told.', example: 'ada@fenwright.example' }),
  dateColumn('ordered_on', {
    title: 'Ordered on',
    explain: 'Day it was ordered.',
    example: '2026-11-20',
    required: true,
    aliases: ['order date'],
  }),
  yesNoColumn('only_complete', {
    title: 'Only complete',
    explain: 'Goes out only when all of it is there.',
    example: 'no',
    otherwise: false,
  }),
  itemColumn(),
  locationColumn(true),
  decimalColumn(
    'packs',
    { least: 0.000001, most: 99_999 },
    {
      title: 'Quantity',
      explain: 'In the pack named; base units without one.',
      example: '4',
      required: true,
      aliases: ['quantity'],
    },
  ),
  packColumn('The pack it was ordered in.'),
  yesNoColumn('to_be_sent', {
    title: 'To be sent',
    explain: 'Sent to the customer; else it is collected.',
    example: 'no',
    otherwise: false,
  }),
  dateColumn('wanted_on', {
    title: 'Wanted on',
    explain: 'Day the customer wants it.',
    example: '2026-12-01',
    required: true,
    aliases: ['wanted date', 'due date'],
  }),
  dateColumn('ship_by', { title: 'To go out by', explain: 'Empty: the day it is wanted.', example: '' }),
];

/** What customers have ordered elsewhere. Entered once, put by in turn with everybody who waits; afterwards an order is worked
 *  in like any other. */
export const customerOrders: SheetKind = {
  name: 'customer-orders',
  title: 'Customers’ orders',
  about: 'What customers have ordered and not had yet.',
  right: 'promises.edit',
  columns,
  refers: { item: { what: 'item' }, location: { what: 'location' }, pack: { what: 'pack' } },
  shared: { by: 'order_number', columns: ['customer', 'mail', 'ordered_on', 'only_complete'] },
  settle: (values) => ({ ...values, ship_by: values.ship_by ?? values.wanted_on ?? null }),
  keyOf: keyed('order_number', 'item', 'location', 'wanted_on'),
  ...foundBy(readCustomerOrderRecords, columns, 'order_number', 'item', 'location', 'wanted_on'),
  check: ({ values, kept, whole, changed }, _refs, setting) => {
    const faults: RowFault[] = [];
    if (kept && changed) faults.push(faultAt('order_number', values, { kind: 'not_changeable', why: 'order_entered' }));
    if (!kept && text(whole, 'ordered_on') > setting.today)
      faults.push(faultAt('ordered_on', values, { kind: 'in_the_future' }));
    return faults;
  },
  write: async (tx, rows, refs, setting) => {
    const pairs: Pair[] = [];
    for (const { values, kept } of rows) if (!kept) pairs.push(...(await enter(tx, values, refs, setting)));
    markDirty(tx, pairs);
    await shareOut(tx, setting, pairs);
  },
  replan: true,
};

/** One line; the first of an order makes the order. Returns what it takes stock of. */
async function enter(tx: Tx, v: Values, refs: References, setting: Setting): Promise<Pair[]> {
  const { timeZone } = await readCompany(tx);
  const { userId, now: at, today } = setting;
  const lines = await linesToEnter(tx, { today, timeZone }, [
    {
      ...{ itemId: itemId(refs, v) as number, packId: packId(refs, v), quantity: text(v, 'packs') },
      locationId: refs.locations.get(text(v, 'location'))?.id as number,
      way: v.to_be_sent === true ? 'from_stock' : 'collect',
      ...{ wantedDate: text(v, 'wanted_on'), shipBy: text(v, 'ship_by'), holdUntil: '' },
    },
  ]);
  if (!lines.ok) {
    const fault = lines.error.kind === 'invalid_field' ? lines.error.fault : null;
    const most = fault?.kind === 'sold_to_decimals' ? fault.decimals : 6;
    throw new SheetRefusal(faultAt('packs', v, { kind: 'too_many_decimals', most }));
  }
  const reference = text(v, 'order_number');
  const there = await findByReference(tx, 'file', reference);
  const orderId = there?.id ?? (await begin(tx, v, { userId, at, today, reference }));
  const order = await lockCustomerOrder(tx, orderId);
  if (order?.state !== 'open' || order.customer !== text(v, 'customer'))
    throw new SheetRefusal(faultAt('order_number', v, { kind: 'order_of_another' }));
  const last = Math.max(0, ...(await readCustomerLines(tx, [orderId])).map((l) => l.lineNo));
  await insertCustomerLines(tx, orderId, last, lines.value);
  await touchCustomerOrder(tx, order);
  return pairsOfLines(lines.value);
}

async function begin(
  tx: Tx,
  v: Values,
  by: { userId: number; at: string; today: string; reference: string },
): Promise<number> {
  const [name, mail] = [text(v, 'customer'), text(v, 'mail')];
  const made = { name, mail, phone: '', address: '', priority: 5, delivers: 'in_part' as const, note: '' };
  const customer = (await findCustomer(tx, name, mail)) ?? { ...made, id: await insertCustomer(tx, made) };
  const period = periodOf(by.today);
  return insertCustomerOrder(tx, {
    ...{ number: numberText('CO', period, await drawNumber(tx, 'CO', period)), customerId: customer.id },
    ...{ channel: 'file', reference: by.reference, orderedOn: text(v, 'ordered_on'), priority: customer.priority },
    delivers: v.only_complete === true ? 'complete' : customer.delivers,
    ...{ note: '', userId: by.userId, at: by.at },
  });
}
