import { textColumn } from '@/core/sheets';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { readCategoryTerms, setCategoryTerms } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { Categories } from '../categories';
import { userId } from '../references';
import { type SheetKind, text } from '../sheetKind';
import { byCategory, categoryColumn } from './byCategory';
import { buyerColumn } from './common';

const columns = [
  categoryColumn('Names from the top down, parted by >; what is missing of it is made.', true),
  buyerColumn('Sign-in name of who buys what is in it and in those below.'),
  textColumn('account', 20, {
    title: 'Account',
    explain: 'Where purchases of what is in it are booked, unless the item says one.',
    example: '3400',
  }),
];

async function all(tx: Tx): Promise<SheetRecord[]> {
  const categories = await Categories.read(tx);
  return (await readCategoryTerms(tx))
    .map((c) => ({ id: c.id, values: { category: categories.path(c.id), buyer: c.buyer ?? '', account: c.account } }))
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
  ...byCategory(all),
  write: async (tx, rows, refs) => {
    const tree = await Categories.read(tx);
    for (const { values } of rows)
      await setCategoryTerms(
        ...([
          tx,
          await tree.idOf(tx, text(values, 'category')),
          userId(refs, values, 'buyer'),
          text(values, 'account'),
        ] as const),
      );
  },
  replan: false,
};
