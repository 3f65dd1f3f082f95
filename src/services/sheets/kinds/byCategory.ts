import { type Column, textColumn } from '@/core/sheets';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import { categoryPath } from '../categories';
import { type SheetKind, text } from '../sheetKind';

/** The column of a category by its names from the top down. */
export function categoryColumn(explain: string, required: boolean): Column {
  const path = textColumn('category', 250, { title: 'Category', explain, example: 'Yarn > Wool', required });
  return { ...path, read: (t, how) => path.read(categoryPath(t), how) };
}

/** A kind that has a record for each category and few enough to read them all; capitals don't make another category, and its
 *  name stays as it was first written. */
export const byCategory = (
  all: (tx: Tx) => Promise<SheetRecord[]>,
): Pick<SheetKind, 'keyOf' | 'find' | 'page' | 'against'> => ({
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
  against: (record, values) => ({ ...record.values, ...(values.category ? { category: values.category } : {}) }),
});
