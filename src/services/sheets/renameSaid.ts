import { err, ok, type Result } from '@/core/result';
import type { Conventions, RowFault } from '@/core/sheets';
import { isDuplicate } from '@/data/errors';
import { recordChanges } from '@/data/repositories/bookkeeping';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { keptRecords, seenOf } from './checkRows';
import { CHANGED, type SaidRecord } from './recordSteps';
import { readReferences } from './references';
import { isKeyColumn, type Setting, type SheetKind } from './sheetKind';
import { subjectOf } from './subject';

export type Renamed = { readonly from: string; readonly to: string };

/** Gives one record another number or code. Errors: changed_meanwhile when it is not there as it was seen (`seen` null = as
 *  it may be); 'taken' when another record has that number. */
export async function renameOne(
  tx: Tx,
  kind: SheetKind,
  setting: Setting,
  { from, to }: Renamed,
  seen: string | null,
): Promise<Result<null, Failure | 'taken'>> {
  const key = keyColumn(kind).key;
  const wanted = [{ [key]: from }, { [key]: to }];
  const refs = await readReferences(tx, kind, wanted);
  const kept = await keptRecords(tx, kind, wanted, refs, true);
  const record = kept.get(from);
  if (!kind.rename || !record || (seen !== null && seenOf(record) !== seen)) return err(CHANGED);
  if (kept.has(to)) return err('taken');
  try {
    await kind.rename(tx, record.id, to);
  } catch (e) {
    if (isDuplicate(e)) return err('taken');
    throw e;
  }
  const subject = subjectOf(kind, record.values, record.id, refs);
  await recordChanges(tx, setting.userId, setting.now, [
    { ...subject, action: `${keyColumn(kind).title.toLowerCase()} changed`, before: from, after: to },
  ]);
  return ok(null);
}

/** The records that were said with another number or code than they have, renamed before the rest of them is written.
 *  Errors: changed_meanwhile, wrong_rows. */
export async function renameSaid(
  tx: Tx,
  kind: SheetKind,
  setting: Setting,
  records: readonly SaidRecord[],
  decimal: Conventions['decimal'],
): Promise<Result<Renamed[], Failure>> {
  const done: Renamed[] = [];
  for (const [i, { cells, from, seen }] of records.entries()) {
    const column = keyColumn(kind);
    const text = (cells[column.key] ?? '').trim();
    if (from === undefined || from === text) continue;
    const wrong = (fault: RowFault): Result<Renamed[], Failure> =>
      err({ kind: 'wrong_rows', faults: records.map((_, k) => (k === i ? [fault] : [])) });
    const read = column.read(text, { decimal, dates: 'ymd' });
    if (text === '') return wrong({ kind: 'missing', column: column.key, text });
    if (!read.ok) return wrong({ ...read.error, column: column.key, text });
    const renamed = { from, to: String(read.value) };
    const outcome = await renameOne(tx, kind, setting, renamed, seen);
    if (!outcome.ok && outcome.error === 'taken') return wrong({ kind: 'on_file_already', column: column.key, text });
    if (!outcome.ok) return err(outcome.error as Failure);
    done.push(renamed);
  }
  return ok(done);
}

/** The first column that identifies a record; of a kind whose records can be renamed there is one. */
const keyColumn = (kind: SheetKind) =>
  kind.columns.find((c) => isKeyColumn(kind, c.key)) as SheetKind['columns'][number];
