import { readDefaultRecords, upsertDefaults } from '@/data/repositories/sheets/policies';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import { Categories } from '../categories';
import { type SheetKind, text } from '../sheetKind';
import { byCategory, categoryColumn } from './byCategory';
import { removeByIds } from './pages';
import { checkPolicy, kindColumn, kindValue, maxColumn, minColumn, moreColumns, moreValues } from './policyColumns';

const columns = [
  categoryColumn('Names from the top down, parted by >; empty = the whole company.', false),
  kindColumn('inherit'),
  minColumn,
  maxColumn,
  // Said for the company under Setup, Planning.
  ...moreColumns,
];

async function all(tx: Tx): Promise<SheetRecord[]> {
  const categories = await Categories.read(tx);
  return (await readDefaultRecords(tx, columns)).map((r) => ({
    id: r.id,
    values: { ...r.values, category: r.values.category === null ? '' : categories.path(Number(r.values.category)) },
  }));
}

/** How items are refilled that say nothing themselves: for a category and those below it, or for the company. */
export const policyDefaults: SheetKind = {
  name: 'policy-defaults',
  title: 'Policies of categories',
  about: 'How items are refilled that say nothing themselves; without a category, for the whole company.',
  right: 'policies.edit',
  columns,
  byHand: true,
  refers: {},
  ...byCategory(all),
  // What a kind can't do without may be said of each item.
  check: ({ values, whole }) => checkPolicy(values, whole).filter((f) => f.kind !== 'missing'),
  write: async (tx, rows) => {
    const tree = await Categories.read(tx);
    const said = [];
    for (const { values: v } of rows) {
      const category = text(v, 'category');
      said.push([
        ...[category === '' ? null : await tree.idOf(tx, category), kindValue(v), v.min ?? null, v.max ?? null],
        ...moreValues(v),
      ]);
    }
    await upsertDefaults(tx, said as never);
  },
  remove: removeByIds('policy_default'),
  replan: true,
};
