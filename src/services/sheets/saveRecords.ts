import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import type { Conventions, RowFault } from '@/core/sheets';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import type { CheckedRow } from './checkRows';
import { sheetKindOf } from './kinds';
import { maySheet } from './lockOwn';
import { CHANGED, checkSaid, type SaidRecord, writeChecked } from './recordSteps';
import { renameSaid } from './renameSaid';
import { isKeyColumn, type SheetKind, settingFor, text } from './sheetKind';

export type SaveRecords = {
  readonly sheet: string;
  readonly records: readonly SaidRecord[];
  readonly decimal: Conventions['decimal'];
};

export type SavedRecords = { readonly saved: number; readonly ids: readonly number[] };

/** Saves records of one kind by hand, under the rules of its spreadsheet: what one may not bring by file one may not type.
 *  A record said `from` another number or code is renamed. All of them or none. Errors: forbidden, not_found, changed_meanwhile, wrong_rows with the faults of each. */
export async function saveRecords(
  deps: Deps,
  actor: Actor,
  request: Request<SaveRecords>,
): Promise<Result<SavedRecords, Failure>> {
  const kind = sheetKindOf(request.input.sheet);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind?.byHand) return err({ kind: 'not_found', what: 'template' });
  return command(deps, actor, 'save-records', request, async (tx, now) => {
    const setting = await settingFor(deps, tx, actor.userId, now);
    const { records: said, decimal } = request.input;
    const renamed = await renameSaid(tx, kind, setting, said, decimal);
    if (!renamed.ok) return renamed;
    const isRenamed = (key: string) => renamed.value.some((r) => r.to === key);
    const checked = await checkSaid(tx, kind, said, decimal, setting);
    const stale = checked.some(
      (c, i) => c.key !== '' && said[i]?.seen !== '' && c.seen !== said[i]?.seen && !isRenamed(c.key),
    );
    if (stale) return err(CHANGED);
    const faults = checked.map((c, i) =>
      c.faults.length === 0 && said[i]?.seen === '' && c.seen !== '' ? [alreadyThere(kind, c)] : c.faults,
    );
    if (faults.some((f) => f.length > 0)) return err({ kind: 'wrong_rows', faults });
    const written = await writeChecked(tx, kind, checked, setting);
    if (!written.ok) return written;
    const { before, after } = written.value;
    const effect = { kind: 'records' as const, sheet: kind.name, before, after, renamed: renamed.value };
    await recordUndo(tx, actor, request.key, 'save-records', now, effect);
    return ok({ saved: checked.length, ids: written.value.ids });
  });
}

/** A new record whose key another has: said at the last column of the key, which tells it from its neighbours. */
function alreadyThere(kind: SheetKind, { values }: CheckedRow): RowFault {
  const column = kind.columns.findLast((c) => text(values, c.key) !== '' && isKeyColumn(kind, c.key));
  return { kind: 'on_file_already', column: column?.key ?? '', text: text(values, column?.key ?? '') };
}
