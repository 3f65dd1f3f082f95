import type { PoolConnection } from 'mysql2/promise';

export type SqlValue = string | number | bigint | null | Buffer;
export type SqlValues = Readonly<Record<string, SqlValue>>;

/** All pairs of the items of a supplier, of a source's item, or of everything. */
export type MarkedSet = { readonly supplierId: number } | { readonly sourceId: number } | 'everything';

/** One open transaction. Everything that reads or writes takes it. */
export class Tx {
  /** What this transaction marks for recomputation: single pairs, and whole sets of them. */
  readonly marked: {
    readonly pairs: { readonly itemId: number; readonly locationId: number }[];
    readonly sets: MarkedSet[];
  } = {
    pairs: [],
    sets: [],
  };

  constructor(private readonly connection: PoolConnection) {}

  /** Rows of a SELECT. A list value is expanded with `list()` first. */
  async rows<T>(sql: string, values: SqlValues = {}): Promise<T[]> {
    const [rows] = await this.connection.execute(sql, bound(sql, values));
    return rows as T[];
  }

  async row<T>(sql: string, values: SqlValues = {}): Promise<T | null> {
    return (await this.rows<T>(sql, values))[0] ?? null;
  }

  /** Affected rows and the new id of an INSERT, UPDATE or DELETE. */
  async run(sql: string, values: SqlValues = {}): Promise<{ affected: number; id: number }> {
    const [result] = await this.connection.execute(sql, bound(sql, values));
    const { affectedRows, insertId } = result as { affectedRows: number; insertId: number };
    return { affected: affectedRows, id: insertId };
  }

  /** Multi-row INSERT; `tail` may hold ON DUPLICATE KEY UPDATE …. Does nothing for no rows. */
  async insertMany(head: string, rows: readonly (readonly SqlValue[])[], tail = '', chunk = 1000): Promise<void> {
    for (let i = 0; i < rows.length; i += chunk) {
      const part = rows.slice(i, i + chunk);
      await this.connection.query(`${head} VALUES ? ${tail}`, [part]);
    }
  }

  /** Rows as arrays by the text protocol: for large reads into typed arrays. */
  async arrays(sql: string): Promise<unknown[][]> {
    const [rows] = await this.connection.query({ sql, rowsAsArray: true });
    return rows as unknown[][];
  }
}

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
