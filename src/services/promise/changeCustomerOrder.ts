import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setCustomerOrderTerms, touchCustomerOrder } from '@/data/repositories/customerOrders';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';

export type CustomerOrderTerms = {
  readonly delivers: 'in_part' | 'complete';
  readonly priority: number;
  readonly note: string;
};

/** Changes how an order goes out, in which turn its lines are, and what is noted on it. What is put by already stays.
 *  Errors: forbidden, not_found, changed_meanwhile, customer_order_not_in_this_state. */
export async function changeCustomerOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion & CustomerOrderTerms>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'promises.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'change-customer-order', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'change');
    if (!opened.ok) return opened;
    const { order } = opened.value;
    const { delivers, priority, note } = request.input;
    await setCustomerOrderTerms(tx, { id: order.id, delivers, priority, note });
    await touchCustomerOrder(tx, order);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: order.id, action: 'changed' },
        before: { delivers: order.delivers, priority: order.priority, note: order.note },
        after: { delivers, priority, note },
      },
    ]);
    return ok(null);
  });
}
