import { addDays } from '@/core/calendar';
import type { Right } from '@/core/people';
import type { NumberPattern } from '@/core/purchase';
import type { CellFault, Column, InTheWay, Reference, RowFault, Values } from '@/core/sheets';
import { readCompany } from '@/data/repositories/company';
import { readNumbering } from '@/data/repositories/papers';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import { type Deps, todayOf } from '../deps';
import type { References } from './lookedUp';

export const sheetNames = [
  'locations',
  'suppliers',
  'items',
  'packs',
  'barcodes',
  'families',
  'kits',
  'sources',
  'prices',
  'rates',
  'opening-stock',
  'policies',
  'policy-defaults',
  'seasons',
  'deliveries',
  'demand',
  'orders',
  'customer-orders',
  'categories',
  'pack-patterns',
  'sale-prices',
  'places',
  'source-places',
  'contacts',
  'closures',
  'holidays',
  'shipping-ways',
  'charges',
  'duty-rates',
  'tax-rates',
  'job-materials',
  'budgets',
  'reasons',
] as const;
export type SheetName = (typeof sheetNames)[number];

/** What a check or a write needs to know besides the rows. */
export type Setting = {
  readonly today: string;
  readonly yesterday: string;
  readonly now: string;
  readonly currency: string;
  readonly booksClosedTo: string | null;
  readonly userId: number;
  readonly orderNumbers: NumberPattern;
};

export async function settingFor(deps: Deps, tx: Tx, userId: number, now: string): Promise<Setting> {
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  return {
    today,
    yesterday: addDays(today, -1),
    now,
    currency: company.currency,
    booksClosedTo: company.booksClosedTo,
    userId,
    orderNumbers: (await readNumbering(tx)).pattern,
  };
}

/** A row that is to be written: the whole record as it shall be, and what is kept now. */
export type WriteRow = {
  readonly rowNo: number;
  readonly key: string;
  readonly values: Values;
  readonly kept: SheetRecord | null;
};

/** One kind of spreadsheet: its template, how its rows are found in the books, checked and written. */
export type SheetKind = {
  readonly name: SheetName;
  readonly title: string;
  readonly about: string;
  readonly right: Right;
  readonly columns: readonly Column[];
  /** Columns that name something else on file; `own` = it may also stand in another row of the same file. */
  readonly refers: Readonly<Record<string, { readonly what: Reference; readonly own?: true }>>;
  /** The sources of the items named are looked up as well. */
  readonly needsSources?: true;
  /** Values in the form they are kept in, where a file may leave something open. */
  readonly settle?: (values: Values) => Values;
  /** Columns that must be the same on all rows with the same value of another. */
  readonly shared?: { readonly by: string; readonly columns: readonly string[] };
  /** What identifies a row, from its values; columns of the key are always required. */
  readonly keyOf: (values: Values) => string;
  /** The records of these rows that are on file, by key. */
  readonly find: (tx: Tx, rows: readonly Values[], refs: References, lock: boolean) => Promise<SheetRecord[]>;
  /** The next records by id, for an export. */
  readonly page: (tx: Tx, after: number, limit: number) => Promise<SheetRecord[]>;
  /** Records may be typed on the pages as well, under the same rules. */
  readonly byHand?: true;
  /** The records of an item, a supplier or a place, named by a column of the template. */
  readonly listed?: (tx: Tx, column: string, value: string) => Promise<SheetRecord[]>;
  /** Gives a record another number or code: its key is that one column, and everything else names it by its id. */
  readonly rename?: (tx: Tx, id: number, to: string) => Promise<unknown>;
  /** Takes records off file; what is still used fails. Without it a record stays once it is there. */
  readonly remove?: (tx: Tx, records: readonly SheetRecord[], refs: References) => Promise<void>;
  /** The record that a row is compared with, where the file may say the same in another way. */
  readonly against?: (record: SheetRecord, values: Values, setting: Setting) => Values;
  /** What is wrong with a row beyond its cells; references have been looked up. */
  readonly check?: (row: CheckRow, refs: References, setting: Setting) => RowFault[];
  readonly write: (tx: Tx, rows: readonly WriteRow[], refs: References, setting: Setting) => Promise<void>;
  /** After all rows are written: what they say of each other. */
  readonly link?: (tx: Tx, rows: readonly WriteRow[], refs: References, setting: Setting) => Promise<void>;
  /** What is wrong with the whole once everything is written; it is then taken back. */
  readonly verify?: (tx: Tx) => Promise<RowFault | null>;
  /** Which of the records found have been worked with in their unit. */
  readonly unitInUse?: (tx: Tx, ids: readonly number[]) => Promise<Set<number>>;
  /** Of which of the items found there is stock. */
  readonly withStock?: (tx: Tx, ids: readonly number[]) => Promise<Set<number>>;
  /** What stops the records found from being closed. */
  readonly inTheWay?: (tx: Tx, ids: readonly number[]) => Promise<Map<number, readonly InTheWay[]>>;
  /** Whether stock and needs are reckoned again after it */
  readonly replan: boolean;
};

/** Thrown by a write that can't be carried out as the books are now: the whole is taken back, and the fault is said. */
export class SheetRefusal extends Error {
  constructor(readonly fault: RowFault) {
    super(fault.kind);
  }
}

export type CheckRow = {
  /** What the file says. */
  readonly values: Values;
  readonly kept: SheetRecord | null;
  /** The record as it would be. */
  readonly whole: Values;
  readonly changed: boolean;
};

/** Whether a column is part of what identifies a record. */
export const isKeyColumn = (kind: SheetKind, key: string): boolean => kind.keyOf({ [key]: 'x' }).includes('x');

export const text = (values: Values, key: string): string => String(values[key] ?? '');

/** A fault of one column with what stands there. */
export const faultAt = (column: string, values: Values, fault: CellFault): RowFault => ({
  ...fault,
  column,
  text: text(values, column),
});
