import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { type Cell, type Column, neutralised, writeRow } from '@/core/sheets';
import { findImport, type ImportRow, readImportRuns, readStaged, type StagedRow } from '@/data/repositories/imports';
import { findJob } from '@/data/repositories/jobs';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import type { Reading } from './checkRows';
import { sheetKindOf, sheetKinds } from './kinds';
import { mayImport, maySheet } from './lockOwn';
import type { SheetKind } from './sheetKind';
import { type KeptReading, type Outcome, outcomeOf } from './steps';
import type { Refusal } from './writeStaged';

/** A column as the page that maps a file shows it. */
export type ColumnView = Pick<Column, 'key' | 'title' | 'explain' | 'example' | 'required' | 'kind'>;
const viewOf = ({ key, title, explain, example, required, kind }: Column): ColumnView => ({
  ...{ key, title, explain, example, required, kind },
});

export type TemplateView = {
  readonly name: string;
  readonly title: string;
  readonly about: string;
  readonly may: boolean;
};

export type ImportView = Pick<
  ImportRow,
  | 'id'
  | 'kind'
  | 'fileName'
  | 'bytes'
  | 'state'
  | 'newRows'
  | 'changedRows'
  | 'unchangedRows'
  | 'wrongRows'
  | 'who'
  | 'createdAt'
  | 'appliedAt'
  | 'version'
> & { readonly title: string };

const importView = (r: ImportRow): ImportView => {
  const { id, kind, fileName, bytes, state, newRows, changedRows, unchangedRows, wrongRows, who, createdAt } = r;
  return {
    ...{ id, kind, fileName, bytes, state, newRows, changedRows, unchangedRows, wrongRows, who, createdAt },
    ...{ appliedAt: r.appliedAt, version: r.version, title: sheetKindOf(r.kind)?.title ?? r.kind },
  };
};

/** The templates, and what was brought lately. Errors: forbidden. */
export async function readImports(
  deps: Deps,
  actor: Actor,
): Promise<Result<{ templates: TemplateView[]; imports: ImportView[] }, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  const rows = await readSnapshot(deps.pool, (tx) => readImportRuns(tx, 30));
  const templates = Object.values(sheetKinds).map((k) => ({
    ...{ name: k.name, title: k.title, about: k.about },
    may: maySheet(actor, k).ok,
  }));
  return ok({ templates, imports: rows.map(importView) });
}

export type ImportRefusal = Refusal | { readonly file: { readonly kind: string } };
export type StagedView = Pick<StagedRow, 'rowNo' | 'state'> & Outcome;
export type ImportDetail = {
  readonly import: ImportView;
  readonly columns: readonly ColumnView[];
  readonly reading: KeptReading | null;
  readonly chosen: Reading | null;
  readonly refusal: ImportRefusal | null;
  readonly progress: { readonly done: number; readonly total: number | null; readonly failed: boolean } | null;
  /** The state that the rows are of: the one asked for, else what is to be looked at first. */
  readonly shown: StagedRow['state'];
  readonly rows: readonly StagedView[];
};

const ROWS = 200;

/** What is wrong first, then what changes. */
function firstState(i: ImportRow): StagedRow['state'] {
  if (i.wrongRows > 0) return 'wrong';
  if (i.changedRows > 0) return 'changed';
  return i.newRows > 0 ? 'new' : 'unchanged';
}

/** One import with the first rows of a state behind a row. Errors: forbidden, not_found. */
export async function readImport(
  deps: Deps,
  actor: Actor,
  asked: { readonly importId: number; readonly state: StagedRow['state'] | null; readonly after: number },
): Promise<Result<ImportDetail, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const row = await findImport(tx, asked.importId);
    const kind = row && sheetKindOf(row.kind);
    if (!row || !kind) return err({ kind: 'not_found', what: 'import' });
    const own = maySheet(actor, kind);
    if (!own.ok) return own;
    const shown = asked.state ?? firstState(row);
    const staged = await readStaged(tx, row.id, shown, asked.after, ROWS);
    const job = row.jobId === null ? null : await findJob(tx, row.jobId);
    const parsed = <T>(json: string | null): T | null => (json === null ? null : (JSON.parse(json) as T));
    return ok({
      import: importView(row),
      columns: kind.columns.map(viewOf),
      reading: parsed<KeptReading>(row.reading),
      chosen: parsed<Reading>(row.mapping),
      refusal: parsed<ImportRefusal>(row.refusal),
      progress: job && { done: Number(job.doneSteps), total: job.totalSteps, failed: job.state === 'failed' },
      shown,
      rows: staged.map((r) => ({ rowNo: r.rowNo, state: r.state, ...outcomeOf(r) })),
    });
  });
}

export type FaultyRows = {
  readonly headings: readonly string[];
  readonly fileName: string;
  readonly rows: AsyncGenerator<string[][]>;
};

/** The cells of a faulty row as they stood; of one that only the whole file made wrong, as they were understood. */
function cellsOf(row: StagedRow, kind: SheetKind, { mapping, how }: Reading): string[] {
  if (row.content !== '') return (JSON.parse(row.content) as Cell[]).map((c) => neutralised(String(c)));
  const { values } = outcomeOf(row);
  const byKey = new Map(kind.columns.map((c) => [c.key, writeRow([c], values, how)[0] ?? '']));
  return mapping.map((key) => (key === null ? '' : (byKey.get(key) ?? '')));
}

/** Faulty rows of an import, in steps, for a file of their own. Errors: forbidden, not_found. */
export async function readFaultyRows(deps: Deps, actor: Actor, importId: number): Promise<Result<FaultyRows, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  const row = await readSnapshot(deps.pool, (tx) => findImport(tx, importId));
  const kind = row && sheetKindOf(row.kind);
  if (!row?.reading || !kind) return err({ kind: 'not_found', what: 'import' });
  const own = maySheet(actor, kind);
  if (!own.ok) return own;
  const { found } = JSON.parse(row.reading) as KeptReading;
  const reading = JSON.parse(row.mapping ?? '{"mapping":[]}') as Reading;
  const sheet = kind;
  async function* rows() {
    for (let after = 0; ; ) {
      const page = await readSnapshot(deps.pool, (tx) => readStaged(tx, importId, 'wrong', after, 1000));
      if (page.length === 0) return;
      yield page.map((r) => cellsOf(r, sheet, reading));
      after = page.at(-1)?.rowNo as number;
    }
  }
  return ok({ headings: found.headings, fileName: row.fileName, rows: rows() });
}
