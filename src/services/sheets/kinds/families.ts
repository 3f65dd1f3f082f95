import { type RowFault, textColumn } from '@/core/sheets';
import { linkMember, readFamilyRecords, unlinkMembers, upsertFamilies } from '@/data/repositories/sheets/parts';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn } from './common';
import { foundBy, keyed } from './pages';

const columns = [
  textColumn('family', 120, {
    title: 'Family',
    explain: 'Name of the family; the same on all its rows.',
    example: 'Fen Wool DK',
    required: true,
  }),
  textColumn('option_1', 40, {
    title: 'Option 1',
    explain: 'What its members differ in.',
    example: 'colour',
    required: true,
  }),
  textColumn('option_2', 40, { title: 'Option 2', explain: 'A second difference, if any.', example: '' }),
  textColumn('price_group', 40, {
    title: 'Price group',
    explain: 'Price breaks count over all items of a group.',
    example: 'FWDK',
  }),
  itemColumn(),
  textColumn('value_1', 60, {
    title: 'Value 1',
    explain: 'This item’s value of option 1.',
    example: '07 moss',
    required: true,
  }),
  textColumn('value_2', 60, { title: 'Value 2', explain: 'This item’s value of option 2.', example: '' }),
];

/** Which items are one thing in several colours or sizes. */
export const families: SheetKind = {
  name: 'families',
  title: 'Families',
  about: 'Items that are one thing in several colours or sizes: one row per member.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, family: { what: 'family' } },
  keyOf: keyed('item'),
  ...foundBy(readFamilyRecords, columns, 'item'),
  /** What is said of a family is said on each of its rows, and must be the same. */
  shared: { by: 'family', columns: ['option_1', 'option_2', 'price_group'] },
  check: ({ values, whole }) => {
    const faults: RowFault[] = [];
    if (text(whole, 'value_2') !== '' && text(whole, 'option_2') === '')
      faults.push(faultAt('value_2', values, { kind: 'needs_other', other: 'option_2' }));
    if (text(whole, 'option_2') !== '' && text(whole, 'value_2') === '')
      faults.push(faultAt('value_2', values, { kind: 'missing' }));
    return faults;
  },
  write: async (tx, rows, refs) => {
    const byName = new Map(rows.map(({ values: v }) => [text(v, 'family'), v]));
    await upsertFamilies(
      tx,
      [...byName.values()].map((v) => [
        text(v, 'family'),
        text(v, 'option_1'),
        text(v, 'option_2'),
        text(v, 'price_group'),
      ]),
    );
    for (const { values: v } of rows)
      await linkMember(tx, {
        item: itemId(refs, v) as number,
        family: text(v, 'family'),
        value1: text(v, 'value_1'),
        value2: text(v, 'value_2'),
      });
  },
  remove: async (tx, records) => {
    await unlinkMembers(
      tx,
      records.map((r) => r.id),
    );
  },
  replan: false,
};
