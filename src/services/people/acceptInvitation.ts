import { checkPassword } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  deleteInvitation,
  deleteSessionsOf,
  findInvitation,
  findUser,
  lockInvitation,
  setPasswordHash,
} from '@/data/repositories/people';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import { type Failure, invalidField } from '../failure';
import { hashOf, hashPassword, tooMany, tooManyAttempts } from './session';

/** Whom a link is for, null when it is not good any more. */
export async function readInvitation(
  deps: Deps,
  token: string,
): Promise<{ readonly login: string; readonly name: string } | null> {
  const now = stamp(deps.clock());
  return readSnapshot(deps.pool, async (tx) => {
    const found = await findInvitation(tx, hashOf(token));
    const user = found && found.expiresAt > now ? await findUser(tx, found.userId) : null;
    return user?.active === 1 ? { login: user.login, name: user.name } : null;
  });
}

/** Sets a password with a link, once. Nobody is signed in: the link is the right to do it.
 *  Errors: too_many_attempts, link_void, invalid_field password. */
export async function acceptInvitation(
  deps: Deps,
  input: { readonly token: string; readonly password: string; readonly address: string },
): Promise<Result<{ readonly login: string }, Failure>> {
  const { token, password, address } = input;
  if (await tooManyAttempts(deps, `link ${token.slice(0, 12)}`, address)) return err(tooMany);
  const person = await readInvitation(deps, token);
  if (!person) return err({ kind: 'link_void' });
  const checked = checkPassword({ ...person, password });
  if (!checked.ok) return err(invalidField('password', checked.error));
  const passwordHash = await hashPassword(password);
  return write<{ login: string }, Failure>(deps.pool, async (tx) => {
    const now = stamp(deps.clock());
    const link = await lockInvitation(tx, hashOf(token));
    if (!link || link.expiresAt <= now) return err({ kind: 'link_void' });
    await setPasswordHash(tx, link.userId, passwordHash);
    await deleteInvitation(tx, hashOf(token));
    await deleteSessionsOf(tx, link.userId, null);
    await recordChanges(tx, link.userId, now, [{ entity: 'user', entityId: link.userId, action: 'password set' }]);
    return ok({ login: person.login });
  });
}
