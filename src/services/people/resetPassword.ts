import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { deleteSessionsOf, lockUser, setPasswordHash } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { keepLink, linkOf, type MadeLink, newLink } from './person';

/** Gives somebody a link to set a new password with. The old password and the sessions opened with it end at once.
 *  Errors: forbidden, not_found, not_oneself (one changes one's own with the old one). */
export async function resetPassword(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly userId: number }>,
): Promise<Result<MadeLink, Failure>> {
  const allowed = may(actor, 'people.edit');
  if (!allowed.ok) return allowed;
  const { userId } = request.input;
  if (userId === actor.userId) return err({ kind: 'not_oneself' });
  const link = newLink();
  const made = await command(deps, actor, 'reset-password', request, async (tx, now) => {
    const user = await lockUser(tx, userId);
    if (!user) return err({ kind: 'not_found', what: 'user' });
    await setPasswordHash(tx, userId, '');
    await deleteSessionsOf(tx, userId, null);
    await keepLink(deps, tx, link, userId, actor.userId);
    await recordChanges(tx, actor.userId, now, [{ entity: 'user', entityId: userId, action: 'password reset' }]);
    return ok({ userId, print: link.hash.toString('hex') });
  });
  return made.ok ? ok(linkOf(link, made.value)) : made;
}
