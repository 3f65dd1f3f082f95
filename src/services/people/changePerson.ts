import { type Actor, initialsOf, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  countOtherOwners,
  deleteSessionsOf,
  lockUser,
  readUserLocations,
  setUserLocations,
  updateUser,
} from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { checkTerms, type PersonTerms, wordsOfTerms } from './person';

export type ChangePerson = PersonTerms & {
  readonly userId: number;
  readonly version: number;
  readonly active: boolean;
};

/** Role, places, limit and name of a person, and whether they may sign in. Somebody who may not is signed out at once.
 *  Errors: forbidden, not_found, changed_meanwhile, not_oneself, last_owner, invalid_field. */
export async function changePerson(
  deps: Deps,
  actor: Actor,
  request: Request<ChangePerson>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'change-person', request, async (tx, now) => {
    const { userId, version, active, ...terms } = request.input;
    const had = await lockUser(tx, userId);
    if (!had) return err({ kind: 'not_found', what: 'user' });
    if (had.version !== version) return err({ kind: 'changed_meanwhile', what: 'user', who: null, now: null });
    const checked = await checkTerms(tx, terms);
    if (!checked.ok) return checked;
    if (userId === actor.userId && (terms.role !== had.role || !active)) return err({ kind: 'not_oneself' });
    const stops = had.role === 'owner' && (terms.role !== 'owner' || !active);
    if (stops && (await countOtherOwners(tx, userId)) === 0) return err({ kind: 'last_owner' });
    const places = await readUserLocations(tx, userId);
    const name = terms.name.trim();
    const { approvalLimit } = checked.value;
    await updateUser(tx, {
      ...{ id: userId, name, initials: initialsOf(name), role: terms.role, approvalLimit, active: active ? 1 : 0 },
    });
    await setUserLocations(tx, userId, terms.locationIds);
    if (!active) await deleteSessionsOf(tx, userId, null);
    const said = await wordsOfTerms(tx);
    const before = {
      ...{ name: had.name, role: had.role, active: had.active === 1 },
      ...said(had.approvalLimit, places),
    };
    const after = { name, role: terms.role, active, ...said(approvalLimit, terms.locationIds) };
    await recordChanges(tx, actor.userId, now, [
      { entity: 'user', entityId: userId, action: 'changed', before, after },
    ]);
    return ok(null);
  });
}
