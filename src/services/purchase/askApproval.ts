import { randomBytes } from 'node:crypto';
import { moneyText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { orderTotals } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { askForApproval, stopAsking } from '@/data/repositories/orderLife';
import { insertMail } from '@/data/repositories/outbox';
import { readUsers } from '@/data/repositories/people';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { loadOrder, pairsOf } from './loadOrder';
import { findingsOf } from './orderFindings';
import { readApprovers } from './orderSums';
import { totalLineOf } from './pricing';
import type { OrderVersion } from './putBackOrder';

export type AskApproval = OrderVersion & {
  /** Who is asked; null = whoever may. */
  readonly userId: number | null;
  readonly note: string;
};

/** Asks for the approval of a draft or of a change; a person who is named is told by mail where an address of theirs is on file,
 *  and finds it on Today in any case. It stays as it is until somebody answers. Errors: forbidden, not_found, changed_meanwhile,
 *  not_in_this_state, not_ready, invalid_field userId when that person may not approve it. */
export async function askApproval(
  deps: Deps,
  actor: Actor,
  request: Request<AskApproval>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version, userId, note } = request.input;
  return command(deps, actor, 'ask-approval', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'ask', version);
    if (!loaded.ok) return loaded;
    const { order, lines, parts, next } = loaded.value;
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const missing = findingsOf(order, lines, parts, today, true).filter((f) => f.blocks);
    const { currency } = order;
    if (missing.length > 0) return err({ kind: 'not_ready', findings: missing, currency });
    const { net } = orderTotals(lines.map(totalLineOf), currency);
    const asked = userId === null ? null : ((await readUsers(tx)).find((u) => u.id === userId) ?? null);
    if (userId !== null) {
      const who = (await readApprovers(tx, company.currency, today))(net, currency, order.createdById);
      if (!asked || !who.some((u) => u.id === asked.id))
        return err(invalidField('userId', { kind: 'may_not_approve', text: asked?.name ?? '' }));
    }
    if (asked && asked.mail !== '')
      await insertMail(tx, {
        ...{ recipient: asked.mail, entity: 'approval', entityId: orderId, userId: actor.userId, at: now },
        messageId: `<approval-${orderId}.${randomBytes(9).toString('hex')}@vorrat.invalid>`,
        subject: `Please approve: ${order.number ?? 'a draft'} to ${order.supplierName}`,
        body: [
          `${actor.name} asks you to approve ${order.number ?? 'a draft order'} to ${order.supplierName}:`,
          `${lines.length} ${lines.length === 1 ? 'line' : 'lines'}, ${moneyText(net, currency)} net.`,
          ...(note.trim() ? ['', note.trim()] : []),
        ].join('\n'),
      });
    await askForApproval(tx, { id: orderId, state: next, userId: actor.userId, at: now, askedUserId: userId });
    const after = { ...(asked ? { asked: asked.name } : {}), ...(note.trim() ? { note: note.trim() } : {}) };
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: 'approval asked for', after },
    ]);
    markDirty(tx, pairsOf(lines, parts));
    return ok(null);
  });
}

/** Takes a question for approval back. Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export const withdrawOrder = (deps: Deps, actor: Actor, request: Request<OrderVersion>) =>
  backToWork(deps, actor, request, 'withdraw', '');

/** Refuses to approve, with the reason why. Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, invalid_field
 *  reason. */
export async function refuseOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion & { readonly reason: string }>,
): Promise<Result<null, Failure>> {
  const reason = request.input.reason.trim();
  const allowed = may(actor, 'orders.approve');
  if (!allowed.ok) return allowed;
  if (reason === '') return err(invalidField('reason', { kind: 'reason_missing' }));
  return backToWork(deps, actor, request, 'refuse', reason);
}

async function backToWork(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
  action: 'withdraw' | 'refuse',
  reason: string,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, action === 'refuse' ? 'orders.approve' : 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version } = request.input;
  return command(deps, actor, `${action}-order`, request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, action, version);
    if (!loaded.ok) return loaded;
    await stopAsking(tx, orderId, loaded.value.next);
    await recordChanges(tx, actor.userId, now, [
      action === 'refuse'
        ? { entity: 'order', entityId: orderId, action: 'approval refused', after: reason }
        : { entity: 'order', entityId: orderId, action: 'no longer asked for approval' },
    ]);
    return ok(null);
  });
}
