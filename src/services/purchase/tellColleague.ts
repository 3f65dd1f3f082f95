import { randomBytes } from 'node:crypto';
import { moneyText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { orderTotals } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockOrder, readOrderLines } from '@/data/repositories/orders';
import { insertMail } from '@/data/repositories/outbox';
import { readUsers } from '@/data/repositories/people';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { totalLineOf } from './pricing';

export type TellColleague = { readonly orderId: number; readonly userId: number; readonly note: string };

/** Tells a colleague of an order by mail, without asking for anything; its history says so. Errors: forbidden, not_found. */
export async function tellColleague(
  deps: Deps,
  actor: Actor,
  request: Request<TellColleague>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, userId } = request.input;
  const note = request.input.note.trim();
  return command(deps, actor, 'tell-colleague', request, async (tx, now) => {
    const order = await lockOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    const told = (await readUsers(tx)).find((u) => u.id === userId && u.active === 1);
    if (!told) return err({ kind: 'not_found', what: 'user' });
    if (told.mail === '') return err({ kind: 'no_colleague_mail', name: told.name });
    const lines = await readOrderLines(tx, [orderId]);
    const { net } = orderTotals(lines.map(totalLineOf), order.currency);
    const name = order.number ?? 'a draft order';
    await insertMail(tx, {
      ...{ recipient: told.mail, entity: 'approval', entityId: orderId, userId: actor.userId, at: now },
      messageId: `<told-${orderId}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
      subject: `For your information: ${order.number ?? 'a draft'} to ${order.supplierName}`,
      body: [
        `${actor.name} tells you of ${name} to ${order.supplierName}:`,
        `${lines.length} ${lines.length === 1 ? 'line' : 'lines'}, ${moneyText(net, order.currency)} net.`,
        ...(note ? ['', note] : []),
      ].join('\n'),
    });
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'order', entityId: orderId, action: 'told a colleague' },
        after: { to: told.name, ...(note ? { note } : {}) },
      },
    ]);
    return ok(null);
  });
}
