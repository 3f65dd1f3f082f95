import { err, ok } from '@/core/result';
import { defaultsOf, type Mapping, type RowFault, type Value } from '@/core/sheets';
import {
  countStaged,
  deletePieces,
  deleteRowsAfter,
  findImport,
  findMapping,
  type ImportRow,
  insertStaged,
  readNaming,
  readOwnKeys,
  readTwice,
  type StagedRow,
  setRowWrong,
  updateImport,
} from '@/data/repositories/imports';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import { type CheckedRow, checkRows, type Memory, type RawRow, type Reading } from './checkRows';
import { sheetKindOf } from './kinds';
import { type FoundInFile, headingsPrint, type ProposedReading, proposeReading } from './reading';
import { type Setting, type SheetKind, settingFor, text } from './sheetKind';

/** What the worker does with an import, step by step; the files themselves are read by its caller. */

export const settingOf = (deps: Deps, userId: number): Promise<Setting> =>
  readSnapshot(deps.pool, (tx) => settingFor(deps, tx, userId, stamp(deps.clock())));

/** An import in one of some states, with its kind; null when it has gone on or was cancelled meanwhile. */
export async function importIn(
  deps: Deps,
  importId: number,
  ...states: readonly ImportRow['state'][]
): Promise<{ row: ImportRow; kind: SheetKind } | null> {
  const row = await readSnapshot(deps.pool, (tx) => findImport(tx, importId));
  const kind = row && sheetKindOf(row.kind);
  return row && kind && states.includes(row.state) ? { row, kind } : null;
}

const change = (deps: Deps, importId: number, what: Parameters<typeof updateImport>[2]) =>
  write<void, never>(deps.pool, async (tx) => {
    await updateImport(tx, importId, what);
    return ok(undefined);
  });

/** The whole file can't be read; it is let go. */
export async function refuseFile(deps: Deps, importId: number, fault: object): Promise<void> {
  await write<void, never>(deps.pool, async (tx) => {
    await deletePieces(tx, importId);
    await updateImport(tx, importId, { state: 'refused', refusal: JSON.stringify({ file: fault }) });
    return ok(undefined);
  });
}

/** What was previewed was not written; its rows stay, to be checked again. */
export async function refuseWhole(deps: Deps, importId: number, refusal: object): Promise<void> {
  await change(deps, importId, { state: 'refused', refusal: JSON.stringify(refusal) });
}

/** Keeps what was found in a file and how it is proposed to be read. */
export async function keepReading(deps: Deps, importId: number, kind: SheetKind, found: FoundInFile): Promise<void> {
  const print = headingsPrint(found.headings);
  const known = await readSnapshot(deps.pool, (tx) => findMapping(tx, kind.name, print));
  const proposed = proposeReading(kind.columns, found, known ? (JSON.parse(known.mapping) as Mapping) : null);
  const reading: KeptReading = {
    found: { ...found, sample: found.sample.slice(0, 20) },
    proposed,
    print,
    known: known !== null,
  };
  await change(deps, importId, { state: 'to_map', reading: JSON.stringify(reading) });
}

export type KeptReading = {
  readonly found: FoundInFile;
  readonly proposed: ProposedReading;
  readonly print: string;
  /** A file with these headings was mapped before. */
  readonly known: boolean;
};

/** How a person said that the file is to be read. */
export const readingOf = (row: ImportRow): Reading => JSON.parse(row.mapping ?? '{}') as Reading;

/** What is kept of a row that was checked. */
export type Outcome = Pick<CheckedRow, 'values' | 'changes' | 'faults' | 'own'>;
export const outcomeOf = ({ says, outcome }: Pick<StagedRow, 'says' | 'outcome'>): Outcome => {
  const values = JSON.parse(says) as Outcome['values'];
  if (outcome === '') return { values, changes: [], faults: [], own: [] };
  const { changes = [], faults = [], own = [] } = JSON.parse(outcome) as Partial<Outcome>;
  return { values, changes, faults, own };
};

/** As little text as will do: a new row needs no values that it would get anyway. */
function saysText(kind: SheetKind, c: CheckedRow): string {
  if (c.state !== 'new') return JSON.stringify(c.values);
  const otherwise = defaultsOf(kind.columns);
  const values: Record<string, Value> = {};
  for (const key in c.values) {
    const value = c.values[key] ?? null;
    if (value !== otherwise[key]) values[key] = value;
  }
  return JSON.stringify(values);
}

const outcomeText = ({ changes, faults, own }: Pick<Outcome, 'changes' | 'faults' | 'own'>): string =>
  changes.length + faults.length + own.length === 0 ? '' : JSON.stringify({ changes, faults, own });

/** Checks some rows against the books. What comes of it is kept by `stageRows`. */
export const checkStep = (
  deps: Deps,
  { row, kind }: { row: ImportRow; kind: SheetKind },
  rows: readonly RawRow[],
  setting: Setting,
  memory: Memory,
): Promise<CheckedRow[]> => readSnapshot(deps.pool, (tx) => checkRows(tx, kind, rows, readingOf(row), setting, memory));

/** Stages rows that were checked. Only a faulty one is kept as it stood. */
export async function stageRows(
  deps: Deps,
  { row, kind }: { row: ImportRow; kind: SheetKind },
  rows: readonly RawRow[],
  checked: readonly CheckedRow[],
): Promise<void> {
  const staged = checked.map((c, i) => ({
    rowNo: c.rowNo,
    state: c.state,
    rowKey: c.key,
    seen: c.seen,
    content: c.state === 'wrong' ? JSON.stringify(rows[i]?.cells ?? []).slice(0, 60_000) : '',
    says: saysText(kind, c),
    outcome: outcomeText(c),
  }));
  await write<void, never>(deps.pool, async (tx) => {
    await insertStaged(tx, row.id, staged);
    return ok(undefined);
  });
}

/** Before staging begins, or goes on after a crash: rows behind the one that was noted last go. */
export const forgetRowsAfter = (deps: Deps, importId: number, rowNo: number) =>
  write<void, never>(deps.pool, async (tx) => {
    await deleteRowsAfter(tx, importId, rowNo);
    return ok(undefined);
  });

/** What only the whole file tells: rows that are there twice, and rows that name another row of the file (where
 *  any does). Then it is ready. */
export async function closeStaging(deps: Deps, importId: number, kind: SheetKind, naming: boolean): Promise<void> {
  await write<void, never>(deps.pool, async (tx) => {
    const column = kind.columns.find((c) => c.required)?.key as string;
    for (const twice of await readTwice(tx, importId)) {
      const { rowNo, first } = twice;
      const had = outcomeOf(twice);
      const fault: RowFault = { kind: 'twice_in_file', row: first, column, text: text(had.values, column) };
      await setRowWrong(tx, importId, rowNo, outcomeText({ ...had, faults: [...had.faults, fault] }));
    }
    return ok(undefined);
  });
  // A row that turns out wrong may be named by another, which then is wrong as well.
  for (let again = naming; again; ) {
    again = false;
    for (let after = 0; ; ) {
      const rows = await readSnapshot(deps.pool, (tx) => readNaming(tx, importId, after, 1000));
      if (rows.length === 0) break;
      after = rows.at(-1)?.rowNo as number;
      const named = rows.map((r) => ({ rowNo: r.rowNo, outcome: outcomeOf(r) }));
      const keys = named.flatMap((r) => r.outcome.own.map((o) => o.key));
      await write<void, never>(deps.pool, async (tx) => {
        const there = await readOwnKeys(tx, importId, [...new Set(keys)]);
        for (const { rowNo, outcome } of named) {
          const missing = outcome.own.filter((o) => !there.has(o.key));
          if (missing.length === 0) continue;
          again = true;
          const faults = missing.map(
            ({ column }): RowFault => ({
              kind: 'not_on_file',
              what: kind.refers[column]?.what ?? 'item',
              column,
              text: text(outcome.values, column),
            }),
          );
          const wrong = { ...outcome, faults: [...outcome.faults, ...faults] };
          await setRowWrong(tx, importId, rowNo, outcomeText(wrong));
        }
        return ok(undefined);
      });
    }
  }
  await write(deps.pool, async (tx) => {
    const row = await findImport(tx, importId);
    if (row?.state !== 'checking') return err({ kind: 'cancelled' });
    await updateImport(tx, importId, { state: 'checked', counts: await countStaged(tx, importId) });
    return ok(undefined);
  });
}
