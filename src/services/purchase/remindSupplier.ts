import { randomBytes } from 'node:crypto';
import { parseDate } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { isOrdered, reminderMail } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result, unwrap } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { readOrderRules, setFollowUp } from '@/data/repositories/orderLife';
import { lockOrder, readOrderLines, readParts } from '@/data/repositories/orders';
import { insertMail } from '@/data/repositories/outbox';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { openOfPart } from './loadOrder';

/** Asks a supplier by mail, in their language: to confirm an order, or when what is overdue will come; and notes when to ask again.
 *  Errors: forbidden, not_found, not_in_this_state, no_mail_address. */
export async function remindSupplier(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly orderId: number }>,
): Promise<Result<{ readonly to: string; readonly next: string }, Failure>> {
  const allowed = may(actor, 'orders.send');
  if (!allowed.ok) return allowed;
  const { orderId } = request.input;
  return command(deps, actor, 'remind-supplier', request, async (tx, now) => {
    const order = await lockOrder(tx, orderId);
    if (!order) return err({ kind: 'not_found', what: 'order' });
    if (!isOrdered(order.state) || order.sentAt === null)
      return err({ kind: 'not_in_this_state', state: order.state, action: 'confirm' });
    if (order.supplierEmail === '') return err({ kind: 'no_mail_address', supplier: order.supplierName });
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const lines = await readOrderLines(tx, [orderId]);
    const open = (await readParts(tx, [orderId])).filter((p) => openOfPart(p) > 0);
    const due = (p: (typeof open)[number]) => p.confirmedDate ?? p.promisedDate ?? p.wantedDate;
    const late = open.filter((p) => (due(p) ?? today) < today);
    const about = late.length > 0 ? ('overdue' as const) : ('confirm' as const);
    const asked = (late.length > 0 ? late : open).flatMap((p) => {
      const line = lines.find((l) => l.id === p.lineId);
      if (!line) return [];
      const { lineNo, description, packName } = line;
      return [{ lineNo, description, packName, packs: fromDecimal(p.packQuantity), due: due(p) }];
    });
    await insertMail(tx, {
      ...{ recipient: order.supplierEmail, entity: 'reminder', entityId: orderId, userId: actor.userId, at: now },
      messageId: `<reminder-${orderId}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
      ...reminderMail({
        ...{ about, number: order.number ?? '', orderDate: order.orderDate, lines: asked },
        ...{ language: order.supplierLanguage, currency: order.currency, from: [actor.name, company.name] },
      }),
    });
    const next = unwrap(parseDate(`+${Math.max(1, (await readOrderRules(tx)).confirmDays)}`, today));
    await setFollowUp(tx, orderId, next);
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'asked by mail', after: { next } },
    ]);
    return ok({ to: order.supplierEmail, next });
  });
}
