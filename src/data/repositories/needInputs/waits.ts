import type { Asking } from '../../asking';
import { HELD } from '../allocations';
import { among, micro } from './ground';

/** What of a customer's line is still to be handed over, with the line joined as `l` and its demand as `d`, and what of it
 *  nothing lies ready for. */
export const OPEN_DEMAND = 'CAST((l.base_quantity - l.handed_over - l.cancelled) * d.per_set AS DECIMAL(18,6))';
export const BACKORDERED = `GREATEST(0, ${OPEN_DEMAND} - ${HELD})`;

/** A customer's line, by what it takes of one item. */
export type WaitCells = [
  itemId: number,
  locationId: number,
  shipBy: string,
  asked: number,
  held: number,
  demandId: number,
  /** It goes from the supplier straight to the customer. */
  straight: number,
  /** A whole item that nobody put by by hand: it can be bought for one to one. */
  plain: number,
];

/** What customers have ordered and is not handed over. */
export const askWaits = (ask: Asking, only: readonly number[] | null): (() => Promise<WaitCells[]>) =>
  ask.arrays<WaitCells>(
    `SELECT d.item_id, l.location_id, l.ship_by, ${micro(OPEN_DEMAND)}, ${micro(HELD)}, d.id, l.way = 'straight',
            l.whole_sets = 0 AND l.by_hand = 0
       FROM customer_order o JOIN customer_line l ON l.order_id = o.id
       JOIN customer_demand d ON d.line_id = l.id LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE o.state = 'open' AND l.base_quantity > l.handed_over + l.cancelled ${among(only)('d.item_id', 'AND')}`,
  );
