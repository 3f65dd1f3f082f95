import { contentMicro } from '@/core/packs';
import { err, ok } from '@/core/result';
import {
  cellNumber,
  codeColumn,
  decimalColumn,
  type RowFault,
  textColumn,
  type Values,
  yesNoColumn,
} from '@/core/sheets';
import { conversionFactor, decimalFraction, type Fraction, fraction, times } from '@/core/units';
import {
  linkOuterPack,
  readPackRecords,
  readPacksOfPacks,
  setUsualPack,
  type UsualPack,
  upsertPacks,
} from '@/data/repositories/sheets/packs';
import { findLoop } from '../findLoop';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { removeByIds } from './pages';

const MOST = 1_000_000;
const plainContent = textColumn('content', 40, {
  title: 'Content',
  explain: 'How many units, or packs of the pack named beside; a fraction such as 1/3 is understood.',
  example: '10',
  required: true,
  aliases: ['quantity', 'units per pack'],
});

/** A decimal or a fraction above 0. */
export const contentColumn = {
  ...plainContent,
  read: (t: string, how: Parameters<typeof plainContent.read>[1]) => {
    if (/^[1-9]\d{0,8}\/[1-9]\d{0,8}$/.test(t)) return ok(t);
    const n = cellNumber(t, how.decimal, 6);
    if (!n.ok) return n;
    return Number(n.value) > 0 && Number(n.value) <= MOST
      ? ok(n.value)
      : err({ kind: 'out_of_range' as const, least: '0.000001', most: String(MOST) });
  },
  write: (v: string | number | boolean, how: Parameters<typeof plainContent.write>[1]) =>
    String(v).replace('.', how.decimal),
};

/** The content as a fraction: a decimal, or a whole number over another. */
const contentOf = (value: string): Fraction => {
  const [num, den] = value.split('/');
  return den === undefined ? decimalFraction(num as string) : fraction(BigInt(num as string), BigInt(den));
};

export const usualColumns = [
  yesNoColumn('buying', { title: 'Usual for buying', explain: 'One pack per item.', example: 'yes', otherwise: false }),
  yesNoColumn('selling', {
    title: 'Usual for selling',
    explain: 'One pack per item.',
    example: 'no',
    otherwise: false,
  }),
  yesNoColumn('sending', {
    title: 'Usual for sending',
    explain: 'Between locations; one pack per item.',
    example: 'yes',
    otherwise: false,
  }),
];

const columns = [
  textColumn('item', 40, {
    title: 'Item',
    explain: 'Our item number.',
    example: '10412-07',
    required: true,
    aliases: ['item number', 'number'],
  }),
  textColumn('pack', 60, {
    title: 'Pack',
    explain: 'What it is called.',
    example: 'bag',
    required: true,
    aliases: ['pack name'],
  }),
  contentColumn,
  textColumn('of_pack', 60, {
    title: 'Of pack',
    explain: 'A pack of the same item that it holds; empty = the base unit.',
    example: '',
  }),
  codeColumn('unit', 'unit', {
    title: 'In unit',
    explain: 'If the content is in another unit of the same kind than the item (yards of a cloth kept in metres).',
    example: '',
  }),
  decimalColumn(
    'weight_kg',
    { most: 99_999 },
    { title: 'Weight kg', explain: 'Of the whole pack; empty = from the item.', example: '0.6' },
  ),
  decimalColumn('volume_l', { most: 999_999 }, { title: 'Volume l', explain: 'Of the whole pack.', example: '6' }),
  ...usualColumns,
];

/** Content in base units (or packs of the other pack), with the unit it is given in. */
function countOf(v: Values, baseUnit: string): Fraction | null {
  const given = contentOf(text(v, 'content'));
  const unit = text(v, 'unit');
  if (unit === '' || unit === baseUnit) return given;
  const factor = conversionFactor(unit, baseUnit);
  return factor.ok ? times(given, factor.value) : null;
}

/** What items come in. */
export const packs: SheetKind = {
  name: 'packs',
  title: 'Packs',
  about: 'What an item comes in: bags, cartons, bolts, cards.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, of_pack: { what: 'pack', own: true } },
  keyOf: (v) => `${text(v, 'item')}\u001f${text(v, 'pack')}`,
  find: (tx, rows, _refs, lock) =>
    readPackRecords(tx, columns, { pairs: rows.map((r) => [text(r, 'item'), text(r, 'pack')]) }, lock),
  page: (tx, after, limit) => readPackRecords(tx, columns, { after, limit }, false),
  listed: (tx, column, value) => readPackRecords(tx, columns, { of: column, is: value }, false),
  remove: removeByIds('pack'),
  check: ({ values, whole }, refs) => {
    const faults: RowFault[] = [];
    const item = refs.items.get(text(whole, 'item'));
    if (text(whole, 'of_pack') !== '' && text(whole, 'of_pack') === text(whole, 'pack'))
      faults.push(faultAt('of_pack', values, { kind: 'loop', through: [text(whole, 'pack'), text(whole, 'pack')] }));
    if (text(whole, 'of_pack') !== '' && text(whole, 'unit') !== '')
      faults.push(faultAt('unit', values, { kind: 'not_one_of', choices: ['empty beside “Of pack”'] }));
    else if (item && text(whole, 'content') !== '') {
      const count = countOf(whole, item.baseUnit);
      if (!count) faults.push(faultAt('unit', values, { kind: 'other_dimension', unit: item.baseUnit }));
      else if (whole.buying && text(whole, 'of_pack') === '' && !contentMicro(count).ok)
        faults.push(faultAt('content', values, { kind: 'not_exact', unit: item.baseUnit }));
    }
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertPacks(
      tx,
      rows.map(({ values: v }) => {
        const item = refs.items.get(text(v, 'item'));
        const count = countOf(v, item?.baseUnit ?? '') ?? fraction(1);
        return [
          ...[itemId(refs, v), v.pack, Number(count.num), Number(count.den), v.content, text(v, 'unit')],
          ...[v.weight_kg ?? null, v.volume_l ?? null],
        ];
      }) as never,
    ),
  link: async (tx, rows, refs) => {
    for (const { values: v, kept } of rows) {
      const item = itemId(refs, v) as number;
      const had = kept?.values ?? {};
      if (text(v, 'of_pack') !== text(had, 'of_pack'))
        await linkOuterPack(tx, item, text(v, 'pack'), text(v, 'of_pack'));
      for (const what of ['buying', 'selling', 'sending'] as UsualPack[])
        if ((v[what] ?? false) !== (had[what] ?? false))
          await setUsualPack(tx, item, text(v, 'pack'), what, v[what] === true);
    }
  },
  verify: async (tx) => {
    const leads = new Map<string, string[]>();
    for (const p of await readPacksOfPacks(tx)) leads.set(`${p.itemNumber} ${p.name}`, [`${p.itemNumber} ${p.of}`]);
    const loop = findLoop(leads);
    return loop && { kind: 'loop', through: loop, column: 'of_pack', text: loop[0] as string };
  },
  replan: true,
};
