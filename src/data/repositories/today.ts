import type { OrderState } from '@/core/purchase';
import { atLocations, type Tx } from '../sql';
import { EXPECTED, LIVE } from './orderStates';

/** An open part of an approved or sent order, or one of a draft, with what it costs. */
export type OpenPartRow = {
  readonly orderId: number;
  readonly state: OrderState;
  readonly currency: string;
  /** Days until it is paid once it is here; null where nothing is agreed. */
  readonly paymentDays: number | null;
  /** Confirmed, else promised, else wanted. */
  readonly date: string | null;
  readonly base: string;
  readonly priceAmount: string | null;
  readonly pricePer: string;
  readonly priceContentNum: number;
  readonly priceContentDen: number;
  readonly freeOfCharge: number;
  readonly discountPercent: string;
};

const price = `l.price_amount AS priceAmount, l.price_per AS pricePer, l.price_content_num AS priceContentNum,
  l.price_content_den AS priceContentDen, l.free_of_charge AS freeOfCharge, l.discount_percent AS discountPercent`;

/** What is still to come on orders and drafts for these places. */
export function readOpenParts(tx: Tx, locationIds: readonly number[] | null): Promise<OpenPartRow[]> {
  const at = atLocations('d.location_id', locationIds);
  return tx.rows<OpenPartRow>(
    `SELECT o.id AS orderId, o.state, o.currency, s.payment_days AS paymentDays,
            ${EXPECTED} AS date,
            d.base_quantity - d.received_quantity - d.cancelled_quantity AS base, ${price}
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
       JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
      WHERE o.state IN ${LIVE} AND d.base_quantity > d.received_quantity + d.cancelled_quantity ${at.sql}`,
    at.values,
  );
}

/** What came since a day and may still have to be paid; `date`: when it came. */
export function readReceivedSince(
  tx: Tx,
  since: string,
  locationIds: readonly number[] | null,
): Promise<(OpenPartRow & { readonly date: string })[]> {
  const at = atLocations('r.location_id', locationIds);
  return tx.rows<OpenPartRow & { date: string }>(
    `SELECT o.id AS orderId, o.state, o.currency, s.payment_days AS paymentDays, r.business_date AS date,
            x.base_quantity AS base, ${price}
       FROM goods_receipt r JOIN goods_receipt_line x ON x.receipt_id = r.id
       JOIN delivery_part d ON d.id = x.delivery_part_id JOIN order_line l ON l.id = d.order_line_id
       JOIN purchase_order o ON o.id = r.order_id JOIN supplier s ON s.id = o.supplier_id
      WHERE r.business_date >= :since ${at.sql}
        AND NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = r.id)`,
    { ...at.values, since },
  );
}

/** How many pairs run short in which week from now, by what lies there: with something coming, and with nothing. */
export function readRunningShort(
  tx: Tx,
  weeks: number,
  locationIds: readonly number[] | null,
): Promise<{ readonly week: number; readonly coming: number; readonly nothing: number }[]> {
  const at = atLocations('location_id', locationIds);
  return tx.rows(
    `SELECT CAST(FLOOR(cover_days / 7) AS SIGNED) AS week, CAST(SUM(on_the_way + in_trays > 0) AS SIGNED) AS coming,
            CAST(SUM(on_the_way + in_trays = 0) AS SIGNED) AS nothing
       FROM item_location_state WHERE cover_days < :days ${at.sql} GROUP BY week ORDER BY week`,
    { ...at.values, days: weeks * 7 },
  );
}

/** What lies beyond its maximum, with what stock of the pair is worth. */
export function readBeyondMax(
  tx: Tx,
  locationIds: readonly number[] | null,
): Promise<{ readonly excess: string; readonly onHand: string; readonly value: number }[]> {
  const at = atLocations('s.location_id', locationIds);
  return tx.rows(
    `SELECT s.excess, v.on_hand AS onHand, v.value_minor AS value
       FROM item_location_state s JOIN level v ON v.item_id = s.item_id AND v.location_id = s.location_id
      WHERE s.excess > 0 ${at.sql}`,
    at.values,
  );
}

export const countToComplete = async (tx: Tx): Promise<number> =>
  Number(
    (await tx.row<{ n: number }>("SELECT COUNT(*) AS n FROM item WHERE to_complete = 1 AND status <> 'stopped'"))?.n ??
      0,
  );

/** The first day on which something that was put off comes back. */
export async function readNextBack(tx: Tx, locationIds: readonly number[] | null): Promise<string | null> {
  const at = atLocations('n.location_id', locationIds);
  const row = await tx.row<{ next: string | null }>(
    `SELECT MIN(d.until) AS next FROM need n JOIN decision d ON d.id = n.last_decision_id WHERE n.state = 'aside' ${at.sql}`,
    at.values,
  );
  return row?.next ?? null;
}

export const countUnseenAlerts = async (tx: Tx, userId: number): Promise<number> =>
  Number(
    (
      await tx.row<{ n: number }>(
        'SELECT COUNT(*) AS n FROM alert WHERE user_id = :userId AND live = 1 AND seen_at IS NULL',
        {
          userId,
        },
      )
    )?.n ?? 0,
  );

export const readHidden = async (tx: Tx, userId: number): Promise<string[]> =>
  (await tx.rows<{ matter: string }>('SELECT matter FROM today_hidden WHERE user_id = :userId', { userId })).map(
    (r) => r.matter,
  );

export async function putHidden(tx: Tx, userId: number, matters: readonly string[]): Promise<void> {
  await tx.run('DELETE FROM today_hidden WHERE user_id = :userId', { userId });
  await tx.insertMany(
    'INSERT INTO today_hidden (user_id, matter)',
    matters.map((m) => [userId, m]),
  );
}
