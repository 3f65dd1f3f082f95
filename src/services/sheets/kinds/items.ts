import { err } from '@/core/result';
import {
  choiceColumn,
  codeColumn,
  decimalColumn,
  defaultsOf,
  moneyColumn,
  type RowFault,
  textColumn,
  type Value,
  type Values,
  wholeColumn,
  yesNoColumn,
} from '@/core/sheets';
import { unitsByCode } from '@/core/units';
import {
  itemColumns,
  itemsWithStock,
  itemsWithUnitInUse,
  linkSuccessor,
  readItemRecords,
  readSuccessions,
  writeItems,
} from '@/data/repositories/sheets/items';
import { renameRecord, type SheetRecord, type Wanted } from '@/data/repositories/sheets/record';
import type { SqlValue, Tx } from '@/data/sql';
import { Categories, categoryPath } from '../categories';
import { findLoop } from '../findLoop';
import type { References } from '../lookedUp';
import { supplierId, userId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { buyerColumn } from './common';

/** As many characters as one name of a category may have. */
const CATEGORY_NAME = 120;

const category = textColumn('category', 250, {
  title: 'Category',
  explain: 'Names from the top down, parted by >; new ones are made.',
  example: 'Yarn > Wool',
  aliases: ['group', 'product group'],
});

const columns = [
  textColumn('number', 40, {
    title: 'Number',
    explain: 'Our item number; leading zeros are kept.',
    example: '10412-07',
    required: true,
    aliases: ['item number', 'item no', 'sku', 'article number'],
  }),
  textColumn('name', 200, {
    title: 'Name',
    explain: 'As on shelf and orders.',
    example: 'Fen Wool DK, 07 moss',
    required: true,
    aliases: ['item', 'description', 'item name'],
  }),
  {
    ...category,
    read: (t: string, how: Parameters<typeof category.read>[1]) =>
      categoryPath(t)
        .split(' > ')
        .some((n) => n.length > CATEGORY_NAME)
        ? err({ kind: 'too_long' as const, most: CATEGORY_NAME })
        : category.read(categoryPath(t), how),
  },
  codeColumn('unit', 'unit', {
    title: 'Unit',
    explain: 'Base unit that stock is kept in: UN/ECE Rec. 20 code or its name.',
    example: 'C62',
    required: true,
    aliases: ['base unit', 'unit of measure', 'uom'],
  }),
  textColumn('unit_name', 30, {
    title: 'Called',
    explain: 'What one is called on lists; empty = the unit’s name.',
    example: 'ball',
  }),
  wholeColumn(
    'sale_decimals',
    { most: 3 },
    {
      title: 'Sold to decimals',
      explain: '0 = whole units only, 1 = to the tenth, up to 3.',
      example: '0',
      otherwise: 0,
    },
  ),
  choiceColumn(
    'status',
    { active: 'active', phase_out: 'phase-out', stopped: 'stopped' },
    {
      title: 'Status',
      explain: 'active, phase-out (sold while it lasts) or stopped.',
      example: 'active',
      otherwise: 'active',
    },
  ),
  textColumn('maker', 120, {
    title: 'Maker',
    explain: 'Who makes it.',
    example: 'Fenland Mills',
    aliases: ['manufacturer'],
  }),
  textColumn('maker_number', 60, {
    title: 'Maker’s number',
    explain: 'Its number there.',
    example: 'FW-DK-07',
    aliases: ['manufacturer number'],
  }),
  choiceColumn(
    'tracking',
    { none: 'none', lot: 'lot', serial: 'serial' },
    { title: 'Tracking', explain: 'none, lot (dye lots) or serial (one by one).', example: 'lot', otherwise: 'none' },
  ),
  choiceColumn(
    'purpose',
    { resale: 'resale', own_use: 'own use', service: 'service', one_off: 'one-off' },
    { title: 'Bought for', explain: 'resale, own use, service or one-off.', example: 'resale', otherwise: 'resale' },
  ),
  textColumn('tax_category', 20, { title: 'Tax category', explain: 'As the books call it.', example: 'standard' }),
  decimalColumn(
    'weight_kg',
    { most: 99_999 },
    { title: 'Weight kg', explain: 'Of one base unit.', example: '0.055', aliases: ['weight'] },
  ),
  decimalColumn(
    'volume_l',
    { most: 999_999 },
    { title: 'Volume l', explain: 'Of one base unit.', example: '0.4', aliases: ['volume'] },
  ),
  codeColumn('hs_code', 'hs', {
    title: 'HS code',
    explain: '4 to 10 digits, for duty.',
    example: '510910',
    aliases: ['customs code', 'tariff number'],
  }),
  codeColumn('origin', 'country', {
    title: 'Origin',
    explain: 'Country where it is made, two letters.',
    example: 'GB',
    aliases: ['country of origin'],
  }),
  codeColumn('un_number', 'un_number', {
    title: 'UN number',
    explain: 'Only dangerous goods: four digits.',
    example: '',
  }),
  textColumn('hazard_class', 10, { title: 'Hazard class', explain: 'Only dangerous goods.', example: '' }),
  choiceColumn(
    'packing_group',
    { I: 'I', II: 'II', III: 'III' },
    { title: 'Packing group', explain: 'Only dangerous goods: I, II or III.', example: '', otherwise: '' },
  ),
  textColumn('hazard_name', 120, { title: 'Technical name', explain: 'Only dangerous goods.', example: '' }),
  yesNoColumn('stock_kept', {
    title: 'Stock kept',
    explain: 'no = only its availability is said.',
    example: 'yes',
    otherwise: true,
  }),
  yesNoColumn('inspect', {
    title: 'Inspect',
    explain: 'yes = what comes is looked at before it is put away.',
    example: 'no',
    otherwise: false,
  }),
  yesNoColumn('use_recorded', {
    title: 'Use recorded',
    explain: 'no = nobody writes down what goes out; what a count finds missing was used.',
    example: 'yes',
    otherwise: true,
  }),
  choiceColumn(
    'promise_rule',
    { stock: 'what lies there', on_the_way: 'also what is on the way', without_limit: 'any quantity' },
    {
      title: 'May be promised',
      explain: 'How much of it customers may be promised; empty = as the company has it.',
      example: '',
      aliases: ['available to promise'],
    },
  ),
  choiceColumn(
    'availability',
    { available: 'available', to_order: 'available to order', not_available: 'not available' },
    { title: 'Availability', explain: 'For items without stock.', example: 'available', otherwise: 'available' },
  ),
  moneyColumn(
    'standard_cost',
    { most: 999_999_999 },
    {
      title: 'Standard cost',
      explain: 'Per base unit, in the company’s currency.',
      example: '2.85',
      aliases: ['cost'],
    },
  ),
  moneyColumn(
    'sale_price',
    { most: 999_999_999 },
    { title: 'Sale price', explain: 'Per base unit.', example: '5.95', aliases: ['price', 'retail price'] },
  ),
  yesNoColumn('sale_with_tax', {
    title: 'Price with tax',
    explain: 'Whether tax is in the sale price.',
    example: 'yes',
    otherwise: true,
  }),
  decimalColumn(
    'sale_tax_rate',
    { most: 100, decimals: 3 },
    { title: 'Tax rate %', explain: 'Of the sale price.', example: '19', aliases: ['vat rate'] },
  ),
  textColumn('edition', 40, { title: 'Edition', explain: 'Latest edition or pattern version.', example: '' }),
  textColumn('successor', 40, { title: 'Successor', explain: 'Number of the item that takes its place.', example: '' }),
  textColumn('buyer_note', 400, { title: 'Note to the buyer', explain: 'Seen when it is ordered.', example: '' }),
  textColumn('account', 20, { title: 'Account', explain: 'Of the books.', example: '' }),
  textColumn('department', 40, { title: 'Department', explain: 'Or project.', example: '' }),
  buyerColumn('Sign-in name of who buys it; empty = as its category or supplier says.'),
  yesNoColumn('straight', {
    title: 'Straight from supplier',
    explain: 'Usually sent straight from the supplier to the customer.',
    example: 'no',
    otherwise: false,
  }),
  textColumn('straight_supplier', 20, {
    title: 'Sent by',
    explain: 'Code of the supplier that sends it straight; empty = the first source.',
    example: '',
  }),
];

/** Categories by path, as a template has them. */
async function shown(tx: Tx, wanted: Wanted, lock: boolean): Promise<SheetRecord[]> {
  const records = await readItemRecords(tx, columns, wanted, lock);
  if (records.length === 0) return records;
  const categories = await Categories.read(tx);
  return records.map((r) => ({ ...r, values: { ...r.values, category: categories.path(Number(r.values.category)) } }));
}

/** What a column of the table gets, where it is not the template's just so. */
function storedAs(column: string, v: Values, categories: ReadonlyMap<string, number>, refs?: References): Value {
  switch (column) {
    case 'category_id':
      return categories.get(text(v, 'category')) ?? null;
    case 'base_unit':
      return v.unit ?? null;
    case 'unit_name': {
      const unit = unitsByCode.get(text(v, 'unit'));
      return text(v, 'unit_name') || unit?.symbol || (unit?.name ?? '');
    }
    case 'packing_group':
      return v.packing_group ?? '';
    case 'buyer_id':
      return refs ? userId(refs, v, 'buyer') : null;
    case 'straight_supplier_id':
      return refs ? supplierId(refs, v, 'straight_supplier') : null;
    case 'stock_kept':
    case 'use_recorded':
    case 'inspect':
    case 'straight':
    case 'sale_with_tax':
      return v[column] ? 1 : 0;
    default:
      return v[column] ?? null;
  }
}

/** What the table gives a row that says nothing; what a row must say is nowhere a default. */
const tableDefaults = itemColumns.map((c) =>
  ['number', 'name', 'category_id', 'base_unit', 'unit_name'].includes(c)
    ? undefined
    : storedAs(c, defaultsOf(columns), new Map()),
) as SqlValue[];

const hazardous = (v: Values) => ['hazard_class', 'packing_group', 'hazard_name'].find((c) => text(v, c) !== '');

/** The catalogue. */
export const items: SheetKind = {
  name: 'items',
  title: 'Items',
  about: 'The catalogue: one row per item.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  rename: (tx, id, to) => renameRecord(tx, 'item', 'number', id, to),
  refers: {
    successor: { what: 'item', own: true },
    buyer: { what: 'user' },
    straight_supplier: { what: 'supplier' },
  },
  keyOf: (v) => text(v, 'number'),
  find: (tx, rows, _refs, lock) => shown(tx, { keys: rows.map((r) => text(r, 'number')) }, lock),
  page: (tx, after, limit) => shown(tx, { after, limit }, false),
  check: ({ values, kept, whole }, refs) => {
    const faults: RowFault[] = [];
    const number = text(whole, 'number');
    if (number !== '' && text(whole, 'successor') === number)
      faults.push(faultAt('successor', values, { kind: 'loop', through: [number, number] }));
    if (text(whole, 'straight_supplier') !== '' && whole.straight !== true)
      faults.push(faultAt('straight', values, { kind: 'needs_other', other: 'straight_supplier' }));
    if (text(whole, 'un_number') === '' && hazardous(whole))
      faults.push(faultAt('un_number', values, { kind: 'needs_other', other: hazardous(whole) as string }));
    if (kept && kept.values.unit !== whole.unit && refs.unitInUse.has(kept.id))
      faults.push(faultAt('unit', values, { kind: 'not_changeable', why: 'unit_in_use' }));
    if (kept?.values.stock_kept === true && whole.stock_kept === false && refs.withStock.has(kept.id))
      faults.push(faultAt('stock_kept', values, { kind: 'not_changeable', why: 'stock_in_use' }));
    return faults;
  },
  write: async (tx, rows, refs) => {
    const categories = await Categories.read(tx);
    const ids = new Map<string, number>();
    for (const path of new Set(rows.map((r) => text(r.values, 'category'))))
      ids.set(path, await categories.idOf(tx, path));
    await writeItems(
      tx,
      rows.map(({ values: v, kept }) => ({
        isNew: kept === null,
        values: itemColumns.map((column) => storedAs(column, v, ids, refs)) as SqlValue[],
      })),
      tableDefaults,
    );
  },
  link: async (tx, rows) => {
    for (const { values, kept } of rows) {
      const successor = text(values, 'successor');
      if (successor !== '' || text(kept?.values ?? {}, 'successor') !== '')
        await linkSuccessor(tx, text(values, 'number'), successor);
    }
  },
  verify: async (tx) => {
    const loop = findLoop(new Map((await readSuccessions(tx)).map((s) => [s.number, [s.next]])));
    return loop && { kind: 'loop', through: loop, column: 'successor', text: loop[0] as string };
  },
  unitInUse: itemsWithUnitInUse,
  withStock: itemsWithStock,
  replan: true,
};
