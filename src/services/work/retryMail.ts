import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findCarried, setSendingMail } from '@/data/repositories/orderLife';
import { lockOrder } from '@/data/repositories/orders';
import { lockMail, setMailState } from '@/data/repositories/outbox';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

/** Tries a mail again that could not be sent, or stops one that waits; an order whose mail was stopped can be sent in another way.
 *  A mail that is just going out is neither. Errors: forbidden, not_found, mail_gone (with how it stands). */
export async function retryMail(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly mailId: number; readonly what: 'retry' | 'stop' }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.send');
  if (!allowed.ok) return allowed;
  const { mailId, what } = request.input;
  return command(deps, actor, 'retry-mail', request, async (tx, now) => {
    const carried = await findCarried(tx, mailId);
    const order = carried ? await lockOrder(tx, carried.id) : null;
    const mail = await lockMail(tx, mailId);
    if (!mail) return err({ kind: 'not_found', what: 'mail' });
    const going = mail.heldUntil !== null && mail.heldUntil > now;
    // An order's mail that no longer carries it is history: it went out in another way.
    const lost = mail.entity === 'order' && order?.sendingMailId !== mailId;
    const can = what === 'retry' ? mail.state === 'failed' || mail.state === 'stopped' : mail.state === 'waiting';
    if (!can || going || lost)
      return err({ kind: 'mail_gone', state: going ? 'going' : lost ? 'overtaken' : mail.state });
    await setMailState(tx, { id: mailId, state: what === 'retry' ? 'waiting' : 'stopped', at: now });
    if (order) {
      await setSendingMail(tx, order.id, mailId);
      const action = what === 'retry' ? 'mail tried again' : 'mail stopped';
      await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: order.id, action }]);
    }
    return ok(null);
  });
}
