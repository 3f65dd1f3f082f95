import type { MeasuredLeadTime } from '@/core/leadtime';
import type { Tx } from '../sql';

/** Everything that came, of all suppliers, the oldest first. Reversed receipts never came; what nobody had ordered says
 *  nothing of how long an order takes. */
export const readAllDeliveries = (tx: Tx) =>
  tx.rows<{ supplierId: number; ordered: string; received: string }>(
    `SELECT x.supplierId, x.ordered, x.received FROM (
       SELECT o.supplier_id AS supplierId, o.order_date AS ordered, r.business_date AS received
         FROM goods_receipt_line y JOIN goods_receipt r ON r.id = y.receipt_id
         JOIN delivery_part d ON d.id = y.delivery_part_id
         JOIN order_line l ON l.id = d.order_line_id AND l.unordered = 0 JOIN purchase_order o ON o.id = r.order_id
        WHERE r.business_date >= o.order_date
          AND NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = r.id)
       UNION ALL
       SELECT p.supplier_id, p.ordered_on, p.received_on FROM past_delivery p WHERE p.received_quantity > 0) x
      ORDER BY x.received, x.ordered`,
  );

export const upsertLeadTimes = (
  tx: Tx,
  rows: readonly (MeasuredLeadTime & { readonly supplierId: number })[],
  measuredOn: string,
) =>
  tx.insertMany(
    'INSERT INTO supplier_lead_time (supplier_id, n, mean_days, sd_days, median_days, p90_days, observed, measured_on)',
    rows.map((r) => [
      ...[r.supplierId, r.n, r.mean.toFixed(4), r.sd === null ? null : r.sd.toFixed(4), r.median.toFixed(4)],
      ...[r.p90.toFixed(4), JSON.stringify(r.observed), measuredOn],
    ]),
    `ON DUPLICATE KEY UPDATE n = VALUES(n), mean_days = VALUES(mean_days), sd_days = VALUES(sd_days),
       median_days = VALUES(median_days), p90_days = VALUES(p90_days), observed = VALUES(observed), measured_on = VALUES(measured_on)`,
  );
