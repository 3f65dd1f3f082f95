import { err, ok, type Result } from '@/core/result';
import { type Conventions, changesOf, type FieldChange, merged, type RowFault, type Values } from '@/core/sheets';
import { isDuplicate, isReferenced } from '@/data/errors';
import { type Change, recordChanges } from '@/data/repositories/bookkeeping';
import { readLocations } from '@/data/repositories/company';
import { markDirty, markSet } from '@/data/repositories/marks';
import type { SheetRecord } from '@/data/repositories/sheets/record';
import { LoadMismatch, type Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { type CheckedRow, checkRows, keptRecords, seenOf } from './checkRows';
import type { References } from './lookedUp';
import { itemId, readReferences } from './references';
import { type Setting, type SheetKind, SheetRefusal, text, type WriteRow } from './sheetKind';
import { subjectOf } from './subject';

/** A record as a form sends it: what stands in its fields, by column, and the hash of what the person saw; '' for a new one. */
export type SaidRecord = {
  readonly cells: Readonly<Record<string, string>>;
  readonly seen: string;
  /** The number or code it has, where the form says another. */
  readonly from?: string;
};

/** Reads and checks what was said, column by column of each record. */
export async function checkSaid(
  tx: Tx,
  kind: SheetKind,
  records: readonly SaidRecord[],
  decimal: Conventions['decimal'],
  setting: Setting,
): Promise<CheckedRow[]> {
  const memory = new Map();
  const all: CheckedRow[] = [];
  for (const [i, { cells }] of records.entries()) {
    const mapping = Object.keys(cells).filter((key) => kind.columns.some((c) => c.key === key));
    const row = { rowNo: i + 1, cells: mapping.map((key) => cells[key] ?? '') };
    const how = { decimal, dates: 'ymd' as const };
    const [checked] = await checkRows(tx, kind, [row], { mapping, how }, setting, memory);
    // What stands in no other row of a file can't be named here.
    const own = (checked as CheckedRow).own.map(
      ({ column }): RowFault => ({
        kind: 'not_on_file',
        what: kind.refers[column]?.what ?? 'item',
        column,
        text: text((checked as CheckedRow).values, column),
      }),
    );
    all.push({ ...(checked as CheckedRow), faults: [...(checked as CheckedRow).faults, ...own] });
  }
  return all;
}

export type Written = {
  /** What the records were before (null = new), in their order, and are now. */
  readonly before: readonly (Values | null)[];
  readonly after: readonly Values[];
  readonly ids: readonly number[];
};

/** The record is not as it was seen. */
export const CHANGED: Failure = { kind: 'changed_meanwhile', what: 'record', who: null, now: null };

/** Writes values that have been checked, over what is kept, with the records of change; marks what is to be reckoned again.
 *  `seen` is what they were checked against: somebody may have been quicker before they were locked.
 *  Errors: changed_meanwhile, wrong_rows for what only the whole shows. */
export async function writeValues(
  tx: Tx,
  kind: SheetKind,
  values: readonly Values[],
  setting: Setting,
  seen: readonly string[] | null = null,
): Promise<Result<Written, Failure>> {
  const refs = await readReferences(tx, kind, values);
  const kept = await keptRecords(tx, kind, values, refs, true);
  if (seen && values.some((v, i) => seenOf(kept.get(kind.keyOf(v))) !== seen[i])) return err(CHANGED);
  const rows = values.map((v, i): WriteRow => {
    const record = kept.get(kind.keyOf(v)) ?? null;
    return { rowNo: i + 1, key: kind.keyOf(v), values: merged(kind.columns, record?.values ?? null, v), kept: record };
  });
  const wrong = (fault: RowFault) =>
    err<Failure>({ kind: 'wrong_rows', faults: rows.map((_, i) => (i === 0 ? [fault] : [])) });
  try {
    await kind.write(tx, rows, refs, setting);
    if (kind.link) await kind.link(tx, rows, await readReferences(tx, kind, values), setting);
  } catch (e) {
    if (e instanceof SheetRefusal) return wrong(e.fault);
    if (isDuplicate(e) || e instanceof LoadMismatch) return err(CHANGED);
    throw e;
  }
  const fault = await kind.verify?.(tx);
  if (fault) return wrong(fault);
  const after = await keptRecords(tx, kind, values, refs, false);
  const now = rows.map((r) => after.get(r.key) as SheetRecord);
  await recordChanges(
    tx,
    setting.userId,
    setting.now,
    changesFor(
      kind,
      rows.map((r, i) => ({ before: r.kept?.values ?? null, after: now[i]?.values ?? r.values, id: now[i]?.id ?? 0 })),
      refs,
    ),
  );
  await markFor(tx, kind, now, refs);
  return ok({
    before: rows.map((r) => r.kept?.values ?? null),
    after: now.map((r) => r?.values ?? {}),
    ids: now.map((r) => r?.id ?? 0),
  });
}

/** Writes what was checked, if the records are still as they were then. Errors: as writeValues. */
export const writeChecked = (tx: Tx, kind: SheetKind, checked: readonly CheckedRow[], setting: Setting) =>
  writeValues(
    tx,
    kind,
    checked.map((c) => c.values),
    setting,
    checked.map((c) => c.seen),
  );

/** Who changed what, under the item, supplier or place it is about. */
function changesFor(
  kind: SheetKind,
  rows: readonly { readonly before: Values | null; readonly after: Values | null; readonly id: number }[],
  refs: References,
): Change[] {
  return rows.flatMap(({ before, after, id }): Change[] => {
    const whole = after ?? before ?? {};
    const changed: readonly FieldChange[] = before && after ? changesOf(before, after) : [];
    if (before && after && changed.length === 0) return [];
    const pick = (values: Values | null, side: 'before' | 'after') =>
      before && after
        ? Object.fromEntries(changed.map((c) => [c.column, c[side]]))
        : values && Object.fromEntries(Object.entries(values).filter(([, v]) => v !== null && v !== ''));
    const { entity, entityId } = subjectOf(kind, whole, id, refs);
    const action = `${kind.title.toLowerCase()}${before ? (after ? '' : ' taken off') : ' added'}`;
    const said = keyWords(kind, whole);
    return [
      {
        entity,
        entityId,
        action: action.slice(0, 40),
        before: before ? { ...said, ...pick(before, 'before') } : undefined,
        after: after ? { ...said, ...pick(after, 'after') } : undefined,
      },
    ];
  });
}

/** The columns that tell which record it is. */
const keyWords = (kind: SheetKind, values: Values): Values =>
  Object.fromEntries(
    kind.columns
      .filter((c) => c.required && kind.keyOf({ [c.key]: '\u0002' }).includes('\u0002'))
      .map((c) => [c.key, values[c.key] ?? null]),
  );

/** Marks what a record changes for the needs: the pairs of its item, all of its supplier, or everything. */
async function markFor(tx: Tx, kind: SheetKind, records: readonly SheetRecord[], refs: References): Promise<void> {
  if (!kind.replan) return;
  const places = (await readLocations(tx)).map((l) => l.id);
  const items = new Set<number>();
  for (const r of records) {
    const item = kind.name === 'items' ? r?.id : itemId(refs, r?.values ?? {});
    const supplier =
      kind.name === 'suppliers' ? r?.id : (refs.suppliers.get(text(r?.values ?? {}, 'supplier'))?.id ?? null);
    if (item) items.add(item);
    else if (supplier) markSet(tx, { supplierId: supplier });
    else return markSet(tx, 'everything');
  }
  markDirty(
    tx,
    [...items].flatMap((item) => places.map((locationId) => ({ itemId: item, locationId }))),
  );
}

/** Takes the records of these values off file, if they are still as they were `seen`. Returns what they were.
 *  Errors: changed_meanwhile, wrong_rows (in_use). */
export async function removeValues(
  tx: Tx,
  kind: SheetKind,
  values: readonly Values[],
  setting: Setting,
  seen: readonly string[] | null = null,
): Promise<Result<readonly Values[], Failure>> {
  const refs = await readReferences(tx, kind, values);
  const kept = await keptRecords(tx, kind, values, refs, true);
  const records = values.flatMap((v) => kept.get(kind.keyOf(v)) ?? []);
  if (records.length < values.length || (seen && records.some((r, i) => seenOf(r) !== seen[i]))) return err(CHANGED);
  const column = kind.columns.find((c) => c.required)?.key ?? '';
  try {
    await kind.remove?.(tx, records, refs);
  } catch (e) {
    if (!isReferenced(e)) throw e;
    return err({
      kind: 'wrong_rows',
      faults: records.map((r) => [{ kind: 'in_use', column, text: text(r.values, column) }]),
    });
  }
  await recordChanges(
    tx,
    setting.userId,
    setting.now,
    changesFor(
      kind,
      records.map((r) => ({ before: r.values, after: null, id: r.id })),
      refs,
    ),
  );
  await markFor(tx, kind, records, refs);
  return ok(records.map((r) => r.values));
}

/** Whether records are still as they were left; for undoing. */
export async function areAsLeft(
  tx: Tx,
  kind: SheetKind,
  keys: readonly Values[],
  left: readonly (Values | null)[],
): Promise<boolean> {
  const refs = await readReferences(tx, kind, keys);
  const kept = await keptRecords(tx, kind, keys, refs, true);
  return keys.every((v, i) => {
    const record = kept.get(kind.keyOf(v));
    const was = left[i] ?? null;
    return was === null
      ? record === undefined
      : record !== undefined && seenOf(record) === seenOf({ id: 0, values: was });
  });
}
