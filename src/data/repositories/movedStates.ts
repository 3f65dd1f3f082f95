import type { Asking } from '../asking';
import type { Pair } from './levels';
import { THESE, theseOf } from './levels';
import { micro } from './needInputs/ground';
import { STATE_COLUMNS, type StateRow } from './planning';

/** A state of which only the stock has moved since: with the plan it was computed by, and the stock as it is now (millionths). */
export type MovedState = Pick<
  StateRow,
  'itemId' | 'locationId' | 'suggested' | 'sourceId' | 'supplyLocationId' | 'needState' | 'nextDueAt' | 'fingerprint'
> & {
  readonly plan: string;
  readonly onHand: number;
  readonly blocked: number;
  readonly allocated: number;
};

/** Those of these pairs that are marked for nothing but moved stock, can be run by themselves, and are not changed by time
 *  alone by now. To be asked behind the locks on their marks. */
export const askMovedStates = (ask: Asking, pairs: readonly Pair[], now: string): (() => Promise<MovedState[]>) =>
  ask.rows<MovedState>(
    `SELECT s.item_id AS itemId, s.location_id AS locationId, s.plan, s.suggested, s.source_id AS sourceId,
            s.supply_location_id AS supplyLocationId, s.need_state AS needState, s.next_due_at AS nextDueAt, s.fingerprint,
            ${micro('v.on_hand')} AS onHand, ${micro('v.blocked')} AS blocked, ${micro('v.allocated')} AS allocated
       FROM ${THESE} STRAIGHT_JOIN dirty_pair d FORCE INDEX (PRIMARY) ON d.item_id = x.i AND d.location_id = x.l
       STRAIGHT_JOIN item_location_state s ON s.item_id = d.item_id AND s.location_id = d.location_id
       STRAIGHT_JOIN level v ON v.item_id = d.item_id AND v.location_id = d.location_id
      WHERE d.what = 'stock' AND s.plan IS NOT NULL AND (s.next_due_at IS NULL OR s.next_due_at > ?)`,
    [theseOf(pairs), now],
  );

/** A state that is as a run would find it, with the plan it was computed by and the stock it stands on. */
export type KeptState = StateRow & { readonly plan: string } & {
  readonly stock: { readonly onHand: number; readonly blocked: number; readonly promised: number };
};

/** Those of these pairs that nobody has marked, can be run by themselves, and are not changed by time alone by now. */
export function askKeptStates(ask: Asking, pairs: readonly Pair[], now: string): () => Promise<KeptState[]> {
  if (pairs.length === 0) return async () => [];
  const rows = ask.rows<Omit<KeptState, 'stock'> & { lies: number; barred: number; promised: number }>(
    `SELECT ${STATE_COLUMNS}, s.plan, ${micro('COALESCE(v.on_hand, 0)')} AS lies, ${micro('COALESCE(v.blocked, 0)')} AS barred,
            ${micro('COALESCE(v.allocated, 0)')} AS promised
       FROM ${THESE} STRAIGHT_JOIN item_location_state s ON s.item_id = x.i AND s.location_id = x.l
       LEFT JOIN level v ON v.item_id = s.item_id AND v.location_id = s.location_id
       LEFT JOIN dirty_pair d ON d.item_id = s.item_id AND d.location_id = s.location_id
      WHERE s.plan IS NOT NULL AND d.item_id IS NULL AND (s.next_due_at IS NULL OR s.next_due_at > ?)`,
    [theseOf(pairs), now],
  );
  return async () =>
    (await rows()).map(({ lies, barred, promised, ...state }) => ({
      ...state,
      stock: { onHand: lies, blocked: barred, promised },
    }));
}
