import { openQuantity } from '@/core/netting';
import { err, ok, type Result } from '@/core/result';

/** Stored states. How far goods have come is derived from the delivery parts, never stored. */
export type OrderState = 'draft' | 'approved' | 'sent' | 'put_back' | 'cancelled';
export type OrderAction = 'edit' | 'approve' | 'reopen' | 'send' | 'put_back' | 'receive' | 'restore';

/** The lifecycle of a purchase order: state × action → next state. What is not listed is refused.
 *  A draft that never had a number is put back; one that has a number is cancelled and keeps it. */
const transitions: Readonly<Record<OrderState, Partial<Record<OrderAction, OrderState>>>> = {
  draft: { edit: 'draft', approve: 'approved', put_back: 'put_back' },
  approved: { reopen: 'draft', send: 'sent', receive: 'approved', put_back: 'cancelled' },
  sent: { receive: 'sent' },
  // Undoing a put back gives the order the state it had; which one that was, the undo step knows.
  put_back: { restore: 'draft' },
  cancelled: { restore: 'approved' },
};

export type OrderStateFault = {
  readonly kind: 'not_in_this_state';
  readonly state: OrderState;
  readonly action: OrderAction;
  readonly because?: 'goods_received';
};

/** The state after an action.
 *  Errors: not_in_this_state; with goods_received once something was booked in and the order can't be taken back. */
export function nextState(
  order: { readonly state: OrderState; readonly number: string | null; readonly anyReceived: boolean },
  action: OrderAction,
): Result<OrderState, OrderStateFault> {
  const { state } = order;
  const next = transitions[state][action];
  if (!next) return err({ kind: 'not_in_this_state', state, action });
  if (order.anyReceived && (action === 'reopen' || action === 'put_back')) {
    return err({ kind: 'not_in_this_state', state, action, because: 'goods_received' });
  }
  return ok(next === 'put_back' && order.number !== null ? 'cancelled' : next);
}

export type Progress = 'nothing' | 'part' | 'all';

/** How much of an order has come in. */
export function progress(parts: readonly { ordered: number; received: number; cancelled: number }[]): Progress {
  const any = parts.some((p) => p.received > 0);
  const open = parts.some((p) => openQuantity(p) > 0);
  if (!any) return 'nothing';
  return open ? 'part' : 'all';
}
