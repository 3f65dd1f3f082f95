import { type Actor, checkPassword } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { deleteSessionsOf, findUser, lockUser, setPasswordHash } from '@/data/repositories/people';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import { type Failure, invalidField } from '../failure';
import { hashOf, hashPassword, isPassword, tooMany, tooManyAttempts } from './session';

/** A person's own password, with the old one. Sessions on other machines end; `token` is the one that stays. Passwords are
 *  never part of a stored command, so this is none.
 *  Errors: too_many_attempts, wrong_password, invalid_field password. */
export async function changePassword(
  deps: Deps,
  actor: Actor,
  input: { readonly old: string; readonly password: string; readonly token: string; readonly address: string },
): Promise<Result<null, Failure>> {
  const user = await readSnapshot(deps.pool, (tx) => findUser(tx, actor.userId));
  if (!user) return err({ kind: 'not_found', what: 'user' });
  if (await tooManyAttempts(deps, user.login, input.address)) return err(tooMany);
  if (!(await isPassword(user.passwordHash, input.old))) return err({ kind: 'wrong_password' });
  const checked = checkPassword({ login: user.login, name: user.name, password: input.password });
  if (!checked.ok) return err(invalidField('password', checked.error));
  const passwordHash = await hashPassword(input.password);
  return write<null, Failure>(deps.pool, async (tx) => {
    const locked = await lockUser(tx, actor.userId);
    if (locked?.passwordHash !== user.passwordHash) return err({ kind: 'wrong_password' });
    await setPasswordHash(tx, actor.userId, passwordHash);
    await deleteSessionsOf(tx, actor.userId, hashOf(input.token));
    await recordChanges(tx, actor.userId, stamp(deps.clock()), [
      { entity: 'user', entityId: actor.userId, action: 'password changed' },
    ]);
    return ok(null);
  });
}
