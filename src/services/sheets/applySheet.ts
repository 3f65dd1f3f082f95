import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { updateImport } from '@/data/repositories/imports';
import { insertJob } from '@/data/repositories/jobs';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type ImportVersion, lockOwn, mayImport } from './lockOwn';

/** Has the worker write what was previewed: rows that are new or changed; faulty ones stay out.
 *  Errors: forbidden, not_found, not_now (also when there is nothing to write), changed_meanwhile. */
export async function applySheet(
  deps: Deps,
  actor: Actor,
  request: Request<ImportVersion>,
): Promise<Result<null, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'apply-sheet', request, async (tx, now) => {
    const own = await lockOwn(tx, actor, request.input, 'checked');
    if (!own.ok) return own;
    const { row } = own.value;
    if (row.newRows + row.changedRows === 0) return err({ kind: 'not_now', state: 'unchanged' });
    const input = JSON.stringify({ importId: row.id });
    const jobId = await insertJob(tx, { kind: 'write-sheet', input, notBefore: now, userId: actor.userId, at: now });
    await updateImport(tx, row.id, { state: 'applying', jobId });
    const after = { file: row.fileName, new: row.newRows, changed: row.changedRows };
    await recordChanges(tx, actor.userId, now, [{ entity: 'import', entityId: row.id, action: 'applied', after }]);
    return ok(null);
  });
}
