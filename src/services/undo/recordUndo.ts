import type { OrderCharge } from '@/core/landed';
import type { Actor } from '@/core/people';
import type { OrderState } from '@/core/purchase';
import type { Values } from '@/core/sheets';
import { insertUndoStep } from '@/data/repositories/undo';
import type { Tx } from '@/data/sql';
import type { SettingCells } from '../planning/policyEdits';
import type { OrderEdit } from '../purchase/orderCell';
import type { Renamed } from '../sheets/renameSaid';

/** One part of a need that was accepted: into a tray, or onto a transfer. */
export type Decided =
  | { readonly kind: 'accepted'; readonly needId: number; readonly trayLineId: number }
  | { readonly kind: 'to_be_sent'; readonly needId: number; readonly transferId: number; readonly decisionId: number };

/** What a command did, as far as undoing it needs. */
export type Effect =
  | Decided
  /** Several at once, in the order in which they were decided. */
  | { readonly kind: 'decided_many'; readonly decided: readonly Decided[] }
  /** Put off, left out or brought back; `before`: the decision that was the need's last. */
  | {
      readonly kind: 'set_aside';
      readonly needs: readonly {
        readonly needId: number;
        readonly decisionId: number;
        readonly before: number | null;
        readonly state: 'open' | 'aside';
      }[];
    }
  /** Asked for by hand; quantities as decimal text. */
  | {
      readonly kind: 'by_hand';
      readonly itemId: number;
      readonly locationId: number;
      readonly before: { readonly quantity: string; readonly note: string };
      readonly after: string;
    }
  | {
      readonly kind: 'taken_back';
      readonly needId: number | null;
      readonly trayLineId: number;
      readonly decisionId: number | null;
    }
  | {
      readonly kind: 'orders_made';
      readonly orderIds: readonly number[];
      /** Tray lines that were put onto drafts that were there. */
      readonly joined?: readonly {
        readonly orderId: number;
        readonly trayLineIds: readonly number[];
        /** Its supplier knew it already, and it was opened for changing by this. */
        readonly opened?: boolean;
      }[];
      /** What was decided for it in the same step. */
      readonly decided?: readonly Decided[];
    }
  | {
      readonly kind: 'put_back';
      readonly orderId: number;
      readonly before: OrderState;
      readonly trayLineIds: readonly number[];
    }
  | { readonly kind: 'approved'; readonly orderId: number }
  /** Cancelled, closed, or the rest cut off; quantities of its parts as decimal text. */
  | {
      readonly kind: 'ended';
      readonly orderId: number;
      readonly state: OrderState;
      readonly before: OrderState | null;
      readonly parts: readonly { readonly id: number; readonly cancelled: string; readonly to: string }[];
    }
  | { readonly kind: 'cell'; readonly back: OrderEdit }
  /** What was said for a charge of an order before; null = nothing. */
  | { readonly kind: 'charge'; readonly orderId: number; readonly name: string; readonly before: OrderCharge | null }
  | {
      readonly kind: 'policies';
      readonly rows: readonly {
        readonly itemId: number;
        readonly locationId: number | null;
        readonly before: SettingCells;
        readonly after: SettingCells;
      }[];
    }
  | { readonly kind: 'booked_in'; readonly receiptId: number }
  | {
      readonly kind: 'customer_cancelled';
      readonly orderId: number;
      readonly lines: readonly { readonly lineId: number; readonly quantity: number }[];
    }
  | {
      readonly kind: 'records';
      readonly sheet: string;
      /** What the records were and became, in the same order; null where there was or is none. */
      readonly before: readonly (Values | null)[];
      readonly after: readonly (Values | null)[];
      /** Those that got another number or code on the way. */
      readonly renamed?: readonly Renamed[];
    };

/** Notes, in the transaction of a command and after its change records, how it can be undone. */
export const recordUndo = (tx: Tx, actor: Actor, key: string, command: string, now: string, effect: Effect) =>
  insertUndoStep(tx, { userId: actor.userId, key, command, effect: JSON.stringify(effect), at: now });
