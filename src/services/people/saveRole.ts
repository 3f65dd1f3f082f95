import { type Actor, isRight, isRole, may, type Right } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { isDuplicate } from '@/data/errors';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { insertOwnRole, lockOwnRole, updateOwnRole } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

/** A role of the company's own; `roleId` null makes a new one. */
export type SaveRole = {
  readonly roleId: number | null;
  readonly version: number | null;
  readonly name: string;
  readonly rights: readonly string[];
};

/** Makes or changes a role of the company's own. Nobody gives a right that they don't have.
 *  Errors: forbidden, not_found, changed_meanwhile, invalid_field name, name_taken. */
export async function saveRole(
  deps: Deps,
  actor: Actor,
  request: Request<SaveRole>,
): Promise<Result<{ readonly roleId: number }, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  const name = request.input.name.trim();
  if (name === '') return err(invalidField('name', { kind: 'name_missing' }));
  if (isRole(name.toLowerCase())) return err({ kind: 'name_taken', name });
  const given: Right[] = [];
  for (const right of request.input.rights) {
    if (!isRight(right)) return err({ kind: 'not_found', what: 'role' });
    const own = may(actor, right);
    if (!own.ok) return own;
    given.push(right);
  }
  try {
    return await command(deps, actor, 'save-role', request, async (tx, now) => {
      const { roleId, version } = request.input;
      const rights = JSON.stringify([...new Set(given)]);
      if (roleId === null) {
        const made = await insertOwnRole(tx, { name, rights });
        await recordChanges(tx, actor.userId, now, [
          { entity: 'role', entityId: made, action: 'made', after: { name, rights: given } },
        ]);
        return ok({ roleId: made });
      }
      const had = await lockOwnRole(tx, roleId);
      if (!had) return err({ kind: 'not_found', what: 'role' });
      if (had.version !== version) return err({ kind: 'changed_meanwhile', what: 'user', who: null, now: null });
      await updateOwnRole(tx, { id: roleId, name, rights });
      const before = { name: had.name, rights: JSON.parse(had.rights) as string[] };
      await recordChanges(tx, actor.userId, now, [
        { entity: 'role', entityId: roleId, action: 'changed', before, after: { name, rights: given } },
      ]);
      return ok({ roleId });
    });
  } catch (e) {
    if (isDuplicate(e)) return err({ kind: 'name_taken', name });
    throw e;
  }
}
