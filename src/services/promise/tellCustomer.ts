import { randomBytes } from 'node:crypto';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setLineTold } from '@/data/repositories/customerOrders';
import { insertMail } from '@/data/repositories/outbox';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { promiseLinesOf } from './readPromises';

export type TellCustomer = OrderVersion & {
  readonly how: 'email' | 'phone';
  readonly subject: string;
  readonly body: string;
};

/** Tells a customer how an order stands, by mail out of the outbox or as noted after a call. What each open line was promised
 *  for is kept beside it, so that it shows when a promise moves. A mail can't be taken back.
 *  Errors: forbidden, not_found, changed_meanwhile, no_customer_mail. */
export async function tellCustomer(
  deps: Deps,
  actor: Actor,
  request: Request<TellCustomer>,
): Promise<Result<null, Failure>> {
  const { how, subject, body } = request.input;
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'tell-customer', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'tell');
    if (!opened.ok) return opened;
    const { order, lines } = opened.value;
    if (how === 'email') {
      if (order.mail === '') return err({ kind: 'no_customer_mail', customer: order.customer });
      await insertMail(tx, {
        ...{ subject, body, recipient: order.mail, entity: 'customer_order', entityId: order.id },
        messageId: `<promise-${order.id}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
        ...{ userId: actor.userId, at: now },
      });
    }
    const standing = await promiseLinesOf(
      deps,
      tx,
      lines.map((l) => l.id),
    );
    const open = standing.filter((l) => l.open > 0);
    for (const [date, own] of groupBy(open, (l) => l.promise?.date ?? null))
      await setLineTold(
        tx,
        own.map((l) => l.lineId),
        date,
        now,
      );
    const after = { how, lines: open.map((l) => ({ line: l.lineNo, date: l.promise?.date ?? null })) };
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'customer_order',
        entityId: order.id,
        action: how === 'email' ? 'customer told by mail' : 'customer told by phone',
        after,
      },
    ]);
    return ok(null);
  });
}
