import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { sheetKindOf } from './kinds';
import { maySheet } from './lockOwn';
import { CHANGED, checkSaid, removeValues, type SaidRecord } from './recordSteps';
import { settingFor } from './sheetKind';

export type RemoveRecords = {
  readonly sheet: string;
  readonly records: readonly SaidRecord[];
};

/** Takes records off file; what is used elsewhere stays, and with it all of them.
 *  Errors: forbidden, not_found, changed_meanwhile, wrong_rows (in_use). */
export async function removeRecords(
  deps: Deps,
  actor: Actor,
  request: Request<RemoveRecords>,
): Promise<Result<null, Failure>> {
  const kind = sheetKindOf(request.input.sheet);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind?.remove) return err({ kind: 'not_found', what: 'template' });
  return command(deps, actor, 'remove-records', request, async (tx, now) => {
    const setting = await settingFor(deps, tx, actor.userId, now);
    const checked = await checkSaid(tx, kind, request.input.records, '.', setting);
    if (checked.some((c, i) => c.seen === '' || c.seen !== request.input.records[i]?.seen)) return err(CHANGED);
    const gone = await removeValues(
      tx,
      kind,
      checked.map((c) => c.values),
      setting,
      checked.map((c) => c.seen),
    );
    if (!gone.ok) return gone;
    const nothing = gone.value.map(() => null);
    await recordUndo(tx, actor, request.key, 'remove-records', now, {
      kind: 'records',
      sheet: kind.name,
      before: gone.value,
      after: nothing,
    });
    return ok(null);
  });
}
