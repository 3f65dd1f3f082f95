import { type Column, dateColumn, decimalColumn, textColumn, type Value, type Values } from '@/core/sheets';
import { readCompany } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';

export type ListFile = {
  readonly title: string;
  readonly today: string;
  readonly columns: readonly Column[];
  readonly rows: AsyncGenerator<Values[]>;
};

/** A column of a file that is written and not read back, and what stands in it. */
export type FileField<R, W = undefined> = { readonly column: Column; readonly of: (row: R, written: W) => Value };
type Of<R, W> = FileField<R, W>['of'];

const wide = { least: -1e12, most: 1e12 };

export const words = <R, W = undefined>(key: string, title: string, of: Of<R, W>): FileField<R, W> => ({
  column: textColumn(key, 2000, { title, explain: '', example: '' }),
  of,
});
export const figure = <R, W = undefined>(key: string, title: string, of: Of<R, W>): FileField<R, W> => ({
  column: decimalColumn(key, wide, { title, explain: '', example: '' }),
  of,
});
export const day = <R, W = undefined>(key: string, title: string, of: Of<R, W>): FileField<R, W> => ({
  column: dateColumn(key, { title, explain: '', example: '' }),
  of,
});

/** Rows as the columns of a file have them. */
export const asValues = <R>(rows: readonly R[], fields: readonly FileField<R>[]): Values[] =>
  rows.map((r) => Object.fromEntries(fields.map((f) => [f.column.key, f.of(r, undefined)])));

/** A list that is short enough to be read at once, as a file of today. */
export async function shortListFile<R>(
  deps: Deps,
  title: string,
  fields: readonly FileField<R>[],
  list: readonly R[],
): Promise<ListFile> {
  const today = todayOf(deps, await readSnapshot(deps.pool, readCompany));
  async function* rows() {
    yield asValues(list, fields);
  }
  return { title, today, columns: fields.map((f) => f.column), rows: rows() };
}

const AT_ONCE = 200;

/** A list that is read as it is written, however long. */
export function streamedListFile<R>(
  title: string,
  today: string,
  fields: readonly FileField<R>[],
  list: AsyncGenerator<R>,
): ListFile {
  async function* rows() {
    let some: R[] = [];
    for await (const row of list) {
      some.push(row);
      if (some.length < AT_ONCE) continue;
      yield asValues(some, fields);
      some = [];
    }
    yield asValues(some, fields);
  }
  return { title, today, columns: fields.map((f) => f.column), rows: rows() };
}
