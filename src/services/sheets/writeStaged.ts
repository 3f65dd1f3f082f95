import { err, ok, type Result } from '@/core/result';
import { merged, type RowFault } from '@/core/sheets';
import { isDuplicate } from '@/data/errors';
import { type Change, recordChanges } from '@/data/repositories/bookkeeping';
import {
  deletePieces,
  type ImportRow,
  lockImport,
  readToWrite,
  recordNewRows,
  type StagedRow,
  updateImport,
} from '@/data/repositories/imports';
import { markSet } from '@/data/repositories/marks';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { LoadMismatch, type Tx } from '@/data/sql';
import { write } from '@/data/transaction';
import type { Deps } from '../deps';
import { leaveToWorker } from '../work/leaveToWorker';
import { keptRecords, seenOf } from './checkRows';
import type { References } from './lookedUp';
import { missingReferences, readReferences } from './references';
import { type Setting, type SheetKind, SheetRefusal, text, type WriteRow } from './sheetKind';
import { outcomeOf } from './steps';
import { subjectOf as recordSubject } from './subject';

const ROWS_A_STEP = 2000;

/** Why nothing of an import was written. */
export type Refusal =
  | { readonly kind: 'changed_since_preview'; readonly rows: readonly number[] }
  | { readonly kind: 'faulty_whole'; readonly fault: RowFault }
  | { readonly kind: 'cancelled' };

/** Writes what was previewed, all of it in one transaction and in the order of the keys, or nothing: a record that is not
 *  as it was when the row was checked refuses the whole. `progress` is told how far it is.
 *  Refusals: changed_since_preview (with the rows), faulty_whole (a loop that only the whole shows), cancelled. */
export async function writeStaged(
  deps: Deps,
  importId: number,
  kind: SheetKind,
  setting: Setting,
  progress: (done: number) => Promise<void>,
): Promise<Result<number, Refusal>> {
  return write<number, Refusal>(deps.pool, async (tx) => {
    const run = await lockImport(tx, importId);
    if (run?.state !== 'applying') return err({ kind: 'cancelled' });
    let done = 0;
    const linked: { rows: WriteRow[]; refs: References }[] = [];
    for (let after = ''; ; ) {
      const staged = await readToWrite(tx, importId, after, ROWS_A_STEP);
      const last = staged.at(-1);
      if (!last) break;
      after = last.rowKey;
      const step = await writeStep(tx, kind, staged, setting);
      if (!step.ok) return step;
      const saying = kind.link ? step.value.rows.filter(says(kind)) : [];
      if (saying.length > 0) linked.push({ rows: saying, refs: step.value.refs });
      await recordChanged(tx, kind, run, step.value.rows, step.value.refs, setting);
      done += staged.length;
      await progress(done);
    }
    for (const { rows, refs } of linked)
      if (rows.length > 0) await kind.link?.(tx, rows, await refreshed(tx, kind, rows, refs), setting);
    const by = { userId: setting.userId, at: setting.now, action: actionOf(kind) };
    await recordNewRows(tx, importId, newSubjectOf(kind), by);
    const fault = await kind.verify?.(tx);
    if (fault) return err({ kind: 'faulty_whole', fault });
    if (kind.replan && done > 0) {
      markSet(tx, 'everything');
      await leaveToWorker(tx, 'recompute', setting.now, setting.userId);
    }
    await deletePieces(tx, importId);
    await updateImport(tx, importId, { state: 'applied', appliedAt: setting.now, refusal: null });
    return ok(done);
  });
}

/** Only rows that name another of their kind, or did, have anything to be linked. */
const says = (kind: SheetKind) => (r: WriteRow) =>
  Object.entries(kind.refers).some(
    ([c, ref]) => ref.own && (text(r.values, c) !== '' || text(r.kept?.values ?? {}, c) !== ''),
  ) || ['buying', 'selling', 'sending'].some((c) => (r.values[c] ?? false) !== (r.kept?.values[c] ?? false));

/** New rows of the file have ids now. */
const refreshed = (tx: Tx, kind: SheetKind, rows: readonly WriteRow[], refs: References) =>
  Object.values(kind.refers).some((r) => r.own)
    ? readReferences(
        tx,
        kind,
        rows.map((r) => r.values),
      )
    : refs;

async function writeStep(
  tx: Tx,
  kind: SheetKind,
  staged: readonly StagedRow[],
  setting: Setting,
): Promise<Result<{ rows: WriteRow[]; refs: References }, Refusal>> {
  const read = staged.map((s) => ({ ...s, outcome: outcomeOf(s) }));
  const values = read.map((r) => r.outcome.values);
  const refs = await readReferences(tx, kind, values);
  const kept = await keptRecords(tx, kind, values, refs, true);
  const stale: number[] = [];
  const rows = read.map((r): WriteRow => {
    const record: SheetRecord | undefined = kept.get(kind.keyOf(r.outcome.values));
    const gone = missingReferences(kind, r.outcome.values, refs).faults.length > 0;
    if (seenOf(record) !== r.seen || gone) stale.push(r.rowNo);
    return {
      rowNo: r.rowNo,
      key: r.rowKey,
      values: merged(kind.columns, record?.values ?? null, r.outcome.values),
      kept: record ?? null,
    };
  });
  if (stale.length > 0) return err({ kind: 'changed_since_preview', rows: stale });
  try {
    await kind.write(tx, rows, refs, setting);
  } catch (e) {
    if (e instanceof SheetRefusal) return err({ kind: 'faulty_whole', fault: e.fault });
    // Somebody made the same record meanwhile.
    if (isDuplicate(e) || e instanceof LoadMismatch)
      return err({ kind: 'changed_since_preview', rows: rows.map((r) => r.rowNo) });
    throw e;
  }
  return ok({ rows, refs });
}

/** What the records of a kind are about, and where its id is found. */
function newSubjectOf(kind: SheetKind): Parameters<typeof recordNewRows>[2] {
  const own = { items: 'item', suppliers: 'supplier', locations: 'location' } as const;
  if (kind.name === 'items' || kind.name === 'suppliers' || kind.name === 'locations') {
    const table = own[kind.name];
    return { entity: table, table, key: table === 'item' ? 'number' : 'code', by: 'row_key' };
  }
  const column = kind.refers.item ? 'item' : kind.refers.kit ? 'kit' : null;
  if (column) return { entity: 'item', table: 'item', key: 'number', by: column };
  return kind.refers.supplier
    ? { entity: 'supplier', table: 'supplier', key: 'code', by: 'supplier' }
    : { entity: 'import', table: null, key: '', by: 'row_key' };
}

/** Who changed what: before and after of each changed row, under what it is about. */
async function recordChanged(
  tx: Tx,
  kind: SheetKind,
  run: ImportRow,
  rows: readonly WriteRow[],
  refs: References,
  setting: Setting,
): Promise<void> {
  const changes = rows.flatMap((r): Change[] => {
    const { kept } = r;
    if (!kept) return [];
    const after = Object.fromEntries(Object.entries(r.values).filter(([c, v]) => (v ?? '') !== (kept.values[c] ?? '')));
    const before = Object.fromEntries(Object.keys(after).map((c) => [c, kept.values[c] ?? null]));
    const about = recordSubject(kind, r.values, kept.id, refs);
    const subject = about.entity === 'setup' ? { entity: 'import' as const, entityId: run.id } : about;
    return [{ ...subject, action: actionOf(kind), before, after }];
  });
  await recordChanges(tx, setting.userId, setting.now, changes);
}

const actionOf = (kind: SheetKind) => `${kind.name} from file`;
