import type { OrderState, SentHow } from '@/core/purchase';
import type { SqlValue, Tx } from '../sql';

/** Steps in the life of an order beside its approval; each bumps its version. */

export const askForApproval = (
  tx: Tx,
  o: { id: number; state: OrderState; userId: number; at: string; askedUserId: SqlValue },
) =>
  tx.run(
    `UPDATE purchase_order SET state = :state, asked_by = :userId, asked_at = :at, asked_user_id = :askedUserId,
            version = version + 1 WHERE id = :id`,
    o,
  );

/** Back from asking, or refused. */
export const stopAsking = (tx: Tx, id: number, state: OrderState) =>
  tx.run(
    `UPDATE purchase_order SET state = :state, asked_by = NULL, asked_at = NULL, asked_user_id = NULL,
            version = version + 1 WHERE id = :id`,
    { id, state },
  );

/** The order has gone to its supplier, who knows from now on what `said` says. */
export const markSent = (
  tx: Tx,
  o: { id: number; userId: SqlValue; at: string; how: SentHow; to: string; said: string },
) =>
  tx.run(
    `UPDATE purchase_order SET state = 'sent', sent_by = :userId, sent_at = :at, sent_how = :how, sent_to = :to, said = :said,
            sending_mail_id = NULL, confirmed_at = NULL, confirmed_by = NULL, version = version + 1 WHERE id = :id`,
    o,
  );

/** The mail that carries an order, while it is not out. */
export const setSendingMail = (tx: Tx, id: number, mailId: number | null) =>
  tx.run('UPDATE purchase_order SET sending_mail_id = :mailId, version = version + 1 WHERE id = :id', { id, mailId });

/** The order that a mail carries; null when it carries none, or no longer does. */
export const findCarried = (tx: Tx, mailId: number) =>
  tx.row<{ id: number; userId: number | null }>(
    `SELECT o.id, m.created_by AS userId FROM purchase_order o JOIN outbox_mail m ON m.id = o.sending_mail_id
      WHERE o.sending_mail_id = :mailId`,
    { mailId },
  );

export const confirmOrderRow = (tx: Tx, o: { id: number; userId: number; at: string; reference: string }) =>
  tx.run(
    `UPDATE purchase_order SET state = 'confirmed', confirmed_by = :userId, confirmed_at = :at, supplier_reference = :reference,
            next_contact = NULL, version = version + 1 WHERE id = :id`,
    o,
  );

/** What its supplier knows of an order, as JSON. */
export const setSaid = (tx: Tx, id: number, said: string) =>
  tx.run('UPDATE purchase_order SET said = :said WHERE id = :id', { id, said });

export const confirmPart = (
  tx: Tx,
  p: { id: number; packQuantity: string; baseQuantity: string; cancelled: string; confirmedDate: SqlValue },
) =>
  tx.run(
    `UPDATE delivery_part SET pack_quantity = :packQuantity, base_quantity = :baseQuantity, cancelled_quantity = :cancelled,
            confirmed_date = :confirmedDate WHERE id = :id`,
    p,
  );

export const setConfirmedPrice = (tx: Tx, lineId: number, amount: string) =>
  tx.run(
    "UPDATE order_line SET price_amount = :amount, price_reason = 'confirmed', price_origin = NULL WHERE id = :lineId",
    {
      lineId,
      amount,
    },
  );

/** How much of a part does not come any more. */
export const setCancelled = (tx: Tx, partId: number, cancelled: string) =>
  tx.run('UPDATE delivery_part SET cancelled_quantity = :cancelled WHERE id = :partId', { partId, cancelled });

/** An order leaves its line, or comes back to it; `before` = what it was. */
export const setEnded = (tx: Tx, o: { id: number; state: OrderState; before: SqlValue }) =>
  tx.run('UPDATE purchase_order SET state = :state, before_state = :before, version = version + 1 WHERE id = :id', o);

/** `lines` = what it was, to go back to; `said` = what its supplier knows, where nothing was said before. */
export const beginChange = (tx: Tx, o: { id: number; before: OrderState; lines: string; said: SqlValue }) =>
  tx.run(
    `UPDATE purchase_order SET state = 'amending', before_state = :before, before_change = :lines, said = COALESCE(said, :said),
            version = version + 1 WHERE id = :id`,
    o,
  );

/** A change is approved under its number, or dropped. */
export const endChange = (tx: Tx, o: { id: number; state: OrderState; no: number }) =>
  tx.run(
    `UPDATE purchase_order SET state = :state, before_state = NULL, before_change = NULL, amendment_no = :no, asked_by = NULL,
            asked_at = NULL, asked_user_id = NULL, version = version + 1 WHERE id = :id`,
    o,
  );

/** What the supplier was last told, and what the order was before its change, both as JSON. */
export const readSaid = (tx: Tx, id: number) =>
  tx.row<{ said: string | null; beforeChange: string | null }>(
    'SELECT said, before_change AS beforeChange FROM purchase_order WHERE id = :id',
    { id },
  );

export type AmendmentRow = {
  readonly no: number;
  readonly differences: string;
  readonly approvedBy: string;
  readonly approvedAt: string;
  readonly sentAt: string | null;
};

export const insertAmendment = (
  tx: Tx,
  a: { orderId: number; no: number; differences: string; userId: number; at: string },
) =>
  tx.run(
    `INSERT INTO order_amendment (order_id, no, differences, approved_by, approved_at)
     VALUES (:orderId, :no, :differences, :userId, :at)`,
    a,
  );

export const markAmendmentsSent = (tx: Tx, orderId: number, at: string) =>
  tx.run('UPDATE order_amendment SET sent_at = :at WHERE order_id = :orderId AND sent_at IS NULL', { orderId, at });

export const readAmendments = (tx: Tx, orderId: number) =>
  tx.rows<AmendmentRow>(
    `SELECT x.no, x.differences, u.name AS approvedBy, x.approved_at AS approvedAt, x.sent_at AS sentAt
       FROM order_amendment x JOIN app_user u ON u.id = x.approved_by WHERE x.order_id = :orderId ORDER BY x.no`,
    { orderId },
  );

export const setFollowUp = (tx: Tx, id: number, nextContact: SqlValue) =>
  tx.run('UPDATE purchase_order SET next_contact = :nextContact, version = version + 1 WHERE id = :id', {
    id,
    nextContact,
  });

/** Rules for orders: from which net on somebody else has to approve (null = never), and after how many days a confirmation is asked
 *  for. */
export type OrderRules = { readonly fourEyes: number | null; readonly confirmDays: number };

export const readOrderRules = async (tx: Tx): Promise<OrderRules> =>
  (await tx.row<OrderRules>(
    'SELECT four_eyes_from_minor AS fourEyes, confirm_days AS confirmDays FROM company WHERE id = 1',
  )) ?? { fourEyes: null, confirmDays: 3 };

export const updateOrderRules = (tx: Tx, rules: OrderRules) =>
  tx.run('UPDATE company SET four_eyes_from_minor = :fourEyes, confirm_days = :confirmDays WHERE id = 1', rules);

const PROMISED = `SELECT DISTINCT p.id AS partId, COALESCE(co.number, tr.number) AS name
       FROM delivery_part p JOIN tray_line y ON y.id = p.tray_line_id JOIN decision k ON k.id = y.decision_id
       JOIN need n ON n.id = k.need_id AND n.peg > 0
       LEFT JOIN customer_demand cd ON n.peg_of = 'customer_demand' AND cd.id = n.peg
       LEFT JOIN customer_line cl ON cl.id = cd.line_id LEFT JOIN customer_order co ON co.id = cl.order_id
       LEFT JOIN transfer_line tl ON n.peg_of = 'transfer_line' AND tl.id = n.peg
       LEFT JOIN transfer tr ON tr.id = tl.transfer_id`;
type Promised = { readonly partId: number; readonly name: string };

/** Customers' orders and places' requests that parts of an order were bought one to one for. */
export const readPromisedOf = (tx: Tx, orderId: number): Promise<Promised[]> =>
  tx.rows<Promised>(
    `${PROMISED} JOIN order_line l ON l.id = p.order_line_id
      WHERE l.order_id = :orderId AND COALESCE(co.number, tr.number) IS NOT NULL ORDER BY name`,
    { orderId },
  );

/** The same of some parts, each name once. */
export const readPromisedTo = async (tx: Tx, partIds: readonly number[]): Promise<string[]> => [
  ...new Set(
    (
      await tx.rowsOf<Promised>(
        `${PROMISED} WHERE p.id IN (?) AND COALESCE(co.number, tr.number) IS NOT NULL ORDER BY name`,
        partIds,
      )
    ).map((r) => r.name),
  ),
];
