import { err, ok, type Result } from '@/core/result';

export const transferStates = ['requested', 'approved', 'shipped', 'received', 'refused', 'cancelled'] as const;
export type TransferState = (typeof transferStates)[number];
export type TransferAction = 'approve' | 'refuse' | 'cancel' | 'ship' | 'receive' | 'take_off';

/** What each state allows; the interface offers only that. A shipped transfer is received in parts until nothing of it is on
 *  the way. */
const table: Readonly<Record<TransferState, readonly TransferAction[]>> = {
  requested: ['approve', 'refuse', 'cancel'],
  approved: ['ship', 'cancel', 'take_off'],
  shipped: ['receive'],
  received: [],
  refused: [],
  cancelled: [],
};

export type TransferStateFault = {
  readonly kind: 'transfer_not_in_this_state';
  readonly state: TransferState;
  readonly action: TransferAction;
};

export const transferAllows = (state: TransferState, action: TransferAction): boolean => table[state].includes(action);

/** Errors: transfer_not_in_this_state. */
export const checkTransfer = (state: TransferState, action: TransferAction): Result<void, TransferStateFault> =>
  transferAllows(state, action) ? ok(undefined) : err({ kind: 'transfer_not_in_this_state', state, action });
