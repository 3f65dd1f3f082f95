import type { Asking } from '../asking';
import type { Pair } from './levels';
import { THESE, theseOf } from './levels';
import { micro } from './needInputs/ground';
import type { StateRow } from './planning';

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
