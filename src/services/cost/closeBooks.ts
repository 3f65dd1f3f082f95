import { isDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockBooksClosedTo, readCompany, setBooksClosedTo } from '@/data/repositories/company';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';

/** `to`: the last closed day, '' to open all; `was`: what the person saw. */
export type CloseBooks = { readonly to: string; readonly was: string };

/** Closes the books up to a day: nothing is posted on or before it. Can be moved back as well.
 *  Errors: forbidden, invalid_field to (not a date, in the future), changed_meanwhile. */
export async function closeBooks(
  deps: Deps,
  actor: Actor,
  request: Request<CloseBooks>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'books.close');
  if (!allowed.ok) return allowed;
  const { to, was } = request.input;
  if (to !== '' && !isDate(to)) return err(invalidField('to', { kind: 'not_a_date', text: to }));
  return command(deps, actor, 'close-books', request, async (tx, now) => {
    if (to > todayOf(deps, await readCompany(tx))) return err(invalidField('to', { kind: 'in_the_future', text: to }));
    const closed = (await lockBooksClosedTo(tx)) ?? '';
    if (closed !== was) return err({ kind: 'changed_meanwhile', what: 'value', who: null, now: closed });
    await setBooksClosedTo(tx, to === '' ? null : to);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'company', entityId: 1, action: 'books closed to', before: was, after: to },
    ]);
    return ok(null);
  });
}
