import { createHash } from 'node:crypto';
import {
  type Cell,
  type Conventions,
  changesOf,
  type FieldChange,
  type Mapping,
  merged,
  type RowFault,
  RowReader,
  type Values,
} from '@/core/sheets';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import type { Tx } from '@/data/sql';
import type { References } from './lookedUp';
import { missingReferences, readReferences } from './references';
import { faultAt, isKeyColumn, type Setting, type SheetKind, text } from './sheetKind';

/** How a file is to be read. */
export type Reading = { readonly mapping: Mapping; readonly how: Conventions };

/** A line of a spreadsheet: its number there and its cells. */
export type RawRow = { readonly rowNo: number; readonly cells: readonly Cell[] };

export type RowState = 'new' | 'changed' | 'unchanged' | 'wrong';
/** What a row comes to. */
export type CheckedRow = {
  readonly rowNo: number;
  readonly state: RowState;
  readonly key: string;
  /** Hash of the record on file, empty when there is none. */
  readonly seen: string;
  readonly values: Values;
  readonly changes: readonly FieldChange[];
  readonly faults: readonly RowFault[];
  /** What it names that may stand in another row of the same file. */
  readonly own: readonly { readonly column: string; readonly key: string }[];
};

/** What was said on an earlier row of what several rows say alike, by name. */
export type Memory = Map<string, { readonly row: number; readonly values: Values }>;

export const seenOf = (record: SheetRecord | undefined): string =>
  record ? createHash('sha256').update(JSON.stringify(record.values)).digest('hex').slice(0, 16) : '';

/** Reads and checks some rows of a file against the books: what is new, what changes and how, what is wrong and where. */
export async function checkRows(
  tx: Tx,
  kind: SheetKind,
  rows: readonly RawRow[],
  { mapping, how }: Reading,
  setting: Setting,
  memory: Memory,
): Promise<CheckedRow[]> {
  const reader = new RowReader(kind.columns, mapping, how);
  const read = rows.map((r) => {
    const { values, faults } = reader.read(r.cells);
    return { rowNo: r.rowNo, values: kind.settle ? kind.settle(values) : values, faults };
  });
  const refs = await readReferences(
    tx,
    kind,
    read.map((r) => r.values),
  );
  const keyed = read.map((r) => ({ ...r, key: r.faults.some((f) => isKeyFault(kind, f)) ? '' : kind.keyOf(r.values) }));
  const kept = await keptRecords(
    tx,
    kind,
    keyed.filter((r) => r.key !== '').map((r) => r.values),
    refs,
    false,
  );
  const withUnit = await kindWithUnits(tx, kind, refs, kept);
  return keyed.map((r) => {
    const record = kept.get(r.key);
    const before = record && (kind.against?.(record, r.values, setting) ?? record.values);
    const changes = before ? changesOf(before, r.values) : [];
    const whole = merged(kind.columns, before ?? null, r.values);
    const named = missingReferences(kind, r.values, withUnit);
    const check = kind.check?.(
      { values: r.values, kept: record ?? null, whole, changed: changes.length > 0 },
      withUnit,
      setting,
    );
    const faults = [
      ...r.faults.filter((f) => !(f.kind === 'missing' && record && !mapping.includes(f.column))),
      ...named.faults,
      ...(check ?? []),
      ...sharedFaults(kind, r.rowNo, r.values, whole, memory),
    ];
    const state: RowState =
      faults.length > 0 ? 'wrong' : !record ? 'new' : changes.length > 0 ? 'changed' : 'unchanged';
    return {
      ...{ rowNo: r.rowNo, state, key: r.key.slice(0, 250), seen: seenOf(record), values: r.values },
      ...{ changes, faults: unique(faults), own: named.own },
    };
  });
}

/** Whether a fault leaves it open which record a row is: every required column may be part of the key. */
const isKeyFault = (kind: SheetKind, f: RowFault): boolean =>
  kind.columns.some((c) => c.key === f.column && c.required) && isKeyColumn(kind, f.column);

/** One sentence per cell is enough, the first. */
function unique(faults: readonly RowFault[]): RowFault[] {
  const byColumn = new Map<string, RowFault>();
  for (const f of faults) if (!byColumn.has(f.column)) byColumn.set(f.column, f);
  return [...byColumn.values()];
}

/** The records of rows by their key. */
export async function keptRecords(
  tx: Tx,
  kind: SheetKind,
  rows: readonly Values[],
  refs: References,
  lock: boolean,
): Promise<Map<string, SheetRecord>> {
  if (rows.length === 0) return new Map();
  const records = await kind.find(tx, rows, refs, lock);
  return new Map(records.map((r) => [kind.keyOf(r.values), r]));
}

async function kindWithUnits(
  tx: Tx,
  kind: SheetKind,
  refs: References,
  kept: ReadonlyMap<string, SheetRecord>,
): Promise<References> {
  const ids = [...kept.values()].map((r) => r.id);
  return {
    ...refs,
    ...(kind.unitInUse ? { unitInUse: await kind.unitInUse(tx, ids) } : {}),
    ...(kind.withStock ? { withStock: await kind.withStock(tx, ids) } : {}),
    ...(kind.inTheWay ? { inTheWay: await kind.inTheWay(tx, ids) } : {}),
  };
}

/** A row that says of a family or an order something else than an earlier row did. */
function sharedFaults(kind: SheetKind, row: number, values: Values, whole: Values, memory: Memory): RowFault[] {
  if (!kind.shared) return [];
  const { by, columns } = kind.shared;
  const name = text(whole, by);
  if (name === '') return [];
  const first = memory.get(name);
  if (!first) {
    memory.set(name, { row, values: Object.fromEntries(columns.map((c) => [c, whole[c] ?? null])) });
    return [];
  }
  return columns
    .filter((c) => text(first.values, c) !== text(whole, c))
    .map((c) => faultAt(c, values, { kind: 'differs_from_row', row: first.row }));
}
