import type { FreightPayer, OrderState } from '@/core/purchase';
import type { Tx } from '../sql';
import { EXPECTED, LIVE } from './orderStates';

export type SupplierLine = {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly currency: string;
  readonly status: 'active' | 'blocked';
  readonly leadTimeDays: number;
  readonly leadTimeKind: 'working' | 'calendar';
  readonly orderMinimum: number;
  readonly items: number;
  readonly openOrders: number;
};

/** All suppliers with how many items they sell us and how many of their orders are open. */
export const readSupplierLines = (tx: Tx) =>
  tx.rows<SupplierLine>(
    `SELECT s.id, s.code, s.name, s.currency, s.status, s.lead_time_days AS leadTimeDays, s.lead_time_kind AS leadTimeKind,
            s.order_minimum_minor AS orderMinimum,
            (SELECT COUNT(*) FROM source x WHERE x.supplier_id = s.id) AS items,
            (SELECT COUNT(*) FROM purchase_order o WHERE o.supplier_id = s.id AND o.state IN ${LIVE}
               AND EXISTS (SELECT 1 FROM order_line l JOIN delivery_part d ON d.order_line_id = l.id
                            WHERE l.order_id = o.id AND d.received_quantity + d.cancelled_quantity < d.base_quantity)) AS openOrders
       FROM supplier s ORDER BY s.name, s.id`,
  );

export type SupplierTerms = {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly status: 'active' | 'blocked';
  readonly address: string;
  readonly contact: string;
  readonly email: string;
  readonly phone: string;
  readonly language: string;
  readonly currency: string;
  readonly paymentTerms: string;
  readonly paymentDays: number | null;
  readonly discountPercent: string | null;
  readonly discountDays: number | null;
  readonly deliveryTerms: string;
  readonly incoterm: string;
  readonly incotermPlace: string;
  readonly freightPayer: FreightPayer | null;
  readonly orderMinimum: number;
  readonly minimumWeightKg: string | null;
  readonly minimumQuantity: string | null;
  readonly freightFixed: string | null;
  readonly freightPerKg: string | null;
  readonly freightFreeFrom: string | null;
  readonly orderDays: number;
  readonly cutOff: string | null;
  readonly leadTimeDays: number;
  readonly leadTimeKind: 'working' | 'calendar';
  readonly orderText: string;
  readonly shippingWay: string;
  readonly overPercent: string | null;
  readonly underPercent: string | null;
  readonly dateToleranceDays: number | null;
  readonly taxRegime: 'domestic' | 'within_union' | 'import' | 'exempt';
};

export const readSupplierTerms = (tx: Tx, id: number) =>
  tx.row<SupplierTerms>(
    `SELECT s.id, s.code, s.name, s.status, s.address, s.contact, s.email, s.phone, s.language, s.currency,
            s.payment_terms AS paymentTerms, payment_days AS paymentDays, discount_percent AS discountPercent, discount_days AS discountDays,
            delivery_terms AS deliveryTerms, incoterm, incoterm_place AS incotermPlace, freight_payer AS freightPayer,
            order_minimum_minor AS orderMinimum, minimum_weight_kg AS minimumWeightKg, minimum_quantity AS minimumQuantity,
            freight_fixed AS freightFixed, freight_per_kg AS freightPerKg, freight_free_from AS freightFreeFrom,
            order_days AS orderDays, TIME_FORMAT(cut_off, '%H:%i') AS cutOff, lead_time_days AS leadTimeDays,
            lead_time_kind AS leadTimeKind, order_text AS orderText, COALESCE(w.name, '') AS shippingWay,
            over_percent AS overPercent, under_percent AS underPercent, date_tolerance_days AS dateToleranceDays,
            tax_regime AS taxRegime
       FROM supplier s LEFT JOIN shipping_way w ON w.id = s.shipping_way_id WHERE s.id = :id`,
    { id },
  );

/** Items that a supplier sells us, by name, at most so many. */
export const readSoldBy = (tx: Tx, supplierId: number, limit: number) =>
  tx.rows<{ itemId: number; number: string; name: string; unitName: string }>(
    `SELECT i.id AS itemId, i.number, i.name, i.unit_name AS unitName FROM source x JOIN item i ON i.id = x.item_id
      WHERE x.supplier_id = :supplierId ORDER BY i.name, i.number LIMIT ${Math.trunc(limit)}`,
    { supplierId },
  );

/** Orders of a supplier that are not over, newest first. */
export const readOpenOrdersOf = (tx: Tx, supplierId: number) =>
  tx.rows<{
    id: number;
    number: string | null;
    state: OrderState;
    orderDate: string;
    wanted: string | null;
    open: number;
  }>(
    `SELECT o.id, o.number, o.state, o.order_date AS orderDate, MIN(${EXPECTED}) AS wanted, COUNT(*) AS open
       FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
      WHERE o.supplier_id = :supplierId AND o.state IN ${LIVE}
        AND d.received_quantity + d.cancelled_quantity < d.base_quantity
      GROUP BY o.id, o.number, o.state, o.order_date ORDER BY o.id DESC`,
    { supplierId },
  );

/** Lines that came from a supplier: those booked in here and those from before. Reversed receipts never came. */
export const readDeliveriesOf = (tx: Tx, supplierId: number) =>
  tx.rows<{ ordered: string; promised: string | null; received: string }>(
    `SELECT o.order_date AS ordered, d.promised_date AS promised, r.business_date AS received
       FROM goods_receipt_line x JOIN goods_receipt r ON r.id = x.receipt_id JOIN delivery_part d ON d.id = x.delivery_part_id
       JOIN order_line l ON l.id = d.order_line_id AND l.unordered = 0 JOIN purchase_order o ON o.id = r.order_id
      WHERE o.supplier_id = :supplierId AND NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = r.id)
     UNION ALL
     SELECT p.ordered_on, p.promised_on, p.received_on FROM past_delivery p
      WHERE p.supplier_id = :supplierId AND p.received_quantity > 0`,
    { supplierId },
  );

export const findSupplierByCode = (tx: Tx, code: string) =>
  tx.row<{ id: number; name: string }>('SELECT id, name FROM supplier WHERE code = :code', { code });

/** When a supplier is closed, from a day on. */
export const readClosures = (tx: Tx, supplierId: number, from: string) =>
  tx.rows<{ from: string; to: string; name: string }>(
    `SELECT from_day AS \`from\`, to_day AS \`to\`, name FROM closed_days WHERE supplier_id = :supplierId AND to_day >= :from
      ORDER BY from_day LIMIT 20`,
    { supplierId, from },
  );

/** Order addresses and contacts of all suppliers. */
export const readSupplierContacts = (tx: Tx) =>
  tx.rows<{
    id: number;
    supplierId: number;
    name: string;
    kind: 'order_address' | 'contact';
    address: string;
    phone: string;
  }>('SELECT id, supplier_id AS supplierId, name, kind, address, phone FROM supplier_contact ORDER BY name, id');
