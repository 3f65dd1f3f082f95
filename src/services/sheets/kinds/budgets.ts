import { dateColumn, moneyColumn } from '@/core/sheets';
import { readBudgetRecords, upsertBudgets } from '@/data/repositories/sheets/buying';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import { Categories } from '../categories';
import { type SheetKind, text } from '../sheetKind';
import { categoryColumn } from './byCategory';
import { removeByIds } from './pages';

const columns = [
  dateColumn('month', {
    title: 'Month',
    explain: 'Any day of it; it is kept as its first.',
    example: '2026-12-01',
    required: true,
  }),
  categoryColumn('With everything below it; empty = all that is bought.', false),
  moneyColumn(
    'amount',
    { most: 999_999_999 },
    {
      title: 'Budget',
      explain: 'In our currency, without tax.',
      example: '5000',
      required: true,
      aliases: ['amount', 'limit'],
    },
  ),
];

async function all(tx: Tx): Promise<SheetRecord[]> {
  const categories = await Categories.read(tx);
  return (await readBudgetRecords(tx, columns)).map((r) => ({
    id: r.id,
    values: { ...r.values, category: r.values.category === null ? '' : categories.path(Number(r.values.category)) },
  }));
}
const keyOf: SheetKind['keyOf'] = (v) => `${text(v, 'month').slice(0, 7)}\u001f${text(v, 'category').toLowerCase()}`;

/** What may be spent on goods in a month. */
export const budgets: SheetKind = {
  name: 'budgets',
  title: 'Purchase budgets',
  about: 'What may be spent on goods in a month, by order date and without tax: on a category, or on everything.',
  right: 'policies.edit',
  columns,
  byHand: true,
  refers: {},
  settle: (v) => (text(v, 'month') === '' ? v : { ...v, month: `${text(v, 'month').slice(0, 7)}-01` }),
  keyOf,
  find: async (tx, rows) => {
    const wanted = new Set(rows.map(keyOf));
    return (await all(tx)).filter((r) => wanted.has(keyOf(r.values)));
  },
  page: async (tx, after, limit) =>
    (await all(tx))
      .filter((r) => r.id > after)
      .sort((a, b) => a.id - b.id)
      .slice(0, limit),
  against: (record, values) => ({ ...record.values, ...(values.category ? { category: values.category } : {}) }),
  check: () => [],
  write: async (tx, rows) => {
    const tree = await Categories.read(tx);
    const said = [];
    for (const { values: v } of rows) {
      const category = text(v, 'category');
      said.push([v.month, category === '' ? null : await tree.idOf(tx, category), v.amount]);
    }
    await upsertBudgets(tx, said as never);
  },
  remove: removeByIds('purchase_budget'),
  replan: false,
};
