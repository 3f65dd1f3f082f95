import { openQuantity } from '@/core/netting';
import type { Right } from '@/core/people';
import { err, ok, type Result } from '@/core/result';

/** Stored states. How far goods have come is derived from the delivery parts, never stored. While an order that the supplier
 *  knows is being changed it is amending; what it has then counts as ordered, as before. */
export const orderStates = [
  'draft',
  'awaiting',
  'approved',
  'sent',
  'confirmed',
  'amending',
  'amendment_awaiting',
  'closed',
  'put_back',
  'cancelled',
] as const;
export type OrderState = (typeof orderStates)[number];

export const orderActions = [
  'edit',
  'ask',
  'withdraw',
  'refuse',
  'approve',
  'reopen',
  'send',
  'confirm',
  'receive',
  'amend',
  'drop_amendment',
  'cut',
  'cancel',
  'close',
  'open_again',
  'put_back',
  'restore',
] as const;
export type OrderAction = (typeof orderActions)[number];

/** How an order goes to its supplier. */
export const sentHows = ['email', 'printed', 'phone', 'portal', 'in_person'] as const;
export type SentHow = (typeof sentHows)[number];

/** Why a price is another than was expected. */
export type PriceReason = 'offer' | 'mistake' | 'new_list' | 'confirmed';

/** What the next state can be: a state, or the one that the order had before its change was begun or it was closed. */
type Next = OrderState | 'as_before';

/** The life of a purchase order: state × action → next state. What is not listed is refused.
 *  A draft that never had a number is put back; one that has a number is cancelled and keeps it. Source: common practice. */
const transitions: Readonly<Record<OrderState, Partial<Record<OrderAction, Next>>>> = {
  draft: { edit: 'draft', ask: 'awaiting', approve: 'approved', put_back: 'put_back' },
  awaiting: { withdraw: 'draft', refuse: 'draft', approve: 'approved' },
  approved: {
    ...{ reopen: 'draft', send: 'sent', receive: 'approved', put_back: 'cancelled', amend: 'amending' },
    ...{ cut: 'approved', close: 'closed', cancel: 'cancelled' },
  },
  sent: {
    ...{ confirm: 'confirmed', receive: 'sent', amend: 'amending' },
    ...{ cut: 'sent', close: 'closed', cancel: 'cancelled' },
  },
  confirmed: {
    ...{ confirm: 'confirmed', receive: 'confirmed', amend: 'amending' },
    ...{ cut: 'confirmed', close: 'closed', cancel: 'cancelled' },
  },
  amending: {
    ...{ edit: 'amending', ask: 'amendment_awaiting', approve: 'approved' },
    ...{ receive: 'amending', drop_amendment: 'as_before' },
  },
  amendment_awaiting: {
    ...{ withdraw: 'amending', refuse: 'amending', approve: 'approved', receive: 'amendment_awaiting' },
  },
  closed: { open_again: 'as_before' },
  // Undoing a put back or a cancellation gives the order the state it had; which one that was, the undo step knows.
  put_back: { restore: 'draft' },
  cancelled: { restore: 'approved' },
};

/** What each action needs of the person. Asking for approval and taking that back belong to whoever may edit. */
export const actionRights: Readonly<Record<OrderAction, Right>> = {
  edit: 'orders.edit',
  ask: 'orders.edit',
  withdraw: 'orders.edit',
  refuse: 'orders.approve',
  approve: 'orders.approve',
  reopen: 'orders.edit',
  send: 'orders.send',
  confirm: 'orders.edit',
  receive: 'goods.receive',
  amend: 'orders.edit',
  drop_amendment: 'orders.edit',
  cut: 'orders.edit',
  cancel: 'orders.edit',
  close: 'orders.edit',
  open_again: 'orders.edit',
  put_back: 'orders.edit',
  restore: 'orders.edit',
};

/** What an order is, as far as its life goes. */
export type OrderFacts = {
  readonly state: OrderState;
  readonly number: string | null;
  readonly anyReceived: boolean;
  /** The supplier was told of it. */
  readonly everSent?: boolean;
  /** A mail with it waits to go out, or its sending failed and is tried again. */
  readonly mailWaits?: boolean;
  /** Something is still to come. */
  readonly anyOpen?: boolean;
  /** The state that it had before its change was begun or it was closed. */
  readonly before?: OrderState | null;
};

export type OrderStateFault = {
  readonly kind: 'not_in_this_state';
  readonly state: OrderState;
  readonly action: OrderAction;
  readonly because?: Because;
};
type Because = 'goods_received' | 'sent_before' | 'mail_waits' | 'never_sent' | 'nothing_open';

/** Why an action that the table has is refused all the same; undefined when it is not. */
function refusal(o: OrderFacts, action: OrderAction): Because | undefined {
  const changes = ['reopen', 'put_back', 'amend', 'cancel', 'close', 'send', 'cut'] as const;
  if (o.mailWaits === true && (changes as readonly string[]).includes(action)) return 'mail_waits';
  if (o.anyReceived && (action === 'reopen' || action === 'put_back' || action === 'cancel')) return 'goods_received';
  if (o.everSent === true && (action === 'reopen' || action === 'put_back')) return 'sent_before';
  // An order that nobody outside knows is opened for editing or put back instead, unless goods came on it.
  const told = ['amend', 'cancel', 'cut', 'close'];
  if (o.state === 'approved' && o.everSent !== true && !o.anyReceived && told.includes(action)) return 'never_sent';
  if (action === 'cut' && o.anyOpen === false) return 'nothing_open';
  return undefined;
}

/** The state after an action.
 *  Errors: not_in_this_state, with why where the state alone would allow it. */
export function nextState(order: OrderFacts, action: OrderAction): Result<OrderState, OrderStateFault> {
  const { state } = order;
  const next = transitions[state][action];
  if (!next) return err({ kind: 'not_in_this_state', state, action });
  const because = refusal(order, action);
  if (because) return err({ kind: 'not_in_this_state', state, action, because });
  if (next === 'as_before') return ok(order.before ?? 'approved');
  return ok(next === 'put_back' && order.number !== null ? 'cancelled' : next);
}

/** Everything that an order allows, whoever asks. */
export const actionsOf = (order: OrderFacts): OrderAction[] => orderActions.filter((a) => nextState(order, a).ok);

/** Ordered: it has a number and counts as on the way. */
export const isOrdered = (state: OrderState): boolean =>
  ['approved', 'sent', 'confirmed', 'amending', 'amendment_awaiting'].includes(state);

/** Not yet ordered: its lines count as in drafts. */
export const isDrafted = (state: OrderState): boolean => state === 'draft' || state === 'awaiting';

/** Whether its lines may be changed. */
export const isEditable = (state: OrderState): boolean => state === 'draft' || state === 'amending';

/** How far along the five stops (drafted, approved, sent, confirmed, received) an order is; 0 = it has left the line. */
export function stageOf(o: Pick<OrderFacts, 'state' | 'before'>): 0 | 1 | 2 | 3 | 4 {
  const { state } = o;
  if (state === 'put_back' || state === 'cancelled') return 0;
  if (state === 'amending' || state === 'amendment_awaiting' || state === 'closed') {
    return o.before === 'confirmed' ? 4 : o.before === 'sent' ? 3 : 2;
  }
  return { draft: 1, awaiting: 1, approved: 2, sent: 3, confirmed: 4 }[state] as 1 | 2 | 3 | 4;
}

export type Progress = 'nothing' | 'part' | 'all';

/** How much of an order has come in. */
export function progress(parts: readonly { ordered: number; received: number; cancelled: number }[]): Progress {
  const any = parts.some((p) => p.received > 0);
  const open = parts.some((p) => openQuantity(p) > 0);
  if (!any) return 'nothing';
  return open ? 'part' : 'all';
}
