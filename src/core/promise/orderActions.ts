import { err, ok, type Result } from '@/core/result';

export const customerOrderStates = ['open', 'done', 'cancelled'] as const;
export type CustomerOrderState = (typeof customerOrderStates)[number];
export type CustomerOrderAction = 'change' | 'allocate' | 'hand_over' | 'cancel' | 'tell';

/** What each state of a customer's order allows; the interface offers only that. */
const table: Readonly<Record<CustomerOrderState, readonly CustomerOrderAction[]>> = {
  open: ['change', 'allocate', 'hand_over', 'cancel', 'tell'],
  done: ['tell'],
  cancelled: ['tell'],
};

export type CustomerOrderFault = {
  readonly kind: 'customer_order_not_in_this_state';
  readonly state: CustomerOrderState;
  readonly action: CustomerOrderAction;
};

export const customerOrderAllows = (state: CustomerOrderState, action: CustomerOrderAction): boolean =>
  table[state].includes(action);

/** Errors: customer_order_not_in_this_state. */
export const checkCustomerOrder = (
  state: CustomerOrderState,
  action: CustomerOrderAction,
): Result<void, CustomerOrderFault> =>
  customerOrderAllows(state, action) ? ok(undefined) : err({ kind: 'customer_order_not_in_this_state', state, action });
