import { decimalsOf, isCurrency, minorToDecimal } from '@/core/money';
import {
  choiceColumn,
  codeColumn,
  decimalColumn,
  moneyColumn,
  textColumn,
  type Values,
  weekColumn,
  wholeColumn,
} from '@/core/sheets';
import { plainDecimal, renameRecord, type SheetRecord } from '@/data/repositories/sheets/record';
import { readSupplierRecords, supplierColumns, upsertSuppliers } from '@/data/repositories/sheets/suppliers';
import { userId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { buyerColumn } from './common';
import { timeColumn } from './timeColumn';

const MONEY = 999_999_999;
const amount = (key: string, title: string, explain: string, example: string) =>
  moneyColumn(key, { most: MONEY }, { title, explain, example });

const columns = [
  textColumn('code', 20, {
    title: 'Code',
    explain: 'Our short name for it.',
    example: 'HOL',
    required: true,
    aliases: ['supplier code', 'supplier number', 'vendor'],
  }),
  textColumn('name', 120, {
    title: 'Name',
    explain: 'As on its invoices.',
    example: 'Hollinmere Spinners',
    required: true,
    aliases: ['supplier', 'supplier name', 'vendor name'],
  }),
  textColumn('address', 400, {
    title: 'Order address',
    explain: 'Where orders go.',
    example: 'Fellside 4, 10220 Hollinmere',
    aliases: ['address'],
  }),
  textColumn('contact', 120, { title: 'Contact', explain: 'Who answers there.', example: 'Ada Fenn' }),
  {
    ...codeColumn('email', 'mail', {
      title: 'Mail',
      explain: 'Where orders are mailed to.',
      example: 'orders@hollinmere.example',
      aliases: ['e-mail', 'email address'],
    }),
  },
  textColumn('phone', 40, { title: 'Phone', explain: '', example: '+00 417 2210' }),
  textColumn('language', 10, { title: 'Language', explain: 'Of its orders, as a code.', example: 'en' }),
  codeColumn('currency', 'currency', {
    title: 'Currency',
    explain: 'ISO 4217 code; its prices are in it.',
    example: 'EUR',
    required: true,
  }),
  textColumn('payment_terms', 120, {
    title: 'Payment terms',
    explain: 'As printed on orders.',
    example: '14 days 2 %, 30 days net',
    aliases: ['terms of payment'],
  }),
  wholeColumn(
    'payment_days',
    { most: 365 },
    { title: 'Payment days', explain: 'Days to the net due date.', example: '30' },
  ),
  decimalColumn(
    'discount_percent',
    { most: 100, decimals: 3 },
    { title: 'Cash discount %', explain: 'For paying early.', example: '2' },
  ),
  wholeColumn(
    'discount_days',
    { most: 365 },
    { title: 'Cash discount days', explain: 'Within so many days.', example: '14' },
  ),
  textColumn('delivery_terms', 120, {
    title: 'Delivery terms',
    explain: 'In own words, as printed on orders.',
    example: 'DAP, parcel',
    aliases: ['terms of delivery'],
  }),
  codeColumn('incoterm', 'incoterm', { title: 'Incoterm', explain: 'Incoterms 2020 code.', example: 'DAP' }),
  textColumn('incoterm_place', 80, {
    title: 'Incoterm place',
    explain: 'The place named with it.',
    example: 'Quillon',
  }),
  choiceColumn(
    'freight_payer',
    { prepaid: 'prepaid', collect: 'collect', third_party: 'third party' },
    { title: 'Freight', explain: 'prepaid (by the supplier), collect (by us) or third party.', example: 'prepaid' },
  ),
  {
    ...amount('order_minimum', 'Order minimum', 'In the supplier’s currency, without tax.', '400'),
    otherwise: '0',
    aliases: ['minimum order', 'minimum order value', 'moq value'],
  },
  amount('minimum_weight_kg', 'Minimum weight kg', 'Instead or besides: least weight of an order.', ''),
  amount('minimum_quantity', 'Minimum quantity', 'Instead or besides: least quantity of an order, in base units.', ''),
  amount('freight_fixed', 'Freight per order', 'Fixed sum per order, in its currency.', '9.50'),
  amount('freight_per_kg', 'Freight per kg', 'In its currency.', ''),
  amount('freight_free_from', 'Free freight from', 'Value from which freight is free.', '750'),
  weekColumn('order_days', {
    title: 'Order days',
    explain: 'On which days it takes orders.',
    example: 'Mon-Fri',
    aliases: ['ordering days'],
  }),
  timeColumn('cut_off', { title: 'Cut-off', explain: 'Until when an order goes out the same day.', example: '11:00' }),
  wholeColumn(
    'lead_time_days',
    { most: 365 },
    {
      title: 'Lead time',
      explain: 'Days from order to arrival.',
      example: '6',
      required: true,
      aliases: ['lead time days', 'delivery time'],
    },
  ),
  choiceColumn(
    'lead_time_kind',
    { working: 'working days', calendar: 'calendar days' },
    { title: 'Lead time in', explain: 'working days or calendar days.', example: 'working days', otherwise: 'working' },
  ),
  textColumn('order_text', 400, {
    title: 'Text on orders',
    explain: 'Printed on every order.',
    example: 'Please pack dye lots apart.',
  }),
  choiceColumn(
    'tray_rule',
    { one_order: 'one order', per_location: 'one per location' },
    {
      title: 'Tray makes',
      explain: 'One order for all locations, or one per location.',
      example: 'one order',
      otherwise: 'one_order',
    },
  ),
  choiceColumn(
    'status',
    { active: 'active', blocked: 'blocked' },
    { title: 'Status', explain: 'active or blocked.', example: 'active', otherwise: 'active' },
  ),
  textColumn('shipping_way', 60, {
    title: 'Shipping way',
    explain: 'One of the ways kept in Setup, own pick-up included.',
    example: 'Parcel',
  }),
  choiceColumn(
    'minimum_base',
    { before_discount: 'goods before order discount', after_discount: 'goods after order discount' },
    {
      title: 'Minimum counts',
      explain: 'What the order minimum and free freight are compared with.',
      example: 'goods before order discount',
      otherwise: 'before_discount',
    },
  ),
  decimalColumn(
    'over_percent',
    { most: 100, decimals: 3 },
    { title: 'Over-delivery %', explain: 'So much more than ordered is taken without a word.', example: '5' },
  ),
  decimalColumn(
    'under_percent',
    { most: 100, decimals: 3 },
    { title: 'Under-delivery %', explain: 'So much less counts as all of it.', example: '2' },
  ),
  wholeColumn(
    'date_tolerance_days',
    { most: 60 },
    { title: 'Days of tolerance', explain: 'Beside the promised date still counts as on time.', example: '1' },
  ),
  choiceColumn(
    'tax_regime',
    { domestic: 'domestic', within_union: 'within the union', import: 'import', exempt: 'exempt' },
    {
      title: 'Tax regime',
      explain: 'domestic, within the union, import or exempt.',
      example: 'domestic',
      otherwise: 'domestic',
    },
  ),
  choiceColumn(
    'matching',
    { two_way: 'with the order', three_way: 'with order and receipt' },
    {
      title: 'Invoices are held against',
      explain: 'the order alone (two-way matching), or also what came (three-way).',
      example: 'with order and receipt',
      otherwise: 'three_way',
    },
  ),
  buyerColumn('Sign-in name of who buys there, where item and category say nobody.'),
];

/** The minimum is shown in money and kept in minor units. */
const shown = (records: readonly SheetRecord[]): SheetRecord[] =>
  records.map(({ id, values }) => {
    const money = minorToDecimal(Number(values.order_minimum), text(values, 'currency'));
    return { id, values: { ...values, order_minimum: plainDecimal(money) } };
  });

const minimumMinor = (v: Values): number =>
  Math.round(Number(v.order_minimum ?? '0') * 10 ** decimalsOf(text(v, 'currency')));

/** Who is bought from. */
export const suppliers: SheetKind = {
  name: 'suppliers',
  title: 'Suppliers',
  about: 'Who is bought from, with terms, minimums and lead times.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  rename: (tx, id, to) => renameRecord(tx, 'supplier', 'code', id, to),
  refers: { shipping_way: { what: 'shipping_way' }, buyer: { what: 'user' } },
  keyOf: (v) => text(v, 'code'),
  find: async (tx, rows, _refs, lock) =>
    shown(await readSupplierRecords(tx, columns, { keys: rows.map((r) => text(r, 'code')) }, lock)),
  page: async (tx, after, limit) => shown(await readSupplierRecords(tx, columns, { after, limit }, false)),
  check: ({ values, kept, whole }) => {
    const faults = [];
    const decimals = isCurrency(text(whole, 'currency')) ? decimalsOf(text(whole, 'currency')) : 6;
    if ((text(whole, 'order_minimum').split('.')[1] ?? '').length > decimals)
      faults.push(faultAt('order_minimum', values, { kind: 'too_many_decimals', most: decimals }));
    if (kept && kept.values.currency !== whole.currency)
      faults.push(faultAt('currency', values, { kind: 'not_changeable', why: 'currency_in_use' }));
    if (text(whole, 'discount_percent') !== '' && whole.discount_days === null)
      faults.push(faultAt('discount_days', values, { kind: 'needs_other', other: 'discount_percent' }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertSuppliers(
      tx,
      rows.map(({ values: v }) => {
        const kept: Readonly<Record<string, unknown>> = {
          ...v,
          order_minimum_minor: minimumMinor(v),
          shipping_way_id: refs.shippingWays.get(text(v, 'shipping_way'))?.id,
          buyer_id: userId(refs, v, 'buyer'),
        };
        return supplierColumns.map((c) => kept[c] ?? null);
      }) as never,
    ),
  replan: true,
};
