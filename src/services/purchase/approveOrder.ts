import { type Actor, may } from '@/core/people';
import { findings, orderTotals } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { approveOrderRow, type OrderLineRow, type OrderRow, type PartRow } from '@/data/repositories/orders';
import { markDirty } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { loadOrder, pairsOf } from './loadOrder';
import { totalLineOf } from './pricing';
import type { OrderVersion } from './putBackOrder';

/** What is missing on an order and worth knowing, from its rows. */
export function findingsOf(order: OrderRow, lines: readonly OrderLineRow[], parts: readonly PartRow[], today: string) {
  return findings({
    lines: lines.map((l) => ({
      lineNo: l.lineNo,
      kind: l.kind,
      packQuantity: fromDecimal(l.packQuantity),
      priceAmount: l.priceAmount,
      freeOfCharge: l.freeOfCharge === 1,
      parts: parts
        .filter((p) => p.lineId === l.id)
        .map((p) => ({ wantedDate: p.wantedDate, hasLocation: p.locationId !== null })),
    })),
    supplierBlocked: order.supplierBlocked === 1,
    supplierAddress: order.supplierAddress.trim() !== '',
    orderMinimum: order.orderMinimum,
    net: orderTotals(lines.map(totalLineOf), order.currency).net,
    today,
  });
}

/** 47th order of November 2026: "2611-0047". */
export const numberText = (prefix: string, period: string, n: number): string => `${prefix}${period}-${String(n).padStart(4, '0')}`;

/** Approves a draft that has nothing missing; the number is drawn here, once, and kept from then on.
 *  Errors: forbidden, above_limit, not_found, changed_meanwhile, not_in_this_state, not_ready with what is missing. */
export async function approveOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<{ number: string }, Failure>> {
  const allowed = may(actor, 'orders.approve');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'approve-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'approve', request.input.version);
    if (!loaded.ok) return loaded;
    const { order, lines, parts } = loaded.value;
    const today = todayOf(deps, await readCompany(tx));
    const missing = findingsOf(order, lines, parts, today).filter((f) => f.blocks);
    if (missing.length > 0) return err({ kind: 'not_ready', findings: missing });
    const amount = orderTotals(lines.map(totalLineOf), order.currency).net;
    const within = may(actor, 'orders.approve', { amount });
    if (!within.ok) return within;
    await markDirty(tx, pairsOf(lines, parts));
    const period = today.slice(2, 4) + today.slice(5, 7);
    const number = order.number ?? numberText('', period, await drawNumber(tx, 'PO', period));
    await approveOrderRow(tx, { id: order.id, number, userId: actor.userId, at: now, orderDate: today });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: order.id, action: 'approved', after: { number, net: amount } },
    ]);
    return ok({ number });
  });
}
