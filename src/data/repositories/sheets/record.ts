import type { Column, Value, Values } from '@/core/sheets';
import type { SqlValue, Tx } from '../../sql';

/** A record as a template shows it, with the id of its row. */
export type SheetRecord = { readonly id: number; readonly values: Values };

/** A decimal of the database without surplus zeros. @example plainDecimal('12.500000')  // '12.5' */
export const plainDecimal = (text: string): string =>
  text.includes('.') ? text.replace(/0+$/, '').replace(/\.$/, '') : text;

/** Rows whose columns are named like the template's, as records; `_id` is the id. */
export const toRecords = (columns: readonly Column[], rows: readonly Record<string, Value>[]): SheetRecord[] =>
  rows.map((row) => ({
    id: Number(row._id),
    values: Object.fromEntries(columns.map((c) => [c.key, valueIn(c, row[c.key] ?? null)])),
  }));

function valueIn(column: Column, raw: Value): Value {
  if (raw === null) return null;
  if (column.kind === 'number' && typeof raw === 'string') return plainDecimal(raw);
  return column.kind === 'yes_no' ? Number(raw) === 1 : raw;
}

/** Which records: those with one of some keys, the next ones by id, or those of something (an item's, a supplier's). */
export type Wanted =
  | { readonly keys: readonly SqlValue[] }
  | { readonly of: string; readonly is: SqlValue }
  | { readonly after: number; readonly limit: number }
  | { readonly pairs: readonly (readonly SqlValue[])[] };

/** Reads records: `select` and `from` of a statement whose id is `id`; `key` is the expression that keys are looked up by,
 *  for keys of several parts one for each. Locked when they are about to be changed. */
export async function readRecords(
  tx: Tx,
  columns: readonly Column[],
  sql: {
    readonly select: string;
    readonly from: string;
    readonly id: string;
    readonly key: string | readonly string[];
    /** What records can be listed by: the expression of a column. */
    readonly by?: Readonly<Record<string, string>>;
  },
  wanted: Wanted,
  lock: boolean,
): Promise<SheetRecord[]> {
  const head = `SELECT ${sql.id} AS _id, ${sql.select} FROM ${sql.from}`;
  if ('after' in wanted) {
    // In the order of the ids from the first: sorted otherwise, every page would read all that is behind it.
    const inOrder = sql.id === `${/^\w+ (\w+)/.exec(sql.from)?.[1]}.id`;
    const rows = await tx.rows<Record<string, Value>>(
      `${inOrder ? head.replace('SELECT', 'SELECT STRAIGHT_JOIN') : head} WHERE ${sql.id} > :after ORDER BY ${sql.id} LIMIT ${Math.trunc(wanted.limit)}`,
      { after: wanted.after },
    );
    return toRecords(columns, rows);
  }
  if ('of' in wanted) {
    const expression = sql.by?.[wanted.of];
    if (!expression) throw new Error(`records are not listed by ${wanted.of}`);
    const rows = await tx.rows<Record<string, Value>>(
      `${head} WHERE ${expression} = :is ORDER BY ${sql.id} LIMIT 2000`,
      { is: wanted.is },
    );
    return toRecords(columns, rows);
  }
  const [key, values] =
    'keys' in wanted ? [sql.key as string, wanted.keys] : [`(${(sql.key as string[]).join(',')})`, wanted.pairs];
  const rows = await tx.rowsOf<Record<string, Value>>(
    `${head} WHERE ${key} IN (?) ${lock ? 'FOR UPDATE' : ''}`,
    values,
  );
  return toRecords(columns, rows);
}

/** New rows are loaded, the others written over what is there; `also` is appended to the update. Of new rows only the columns
 *  are sent that some of them have otherwise than the table's `defaults`.
 *  Errors: LoadMismatch when a row is not new after all. */
export async function writeMany(
  tx: Tx,
  table: string,
  columns: readonly string[],
  rows: readonly { readonly isNew: boolean; readonly values: readonly SqlValue[] }[],
  also = '',
  defaults: readonly SqlValue[] = [],
): Promise<void> {
  const of = (isNew: boolean) => rows.filter((r) => r.isNew === isNew).map((r) => r.values);
  const fresh = of(true);
  const sent = columns.map((_, i) => i).filter((i) => i >= defaults.length || fresh.some((r) => r[i] !== defaults[i]));
  await tx.load(
    table,
    sent.map((i) => columns[i] as string),
    fresh.map((r) => sent.map((i) => r[i] as SqlValue)),
  );
  await upsertMany(tx, table, columns, of(false), also);
}

/** INSERT … ON DUPLICATE KEY UPDATE of all columns given; `also` is appended to the update. */
export const upsertMany = (
  tx: Tx,
  table: string,
  columns: readonly string[],
  rows: readonly (readonly SqlValue[])[],
  also = '',
): Promise<void> =>
  tx.insertMany(
    `INSERT INTO ${table} (${columns.join(', ')})`,
    rows,
    `ON DUPLICATE KEY UPDATE ${columns.map((c) => `${c} = VALUES(${c})`).join(', ')}${also === '' ? '' : `, ${also}`}`,
    500,
  );

/** Deletes rows; one that something else refers to fails (errno 1451) and nothing is deleted. Table and column are names of
 *  the program, never input. */
export const deleteRows = (tx: Tx, table: string, column: string, ids: readonly number[]): Promise<unknown> =>
  tx.rowsOf(`DELETE FROM ${table} WHERE ${column} IN (?)`, ids);

type Read = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) => Promise<SheetRecord[]>;
type Write = (tx: Tx, rows: readonly (readonly SqlValue[])[]) => Promise<void>;

/** Reads the records of one kind, wherever its columns stand. */
export const reader =
  (sql: Parameters<typeof readRecords>[2]): Read =>
  (tx, columns, wanted, lock) =>
    readRecords(tx, columns, sql, wanted, lock);

/** Writes rows of one table, new or over what is there. */
export const writer =
  (table: string, columns: readonly string[], also = ''): Write =>
  (tx, rows) =>
    upsertMany(tx, table, columns, rows, also);

/** Another number or code of a record; what names it by its id stays with it. */
export const renameRecord = (tx: Tx, table: 'item' | 'supplier' | 'location', column: string, id: number, to: string) =>
  tx.run(`UPDATE ${table} SET \`${column}\` = :to, version = version + 1 WHERE id = :id`, { id, to });
