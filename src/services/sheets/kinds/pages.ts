import type { Column, Value } from '@/core/sheets';
import { deleteRows, type SheetRecord, toRecords, type Wanted } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import { type SheetKind, text } from '../sheetKind';

type Read = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) => Promise<SheetRecord[]>;

/** `find` and `page` of a kind whose records are looked up by some of its columns. */
export const foundBy = (
  read: Read,
  columns: readonly Column[],
  ...key: readonly string[]
): Pick<SheetKind, 'find' | 'page' | 'listed'> => ({
  find: (tx, rows, _refs, lock) =>
    read(
      tx,
      columns,
      key.length === 1
        ? { keys: rows.map((r) => text(r, key[0] as string)) }
        : { pairs: rows.map((r) => key.map((k) => text(r, k))) },
      lock,
    ),
  page: (tx, after, limit) => read(tx, columns, { after, limit }, false),
  listed: (tx, column, value) => read(tx, columns, { of: column, is: value }, false),
});

/** Rows of a page that SQL made whole. */
export const pageOf = (columns: readonly Column[], rows: readonly object[]): SheetRecord[] =>
  toRecords(columns, rows as Record<string, Value>[]);

/** The key of a row from some of its columns. */
export const keyed =
  (...key: readonly string[]): SheetKind['keyOf'] =>
  (v) =>
    key.map((k) => text(v, k)).join('\u001f');

/** Takes records off file by their ids, with what belongs to them alone. */
export const removeByIds =
  (
    table: string,
    also?: { readonly first: readonly string[]; readonly by: string },
  ): NonNullable<SheetKind['remove']> =>
  async (tx, records) => {
    const ids = records.map((r) => r.id);
    for (const part of also?.first ?? []) await deleteRows(tx, part, also?.by ?? 'id', ids);
    await deleteRows(tx, table, 'id', ids);
  };
