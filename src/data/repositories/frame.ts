import { atLocations, type Tx } from '../sql';
import { DRAFTED, ORDERED } from './orderStates';

export type FrameCounts = {
  needs: number;
  trays: number;
  orders: number;
  arrivals: number;
  alerts: number;
  promises: number;
};

/** Customers' orders that are open at the person's places, open needs, suppliers with something in their tray, orders not yet all in, orders expected at the person's places, alerts
 *  of the person that were not seen. */
export async function readFrameCounts(
  tx: Tx,
  userId: number,
  locations: readonly number[] | null,
): Promise<FrameCounts> {
  const needs = atLocations('location_id', locations);
  const arrivals = atLocations('d.location_id', locations);
  const promises = atLocations('l.location_id', locations);
  const row = await tx.row<FrameCounts>(
    `SELECT (SELECT COUNT(*) FROM need WHERE state = 'open' ${needs.sql}) AS needs,
            (SELECT COUNT(DISTINCT supplier_id) FROM tray_line WHERE state = 'in_tray') AS trays,
            (SELECT COUNT(*) FROM purchase_order o WHERE o.state IN ${DRAFTED} OR (o.state IN ${ORDERED} AND EXISTS (
               SELECT 1 FROM order_line l JOIN delivery_part d ON d.order_line_id = l.id
                WHERE l.order_id = o.id AND d.location_id IS NOT NULL AND d.base_quantity > d.received_quantity + d.cancelled_quantity))) AS orders,
            (SELECT COUNT(DISTINCT o.id, d.location_id) FROM purchase_order o JOIN order_line l ON l.order_id = o.id
               JOIN delivery_part d ON d.order_line_id = l.id
              WHERE o.state IN ${ORDERED} AND d.location_id IS NOT NULL AND d.customer_line_id IS NULL
                AND d.base_quantity > d.received_quantity + d.cancelled_quantity
                ${arrivals.sql}) AS arrivals,
            (SELECT COUNT(DISTINCT o.id) FROM customer_order o JOIN customer_line l ON l.order_id = o.id
              WHERE o.state = 'open' AND l.base_quantity > l.handed_over + l.cancelled ${promises.sql}) AS promises,
            (SELECT COUNT(*) FROM alert WHERE user_id = :userId AND live = 1 AND seen_at IS NULL) AS alerts`,
    { ...needs.values, ...promises.values, userId },
  );
  return row ?? { needs: 0, trays: 0, orders: 0, arrivals: 0, alerts: 0, promises: 0 };
}
