import { Readable } from 'node:stream';
import { format } from 'mysql2';
import type { PoolConnection } from 'mysql2/promise';

export type SqlValue = string | number | bigint | null | Buffer;
export type SqlValues = Readonly<Record<string, SqlValue>>;

/** All pairs of the items of a supplier, of a source's item, or of everything. */
export type MarkedSet = { readonly supplierId: number } | { readonly sourceId: number } | 'everything';

/** A write with its values for `?`. */
export type Statement = { readonly sql: string; readonly values: readonly unknown[] };

/** Multi-row INSERTs of so many rows each; `tail` may hold ON DUPLICATE KEY UPDATE …. None for no rows. */
export function insertStatements(
  head: string,
  rows: readonly (readonly SqlValue[])[],
  tail = '',
  chunk = 1000,
): Statement[] {
  const statements: Statement[] = [];
  for (let i = 0; i < rows.length; i += chunk)
    statements.push({ sql: `${head} VALUES ? ${tail}`, values: [rows.slice(i, i + chunk)] });
  return statements;
}

/** One open transaction. Everything that reads or writes takes it. */
export class Tx {
  /** What this transaction marks for recomputation: single pairs, and whole sets of them. */
  readonly marked: {
    readonly pairs: { readonly itemId: number; readonly locationId: number; readonly what: 'stock' | 'all' }[];
    readonly sets: MarkedSet[];
  } = {
    pairs: [],
    sets: [],
  };

  /** Statements that go to the server ahead of the next one, as texts; at first, those that begin the transaction. */
  private waiting: string[];
  private letters = 0;
  private begun = false;

  constructor(
    private readonly connection: PoolConnection,
    begin: readonly string[] = [],
  ) {
    this.waiting = [...begin];
  }

  /** Rows of a SELECT. A list value is expanded with `list()` first. */
  async rows<T>(sql: string, values: SqlValues = {}): Promise<T[]> {
    await this.sendWaiting();
    const [rows] = await this.connection.execute(sql, bound(sql, values));
    return rows as T[];
  }

  /** Rows of a SELECT with one `?` for a long list of values, or of tuples of them: sent as text, not prepared. */
  async rowsOf<T>(sql: string, values: readonly SqlValue[] | readonly (readonly SqlValue[])[]): Promise<T[]> {
    if (values.length === 0) return [];
    await this.sendWaiting();
    const [rows] = await this.connection.query(sql, [values]);
    return rows as T[];
  }

  async row<T>(sql: string, values: SqlValues = {}): Promise<T | null> {
    return (await this.rows<T>(sql, values))[0] ?? null;
  }

  /** Affected rows and the new id of an INSERT, UPDATE or DELETE. */
  async run(sql: string, values: SqlValues = {}): Promise<{ affected: number; id: number }> {
    await this.sendWaiting();
    const [result] = await this.connection.execute(sql, bound(sql, values));
    const { affectedRows, insertId } = result as { affectedRows: number; insertId: number };
    return { affected: affectedRows, id: insertId };
  }

  /** See insertStatements; one message each. */
  async insertMany(head: string, rows: readonly (readonly SqlValue[])[], tail = '', chunk = 1000): Promise<void> {
    for (const statement of insertStatements(head, rows, tail, chunk)) await this.tell([statement]);
  }

  /** Several writes in one message, in this order; the first that fails is the last that was tried. Returns the new ids of
   *  INSERTs, 0 for other writes. */
  async tell(statements: readonly Statement[]): Promise<number[]> {
    if (statements.length === 0) return [];
    const answers = await this.send(statements.map(textOf));
    return answers.map((a) => (a as { insertId?: number }).insertId ?? 0);
  }

  /** Writes that nothing waits for: they go ahead of whatever comes next, in this order, at the latest with the commit. What is
   *  large goes at once. */
  async later(statements: readonly Statement[]): Promise<void> {
    for (const statement of statements) {
      const text = textOf(statement);
      this.waiting.push(text);
      this.letters += text.length;
      if (this.letters > LARGE) await this.sendWaiting();
    }
  }

  /** Writes and then SELECTs in one message; the rows of the SELECTs, one after the other. */
  async rowsBehind<T>(writes: readonly Statement[], selects: readonly Statement[]): Promise<T[]> {
    if (writes.length + selects.length === 0) return [];
    const answers = await this.send([...writes, ...selects].map(textOf));
    return answers.slice(writes.length).flat() as T[];
  }

  /** Many new rows by LOAD DATA LOCAL. That skips rows it can't take instead of failing (a duplicate, a broken rule), so what
   *  it took is counted: rows that are not all new and sound are a LoadMismatch, and the caller's transaction ends. */
  async load(table: string, columns: readonly string[], rows: readonly (readonly SqlValue[])[]): Promise<void> {
    if (rows.length === 0) return;
    await this.sendWaiting();
    const text = rows.map((r) => r.map(loadText).join('\t')).join('\n');
    const [result] = await this.connection.query({
      sql: `LOAD DATA LOCAL INFILE 'rows' INTO TABLE ${table} CHARACTER SET utf8mb4 FIELDS TERMINATED BY '\\t' ESCAPED BY '\\\\'
            LINES TERMINATED BY '\\n' (${columns.join(', ')})`,
      infileStreamFactory: () => Readable.from([Buffer.from(`${text}\n`)]),
    });
    const { affectedRows, warningStatus } = result as { affectedRows: number; warningStatus: number };
    if (affectedRows !== rows.length || warningStatus > 0) throw new LoadMismatch(table);
  }

  /** Answers of several SELECTs sent as one message, rows as arrays. The texts hold their values, escaped by the driver. */
  async answers(
    sqls: readonly string[],
  ): Promise<{ readonly rows: readonly unknown[][]; readonly names: readonly string[] }[]> {
    const ahead = this.taken();
    const all = [...ahead, ...sqls];
    const [rows, fields] = await this.connection.query({ sql: all.join(';\n'), rowsAsArray: true, values: NO_VALUES });
    const each = all.length === 1 ? [rows] : (rows as unknown[]);
    const heads = (all.length === 1 ? [fields] : fields) as readonly ({ name: string }[] | undefined)[];
    return each.slice(ahead.length).map((r, i) => ({
      rows: r as unknown[][],
      names: (heads[ahead.length + i] ?? []).map((f) => f.name),
    }));
  }

  /** Rows as arrays by the text protocol: for large reads into typed arrays. */
  async arrays(sql: string): Promise<unknown[][]> {
    await this.sendWaiting();
    const [rows] = await this.connection.query({ sql, rowsAsArray: true, values: NO_VALUES });
    return rows as unknown[][];
  }

  /** Ends the transaction; COMMIT goes in one message with what is still waiting. Nothing is said of one that never began. */
  async end(how: 'COMMIT' | 'ROLLBACK'): Promise<void> {
    if (how === 'ROLLBACK') this.waiting = [];
    if (this.begun || this.waiting.length > 0) await this.send([how]);
  }

  private taken(): string[] {
    const texts = this.waiting;
    this.waiting = [];
    this.letters = 0;
    this.begun = true;
    return texts;
  }

  private async sendWaiting(): Promise<void> {
    if (this.waiting.length > 0) await this.send([]);
    this.begun = true;
  }

  /** What waits and then these, in one message; the answers to these. */
  private async send(texts: readonly string[]): Promise<unknown[]> {
    const ahead = this.taken();
    const all = [...ahead, ...texts];
    const [answers] = await this.connection.query(all.join(';\n'), NO_VALUES);
    return (all.length === 1 ? [answers] : (answers as unknown[])).slice(ahead.length);
  }
}

/** So many letters of a message are enough. */
const LARGE = 200_000;

/** Of a text that holds its values: without it the driver looks for names in it, which takes longer than sending it. */
const NO_VALUES: SqlValue[] = [];

const textOf = ({ sql, values }: Statement): string => format(sql, [...values] as SqlValue[]);

/** Not all rows of a load were new and sound. */
export class LoadMismatch extends Error {}

const marks: Readonly<Record<string, string>> = { '\\': '\\\\', '\t': '\\t', '\n': '\\n', '\r': '\\r', '\0': '\\0' };
const loadText = (v: SqlValue): string => {
  if (v === null) return '\\N';
  return typeof v === 'string' ? v.replace(/[\\\t\n\r\0]/g, (c) => marks[c] as string) : String(v);
};

/** mysql2 binds NULL for a name it does not find; that would be a silent fault. */
function bound(sql: string, values: SqlValues): SqlValues {
  for (const m of sql.matchAll(/:([a-zA-Z_]\w*)/g)) {
    if (values[m[1] as string] === undefined) throw new Error(`no value for :${m[1]}`);
  }
  return values as SqlValues;
}

/** A list for IN (…): names and values, or null when it is empty and the caller returns early.
 *  @example const l = list('id', ids); tx.rows(`… IN (${l.sql})`, l.values) */
export function list(name: string, values: readonly SqlValue[]): { sql: string; values: SqlValues } | null {
  if (values.length === 0) return null;
  return {
    sql: values.map((_, i) => `:${name}${i}`).join(','),
    values: Object.fromEntries(values.map((v, i) => [`${name}${i}`, v])),
  };
}

/** Limits rows to some locations, as a condition that starts with AND; null = all of them, none = no row. */
export function atLocations(column: string, locationIds: readonly number[] | null): { sql: string; values: SqlValues } {
  if (locationIds === null) return { sql: '', values: {} };
  const ids = list('at', locationIds);
  return ids ? { sql: `AND ${column} IN (${ids.sql})`, values: ids.values } : { sql: 'AND FALSE', values: {} };
}
