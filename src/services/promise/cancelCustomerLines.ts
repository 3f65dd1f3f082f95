import { type Actor, may } from '@/core/people';
import { openOf } from '@/core/promise';
import { checked, fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { setLineFigures, touchCustomerOrder } from '@/data/repositories/customerOrders';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { figuresOf, holdSets, shareOut } from './shareOut';

/** Cancels what is open of these lines, or of the whole order; what lay ready for them goes to others who wait. It can be
 *  undone. Errors: forbidden, not_found, changed_meanwhile, customer_order_not_in_this_state, nothing_counted. */
export async function cancelCustomerLines(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion & { readonly lines: readonly number[] | 'all' }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'cancel-customer-lines', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'cancel');
    if (!opened.ok) return opened;
    const { order, lines, demandsOf } = opened.value;
    const which = request.input.lines;
    const left = (l: (typeof lines)[number]): Quantity => openOf(figuresOf(l));
    const chosen = lines.filter((l) => (which === 'all' || which.includes(l.lineNo)) && left(l) > 0);
    if (chosen.length === 0) return err({ kind: 'nothing_counted' });
    const at = { userId: actor.userId, now, today: todayOf(deps, await readCompany(tx)) };
    const pairs = chosen.flatMap((l) => demandsOf(l.id).map((d) => ({ itemId: d.itemId, locationId: l.locationId })));
    await lockLevels(tx, pairs);
    for (const l of chosen) {
      await holdSets(tx, at, order, l, demandsOf(l.id), 0);
      const cancelled = toDecimal(checked(fromDecimal(l.cancelled) + left(l)));
      await setLineFigures(tx, { id: l.id, handedOver: l.handedOver, cancelled });
    }
    const done = lines.every((l) => chosen.includes(l) || left(l) === 0);
    const gone = done && lines.every((l) => fromDecimal(l.handedOver) === 0);
    await touchCustomerOrder(tx, { ...order, state: gone ? 'cancelled' : done ? 'done' : 'open' });
    const cancelled = chosen.map((l) => ({ lineId: l.id, quantity: left(l) }));
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: order.id, action: 'cancelled' },
        before: { lines: chosen.map((l) => ({ line: l.lineNo, quantity: toDecimal(left(l)) })) },
      },
    ]);
    markDirty(tx, pairs);
    await shareOut(tx, at, pairs);
    await recordUndo(tx, actor, request.key, 'cancel-customer-lines', now, {
      ...{ kind: 'customer_cancelled', orderId: order.id, lines: cancelled },
    });
    return ok(null);
  });
}
