import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { countRoleUsers, deleteOwnRole, lockOwnRole } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Takes a role of the company's own away, once nobody has it. Errors: forbidden, not_found, role_in_use. */
export async function removeRole(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly roleId: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'remove-role', request, async (tx, now) => {
    const { roleId } = request.input;
    const had = await lockOwnRole(tx, roleId);
    if (!had) return err({ kind: 'not_found', what: 'role' });
    const people = await countRoleUsers(tx, `own-${roleId}`);
    if (people > 0) return err({ kind: 'role_in_use', people });
    await deleteOwnRole(tx, roleId);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'role', entityId: roleId, action: 'taken away', before: { name: had.name } },
    ]);
    return ok(null);
  });
}
