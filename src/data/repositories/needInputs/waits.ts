import { daysBetween } from '@/core/calendar';
import type { Asking } from '../../asking';
import { HELD } from '../allocations';
import { among, type Ground, micro } from './ground';
import type { Context, Horizons } from './horizons';

type WaitCells = [itemId: number, locationId: number, shipBy: string, waits: number];

/** What of a customer's line is still to be handed over, with the line joined as `l` and its demand as `d`, and what of it
 *  nothing lies ready for. */
export const OPEN_DEMAND = 'CAST((l.base_quantity - l.handed_over - l.cancelled) * d.per_set AS DECIMAL(18,6))';
export const BACKORDERED = `GREATEST(0, ${OPEN_DEMAND} - ${HELD})`;

/** What customers wait for and nothing lies ready for: owed as far as it is to go out by the cover horizon, dated where a slot
 *  is looked at day by day. Without a policy it raises a need by
 *  itself. To be counted once plans are there. */
export function askWaits(
  ask: Asking,
  only: readonly number[] | null,
): (g: Ground, context: Context, horizons: Horizons) => Promise<void> {
  const rows = ask.arrays<WaitCells>(
    `SELECT d.item_id, l.location_id, l.ship_by, ${micro(BACKORDERED)} AS waits
       FROM customer_order o JOIN customer_line l ON l.order_id = o.id
       JOIN customer_demand d ON d.line_id = l.id LEFT JOIN allocation a ON a.id = d.allocation_id
      WHERE o.state = 'open' AND l.base_quantity > l.handed_over + l.cancelled ${among(only)('d.item_id', 'AND')}
     HAVING waits > 0`,
  );
  return async (g, { plans }, horizons) => {
    const { arrays, today } = g;
    for (const [item, location, shipBy, waits] of await rows()) {
      const at = g.slot(item, location);
      const dated = arrays.dated.get(at);
      if (dated) {
        dated.orders.push({ day: Math.max(0, daysBetween(today, shipBy)), quantity: waits });
        continue;
      }
      if (!horizons.counts(at, shipBy)) continue;
      arrays.backordered[at] = (arrays.backordered[at] as number) + waits;
      arrays.owed[at] = (arrays.owed[at] as number) + waits;
      if (arrays.rule[at] === 0 && plans.buysForThoseWhoWait(at)) arrays.rule[at] = 3;
    }
  };
}
