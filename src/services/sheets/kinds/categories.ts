import { textColumn } from '@/core/sheets';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { readCategoryBuyers, setCategoryBuyer } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { Categories, categoryPath } from '../categories';
import { userId } from '../references';
import { type SheetKind, text } from '../sheetKind';
import { buyerColumn } from './common';

const path = textColumn('category', 250, {
  title: 'Category',
  explain: 'Names from the top down, parted by >; what is missing of it is made.',
  example: 'Yarn > Wool',
  required: true,
});
const columns = [
  { ...path, read: (t: string, how: Parameters<typeof path.read>[1]) => path.read(categoryPath(t), how) },
  buyerColumn('Sign-in name of who buys what is in it and in those below.'),
];

async function all(tx: Tx): Promise<SheetRecord[]> {
  const categories = await Categories.read(tx);
  return (await readCategoryBuyers(tx))
    .map((c) => ({ id: c.id, values: { category: categories.path(c.id), buyer: c.buyer ?? '' } }))
    .filter((r) => r.values.category !== '');
}

/** The tree of categories, and who buys what is in it. */
export const categories: SheetKind = {
  name: 'categories',
  title: 'Categories',
  about: 'The tree that items are sorted into, and who buys what.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { buyer: { what: 'user' } },
  keyOf: (v) => text(v, 'category').toLowerCase(),
  find: async (tx, rows) => {
    const wanted = new Set(rows.map((r) => text(r, 'category').toLowerCase()));
    return (await all(tx)).filter((r) => wanted.has(text(r.values, 'category').toLowerCase()));
  },
  page: async (tx, after, limit) =>
    (await all(tx))
      .filter((r) => r.id > after)
      .sort((a, b) => a.id - b.id)
      .slice(0, limit),
  // Capitals don't make another category; the name stays as it was first written.
  against: (record, values) => ({ ...record.values, ...(values.category ? { category: values.category } : {}) }),
  write: async (tx, rows, refs) => {
    const tree = await Categories.read(tx);
    for (const { values } of rows)
      await setCategoryBuyer(tx, await tree.idOf(tx, text(values, 'category')), userId(refs, values, 'buyer'));
  },
  replan: false,
};
