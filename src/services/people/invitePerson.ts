import { type Actor, checkName, initialsOf, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { isDuplicate } from '@/data/errors';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { insertUser, setUserLocations } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { checkTerms, keepLink, linkOf, type MadeLink, newLink, type PersonTerms, wordsOfTerms } from './person';

/** Makes an account without a password, and the link with which its person sets one.
 *  Errors: forbidden, invalid_field, not_found, login_taken. */
export async function invitePerson(
  deps: Deps,
  actor: Actor,
  request: Request<PersonTerms & { readonly login: string }>,
): Promise<Result<MadeLink, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  const { login, ...terms } = request.input;
  const named = checkName({ login, name: terms.name });
  if (!named.ok) return err(invalidField(named.error.kind === 'login_shape' ? 'login' : 'name', named.error));
  const link = newLink();
  try {
    const made = await command(deps, actor, 'invite-person', request, async (tx, now) => {
      const checked = await checkTerms(tx, terms);
      if (!checked.ok) return checked;
      const name = terms.name.trim();
      const user = { login, name, initials: initialsOf(name), role: terms.role, passwordHash: '', ...checked.value };
      const userId = await insertUser(tx, user);
      await setUserLocations(tx, userId, terms.locationIds);
      await keepLink(deps, tx, link, userId, actor.userId);
      const said = (await wordsOfTerms(tx))(checked.value.approvalLimit, terms.locationIds);
      const after = { login, name, role: terms.role, ...said };
      await recordChanges(tx, actor.userId, now, [{ entity: 'user', entityId: userId, action: 'invited', after }]);
      return ok({ userId, print: link.hash.toString('hex') });
    });
    return made.ok ? ok(linkOf(link, made.value)) : made;
  } catch (e) {
    if (isDuplicate(e)) return err({ kind: 'login_taken', login });
    throw e;
  }
}
