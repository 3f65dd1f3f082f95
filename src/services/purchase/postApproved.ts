import { moneyText } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { orderTotals } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { keepOrderCharges } from '@/data/repositories/orderCharges';
import { endChange, insertAmendment, readOrderRules } from '@/data/repositories/orderLife';
import { approveOrderRow, keepOrderRate } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type LoadedOrder, pairsOf } from './loadOrder';
import { costOfOrder } from './orderCosts';
import { findingsOf } from './orderFindings';
import { type DrawnNumber, drawOrderNumber } from './orderNumber';
import { needsFourEyes } from './orderSums';
import { totalLineOf } from './pricing';
import { toldOtherwise } from './said';

export type ApprovedOrder = { readonly number: string; readonly amendment?: number };

/** Approves an order, locked and loaded for it, that has nothing missing: a draft gets its number, a change its own.
 *  Errors: above_limit, four_eyes, not_ready with what is missing. */
export async function postApproved(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  now: string,
  loaded: LoadedOrder,
): Promise<Result<ApprovedOrder, Failure>> {
  const { order, lines, parts } = loaded;
  const company = await readCompany(tx);
  const today = todayOf(deps, company);
  const exchange = await readExchange(tx, company.currency, today);
  const { net } = orderTotals(lines.map(totalLineOf), order.currency);
  const netInBase = exchange.toBase(net, order.currency);
  const missing = findingsOf(order, lines, parts, today, netInBase !== null).filter((f) => f.blocks);
  const { currency } = order;
  if (missing.length > 0) return err({ kind: 'not_ready', findings: missing, currency });
  const amount = { net: netInBase ?? 0, currency: company.currency };
  const within = may(actor, 'orders.approve', { amount });
  if (!within.ok) return within;
  if (order.createdById === actor.userId && needsFourEyes((await readOrderRules(tx)).fourEyes, amount.net))
    return err({ kind: 'four_eyes' });
  if (order.state === 'amending' || order.state === 'amendment_awaiting') {
    const amendment = await approveChange(tx, actor, now, loaded);
    return ok({ number: order.number ?? '', amendment });
  }
  const drawn: DrawnNumber =
    order.number === null ? await drawOrderNumber(tx, today) : { number: order.number, series: null, no: null };
  const { number } = drawn;
  await approveOrderRow(tx, {
    id: order.id,
    ...drawn,
    userId: actor.userId,
    at: now,
    orderDate: order.datedBecause === '' ? today : order.orderDate,
  });
  const { charges } = await costOfOrder(tx, order, lines, exchange, today);
  await keepOrderCharges(tx, order.id, charges);
  const rate = exchange.quoted(order.currency);
  if (rate) await keepOrderRate(tx, order.id, rate);
  await recordChanges(tx, actor.userId, now, [
    { entity: 'order', entityId: order.id, action: 'approved', after: { number, net: moneyText(net, currency) } },
  ]);
  markDirty(tx, pairsOf(lines, parts));
  return ok({ number });
}

/** Approves the change of an order, locked, and numbers it. */
async function approveChange(tx: Tx, actor: Actor, now: string, loaded: LoadedOrder): Promise<number> {
  const { order, lines, parts, next } = loaded;
  const differences = await toldOtherwise(tx, order.id, lines, parts);
  const no = order.amendmentNo + 1;
  const json = JSON.stringify(differences);
  await insertAmendment(tx, { orderId: order.id, no, differences: json, userId: actor.userId, at: now });
  await endChange(tx, { id: order.id, state: next, no });
  await recordChanges(tx, actor.userId, now, [
    {
      entity: 'order',
      entityId: order.id,
      action: `change ${no} approved`,
      after: { differences: differences.length },
    },
  ]);
  markDirty(tx, pairsOf(lines, parts));
  return no;
}
