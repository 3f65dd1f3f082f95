import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { deletePieces, updateImport } from '@/data/repositories/imports';
import { findJob, wantCancel } from '@/data/repositories/jobs';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type ImportVersion, lockOwn, mayImport } from './lockOwn';

const open = ['uploading', 'reading', 'to_map', 'checking', 'checked', 'applying', 'refused'] as const;

/** Lets an import go that has not begun to write; the books are as they were.
 *  Errors: forbidden, not_found, not_now, changed_meanwhile. */
export async function cancelSheet(
  deps: Deps,
  actor: Actor,
  request: Request<ImportVersion>,
): Promise<Result<null, Failure>> {
  const allowed = mayImport(actor);
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'cancel-sheet', request, async (tx, now) => {
    const own = await lockOwn(tx, actor, request.input, ...open);
    if (!own.ok) return own;
    const { row } = own.value;
    // What is being written is written or not; only work that has failed for good can be let go.
    const job = row.jobId === null ? null : await findJob(tx, row.jobId);
    if (row.state === 'applying' && job?.state !== 'failed') return err({ kind: 'not_now', state: row.state });
    if (row.jobId !== null) await wantCancel(tx, row.jobId, now);
    await deletePieces(tx, row.id);
    await updateImport(tx, row.id, { state: 'cancelled' });
    await recordChanges(tx, actor.userId, now, [{ entity: 'import', entityId: row.id, action: 'cancelled' }]);
    return ok(null);
  });
}
