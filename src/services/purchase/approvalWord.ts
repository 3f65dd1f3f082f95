import { isEditable, type OrderState } from '@/core/purchase';
import type { ChangeRow } from '@/data/repositories/bookkeeping';

/** The last word about the approval of an order, with who said it. */
export type ApprovalWord = { readonly kind: 'asks' | 'refused'; readonly who: string; readonly text: string };

/** Steps after which what was said before counts no more: of the order itself, and of each change of it. */
const isStep = (action: string): boolean =>
  /^(approval (asked for|refused)|no longer asked for approval|(change \d+ )?approved|change dropped)$/.test(action);

/** What was said with the question while an order waits for its approval, and why it was refused until it is asked for again.
 *  Null where nobody said anything. */
export function approvalWord(state: OrderState, history: readonly ChangeRow[]): ApprovalWord | null {
  const last = history.findLast((h) => isStep(h.action));
  if (!last?.after) return null;
  const said = JSON.parse(last.after) as string | { readonly note?: string };
  if (typeof said === 'string')
    return isEditable(state) && last.action === 'approval refused'
      ? { kind: 'refused', who: last.who, text: said }
      : null;
  const waits = state === 'awaiting' || state === 'amendment_awaiting';
  return waits && last.action === 'approval asked for' && said.note
    ? { kind: 'asks', who: last.who, text: said.note }
    : null;
}
