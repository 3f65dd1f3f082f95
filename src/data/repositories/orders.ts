import type { Rate } from '@/core/money';
import type { LineKind, Matching, OrderState, PriceReason, SentHow } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import type { Purpose, TaxRegime } from '@/core/tax';
import { list, type SqlValue, type Tx } from '../sql';
import { LIVE } from './orderStates';

export type OrderRow = {
  id: number;
  number: string | null;
  supplierId: number;
  supplierName: string;
  supplierBlocked: number;
  supplierEmail: string;
  supplierLanguage: string;
  orderMinimum: number;
  state: OrderState;
  orderDate: string;
  currency: string;
  paymentTerms: string;
  deliveryTerms: string;
  shippingWay: string;
  orderText: string;
  supplierAddress: string;
  /** Where its invoice goes; '' = as its places and the company say. */
  invoiceAddress: string;
  createdBy: string;
  createdAt: string;
  createdById: number;
  approvedBy: string | null;
  approvedAt: string | null;
  sentAt: string | null;
  sentHow: SentHow | null;
  /** Whom it was told at the supplier's. */
  sentTo: string;
  /** The mail that carries it while it is not out yet, with how that stands. */
  sendingMailId: number | null;
  sending: 'waiting' | 'failed' | 'stopped' | 'sent' | null;
  sendingFault: string | null;
  askedBy: string | null;
  askedAt: string | null;
  /** Who was asked to approve it. */
  asked: string | null;
  confirmedAt: string | null;
  supplierReference: string;
  /** The state that it had before its change was begun or it was closed. */
  before: OrderState | null;
  amendmentNo: number;
  nextContact: string | null;
  ownNumber: number;
  locationId: number | null;
  wantedDate: string | null;
  contact: string;
  internalNote: string;
  /** Why its date is not that of its approval; '' = it is. */
  datedBecause: string;
  taxRegime: TaxRegime;
  supplierMatching: Matching;
  /** Its charges are its own, whatever its supplier's terms become. */
  chargesKept: number;
  version: number;
};

const orderColumns = `o.id, o.number, o.supplier_id AS supplierId, s.name AS supplierName, s.status = 'blocked' AS supplierBlocked,
  s.email AS supplierEmail, s.language AS supplierLanguage, s.order_minimum_minor AS orderMinimum, o.state, o.order_date AS orderDate, o.currency,
  o.payment_terms AS paymentTerms, o.delivery_terms AS deliveryTerms, o.shipping_way AS shippingWay, o.order_text AS orderText,
  o.supplier_address AS supplierAddress, o.invoice_address AS invoiceAddress,
  c.name AS createdBy, o.created_by AS createdById, o.created_at AS createdAt, a.name AS approvedBy, o.approved_at AS approvedAt,
  o.sent_at AS sentAt, o.sent_how AS sentHow, o.sent_to AS sentTo, o.sending_mail_id AS sendingMailId, m.state AS sending,
  m.fault AS sendingFault, k.name AS askedBy, o.asked_at AS askedAt, q.name AS asked, o.confirmed_at AS confirmedAt,
  o.supplier_reference AS supplierReference, o.before_state AS \`before\`, o.amendment_no AS amendmentNo,
  o.next_contact AS nextContact, o.own_number AS ownNumber, o.location_id AS locationId, o.wanted_date AS wantedDate, o.contact,
  o.internal_note AS internalNote, o.dated_because AS datedBecause, s.tax_regime AS taxRegime,
  s.matching AS supplierMatching, o.charges_kept AS chargesKept, o.version`;
const orderTables = `purchase_order o JOIN supplier s ON s.id = o.supplier_id JOIN app_user c ON c.id = o.created_by
  LEFT JOIN app_user a ON a.id = o.approved_by LEFT JOIN app_user k ON k.id = o.asked_by
  LEFT JOIN app_user q ON q.id = o.asked_user_id LEFT JOIN outbox_mail m ON m.id = o.sending_mail_id`;

/** Heads of these orders, in no order. */
export async function readOrderHeads(tx: Tx, ids: readonly number[]): Promise<OrderRow[]> {
  const l = list('id', ids);
  return l ? tx.rows<OrderRow>(`SELECT ${orderColumns} FROM ${orderTables} WHERE o.id IN (${l.sql})`, l.values) : [];
}

const orderOrders = {
  newest: 'o.order_date DESC, o.id DESC',
  supplier: 's.name, o.id DESC',
  number: 'o.number IS NULL, o.number',
} as const;

/** Ids of all orders, or of those in a state that can still be worked on. */
export const readOrderIds = async (tx: Tx, all: boolean, order: keyof typeof orderOrders): Promise<number[]> =>
  (
    await tx.rows<{ id: number }>(
      `SELECT o.id FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
        WHERE ${all ? 'TRUE' : `o.state IN ${LIVE}`} ORDER BY ${orderOrders[order]}`,
    )
  ).map((r) => r.id);

export const findOrder = (tx: Tx, id: number) =>
  tx.row<OrderRow>(`SELECT ${orderColumns} FROM ${orderTables} WHERE o.id = :id`, { id });

/** Locks the header first, then reads it whole. */
export async function lockOrder(tx: Tx, id: number): Promise<OrderRow | null> {
  const locked = await tx.row('SELECT id FROM purchase_order WHERE id = :id FOR UPDATE', { id });
  return locked ? findOrder(tx, id) : null;
}

export const insertOrder = async (
  tx: Tx,
  o: {
    supplierId: number;
    orderDate: string;
    currency: string;
    paymentTerms: string;
    deliveryTerms: string;
    shippingWay: string;
    orderText: string;
    supplierAddress: string;
    locationId: SqlValue;
    wantedDate: SqlValue;
    contact: string;
    userId: number;
    at: string;
  },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO purchase_order (supplier_id, state, order_date, currency, payment_terms, delivery_terms,
                                   shipping_way, order_text, supplier_address, location_id, wanted_date, contact, created_by, created_at)
       VALUES (:supplierId, 'draft', :orderDate, :currency, :paymentTerms, :deliveryTerms, :shippingWay, :orderText,
               :supplierAddress, :locationId, :wantedDate, :contact, :userId, :at)`,
      o,
    )
  ).id;

export const bumpOrder = (tx: Tx, id: number) =>
  tx.run('UPDATE purchase_order SET version = version + 1 WHERE id = :id', { id });

export const setOrderState = (tx: Tx, id: number, state: OrderState) =>
  tx.run('UPDATE purchase_order SET state = :state, version = version + 1 WHERE id = :id', { id, state });

export const approveOrderRow = (
  tx: Tx,
  o: {
    id: number;
    number: string;
    /** Where the number was drawn now; null = it had it before, or it was typed. */
    series: SqlValue;
    no: SqlValue;
    userId: number;
    at: string;
    orderDate: string;
  },
) =>
  tx.run(
    `UPDATE purchase_order SET state = 'approved', number = :number, number_series = COALESCE(number_series, :series),
            number_no = COALESCE(number_no, :no), approved_by = :userId, approved_at = :at,
            order_date = :orderDate, asked_by = NULL, asked_at = NULL, asked_user_id = NULL, version = version + 1 WHERE id = :id`,
    o,
  );

/** The rate an order was approved at, as quoted. */
export const keepOrderRate = (tx: Tx, id: number, r: Rate) =>
  tx.run('UPDATE purchase_order SET rate = :rate, rate_direction = :direction, rate_date = :validFrom WHERE id = :id', {
    id,
    rate: r.rate,
    direction: r.direction,
    validFrom: r.validFrom,
  });

export type OrderLineRow = {
  id: number;
  orderId: number;
  lineNo: number;
  kind: LineKind;
  itemId: number | null;
  itemNumber: string | null;
  unitName: string | null;
  makersNumber: string | null;
  /** It is one of a family of items. */
  familyId: number | null;
  /** What the buyer is told of the item as it is on file now. */
  buyerNote: string | null;
  sourceId: number | null;
  description: string;
  supplierItemNumber: string;
  packId: number | null;
  packName: string;
  contentNum: number;
  contentDen: number;
  packQuantity: string;
  baseQuantity: string;
  priceAmount: string | null;
  pricePer: string;
  priceContentNum: number;
  priceContentDen: number;
  expectedAmount: string | null;
  freeOfCharge: number;
  priceOrigin: 'standard_cost' | 'last_price' | null;
  /** The edition that is ordered, the item's latest unless another is chosen; '' where it has none. */
  edition: string;
  /** Came without being ordered. */
  unordered: number;
  printedNote: string;
  internalNote: string;
  /** Why the price is not the one that was expected. */
  priceReason: PriceReason | null;
  discountPercent: string;
} & LineBooking & {
    /** Of the item: what it weighs and takes up per base unit, and how it is booked. */
    weightKg: string | null;
    volumeL: string | null;
    hsCode: string | null;
    itemOrigin: string | null;
    itemPurpose: 'resale' | 'own_use' | 'service' | 'one_off' | null;
    itemTaxCategory: string | null;
    itemAccount: string | null;
    itemDepartment: string | null;
    itemInspect: number | null;
  };

/** How a line is booked where it is other than the item and the supplier have it; null or '' = as they have it. */
export type LineBooking = {
  purpose: Purpose | null;
  taxCategory: string;
  /** Accounts with their shares, as text. */
  costTo: string;
  inspect: number | null;
  matching: Matching | null;
};

const lineColumns = `l.id, l.order_id AS orderId, l.line_no AS lineNo, l.kind, l.item_id AS itemId, i.number AS itemNumber,
  i.unit_name AS unitName, i.buyer_note AS buyerNote, i.maker_number AS makersNumber, i.family_id AS familyId, l.source_id AS sourceId, l.description, l.supplier_item_number AS supplierItemNumber,
  l.pack_id AS packId, l.pack_name AS packName, l.content_num AS contentNum, l.content_den AS contentDen,
  l.pack_quantity AS packQuantity, l.base_quantity AS baseQuantity, l.price_amount AS priceAmount,
  l.price_per AS pricePer, l.price_content_num AS priceContentNum, l.price_content_den AS priceContentDen,
  l.expected_amount AS expectedAmount, l.free_of_charge AS freeOfCharge, l.price_origin AS priceOrigin, l.edition,
  l.unordered, l.printed_note AS printedNote, l.internal_note AS internalNote, l.price_reason AS priceReason,
  l.discount_percent AS discountPercent, l.purpose, l.tax_category AS taxCategory, l.cost_to AS costTo, l.inspect, l.matching,
  i.weight_kg AS weightKg, i.volume_l AS volumeL, i.hs_code AS hsCode, i.origin AS itemOrigin, i.purpose AS itemPurpose,
  i.tax_category AS itemTaxCategory, COALESCE(NULLIF(i.account, ''), c.account, '') AS itemAccount, i.department AS itemDepartment,
  i.inspect AS itemInspect`;

export async function readOrderLines(tx: Tx, orderIds: readonly number[]): Promise<OrderLineRow[]> {
  const ids = list('id', orderIds);
  if (!ids) return [];
  return tx.rows<OrderLineRow>(
    `SELECT ${lineColumns} FROM order_line l LEFT JOIN item i ON i.id = l.item_id LEFT JOIN category c ON c.id = i.category_id
      WHERE l.order_id IN (${ids.sql}) ORDER BY l.order_id, l.line_no`,
    ids.values,
  );
}

/** What the item says beside a line is not the line's own. */
type OfItem =
  | 'itemNumber'
  | 'unitName'
  | 'buyerNote'
  | 'makersNumber'
  | 'familyId'
  | 'weightKg'
  | 'volumeL'
  | 'hsCode'
  | 'itemOrigin'
  | 'itemPurpose'
  | 'itemTaxCategory'
  | 'itemAccount'
  | 'itemDepartment'
  | 'itemInspect';
/** What a new line has only where it is said. */
type Sayable = 'printedNote' | 'internalNote' | 'discountPercent' | keyof LineBooking;
export type NewLine = Omit<OrderLineRow, 'id' | 'priceReason' | OfItem | Sayable> &
  Partial<Pick<OrderLineRow, Sayable>>;

/** What a line says where nobody said anything. */
export const unsaid: Pick<OrderLineRow, Sayable> = {
  ...{ printedNote: '', internalNote: '', discountPercent: '0', purpose: null, taxCategory: '', costTo: '' },
  ...{ inspect: null, matching: null },
};

export const insertOrderLine = async (tx: Tx, l: NewLine): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO order_line (order_id, line_no, kind, item_id, source_id, description, supplier_item_number, pack_id,
         pack_name, content_num, content_den, pack_quantity, base_quantity, price_amount, price_per, price_content_num,
         price_content_den, expected_amount, price_origin, edition, free_of_charge, unordered, printed_note, internal_note, discount_percent,
         purpose, tax_category, cost_to, inspect, matching)
       VALUES (:orderId, :lineNo, :kind, :itemId, :sourceId, :description, :supplierItemNumber, :packId,
         :packName, :contentNum, :contentDen, :packQuantity, :baseQuantity, :priceAmount, :pricePer, :priceContentNum,
         :priceContentDen, :expectedAmount, :priceOrigin, :edition, :freeOfCharge, :unordered, :printedNote, :internalNote, :discountPercent,
         :purpose, :taxCategory, :costTo, :inspect, :matching)`,
      { ...unsaid, ...l } as unknown as Record<string, SqlValue>,
    )
  ).id;

export const updateOrderLine = (
  tx: Tx,
  l: {
    id: number;
    packQuantity: string;
    baseQuantity: string;
    priceAmount: SqlValue;
    pricePer: string;
    priceContentNum: SqlValue;
    priceContentDen: SqlValue;
    expectedAmount: SqlValue;
    freeOfCharge: number;
    priceOrigin: SqlValue;
    edition: string;
    printedNote: string;
    internalNote: string;
    priceReason: SqlValue;
    discountPercent: string;
  } & LineBooking,
) =>
  tx.run(
    `UPDATE order_line SET pack_quantity = :packQuantity, base_quantity = :baseQuantity, price_amount = :priceAmount,
            price_per = :pricePer, price_content_num = :priceContentNum, price_content_den = :priceContentDen,
            expected_amount = :expectedAmount, free_of_charge = :freeOfCharge, price_origin = :priceOrigin, edition = :edition, printed_note = :printedNote,
            internal_note = :internalNote, price_reason = :priceReason, discount_percent = :discountPercent, purpose = :purpose,
            tax_category = :taxCategory, cost_to = :costTo, inspect = :inspect, matching = :matching WHERE id = :id`,
    l,
  );

/** The quantities of a line, once its parts have others. */
export const resizeLine = (tx: Tx, id: number, packQuantity: string, baseQuantity: string) =>
  tx.run('UPDATE order_line SET pack_quantity = :packQuantity, base_quantity = :baseQuantity WHERE id = :id', {
    id,
    packQuantity,
    baseQuantity,
  });

/** A line counts nothing any more, but stays with what was booked in on it and reversed; its parts leave their trays' lines. */
export async function voidOrderLine(tx: Tx, lineId: number): Promise<void> {
  const nothing = 'pack_quantity = 0, base_quantity = 0';
  await tx.run(`UPDATE delivery_part SET ${nothing}, tray_line_id = NULL WHERE order_line_id = :lineId`, { lineId });
  await tx.run(`UPDATE order_line SET ${nothing} WHERE id = :lineId`, { lineId });
}

/** Takes a line off a draft; where something was booked in on it once it is voided instead. */
export async function takeOffOrderLine(tx: Tx, lineId: number): Promise<void> {
  const came = await tx.row(
    `SELECT x.id FROM goods_receipt_line x JOIN delivery_part d ON d.id = x.delivery_part_id
      WHERE d.order_line_id = :lineId LIMIT 1`,
    { lineId },
  );
  if (came) return voidOrderLine(tx, lineId);
  await tx.run('DELETE FROM delivery_part WHERE order_line_id = :lineId', { lineId });
  await tx.run('DELETE FROM order_line WHERE id = :lineId', { lineId });
}

/** A part goes to another place of ours. */
export const setPartPlace = (tx: Tx, id: number, locationId: number) =>
  tx.run('UPDATE delivery_part SET location_id = :locationId WHERE id = :id', { id, locationId });

/** By when its supplier promised a part, before it confirmed it. */
export const setPromised = (tx: Tx, id: number, promisedDate: SqlValue) =>
  tx.run('UPDATE delivery_part SET promised_date = :promisedDate WHERE id = :id', { id, promisedDate });

/** Takes one part of a draft's line off it. */
export const deletePart = (tx: Tx, id: number) => tx.run('DELETE FROM delivery_part WHERE id = :id', { id });

export type PartRow = {
  id: number;
  lineId: number;
  partNo: number;
  locationId: number | null;
  packQuantity: string;
  baseQuantity: string;
  received: string;
  receivedPacks: string;
  receivedValue: number;
  cancelled: string;
  wantedDate: string | null;
  /** What the supplier gave: a date by which it promised before it was asked to confirm, and the one it confirmed. */
  promisedDate: string | null;
  confirmedDate: string | null;
  trayLineId: number | null;
  /** The customer's line that its supplier sends it to; null = it comes to its place. */
  customerLineId: number | null;
};

const partColumns = `d.id, d.order_line_id AS lineId, d.part_no AS partNo, d.location_id AS locationId,
  d.pack_quantity AS packQuantity, d.base_quantity AS baseQuantity, d.received_quantity AS received,
  d.received_packs AS receivedPacks, d.received_value_minor AS receivedValue, d.cancelled_quantity AS cancelled,
  d.wanted_date AS wantedDate, d.promised_date AS promisedDate, d.confirmed_date AS confirmedDate,
  d.tray_line_id AS trayLineId, d.customer_line_id AS customerLineId`;

/** The figures of a part, in millionths. */
export const partFigures = (
  p: Pick<PartRow, 'packQuantity' | 'baseQuantity' | 'received' | 'receivedPacks' | 'cancelled'>,
) => ({
  packs: fromDecimal(p.packQuantity),
  base: fromDecimal(p.baseQuantity),
  received: fromDecimal(p.received),
  receivedPacks: fromDecimal(p.receivedPacks),
  cancelled: fromDecimal(p.cancelled),
});

export async function readParts(tx: Tx, orderIds: readonly number[]): Promise<PartRow[]> {
  const ids = list('id', orderIds);
  if (!ids) return [];
  return tx.rows<PartRow>(
    `SELECT ${partColumns} FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id
      WHERE l.order_id IN (${ids.sql}) ORDER BY l.order_id, l.line_no, d.part_no`,
    ids.values,
  );
}

/** A part; where its tray line goes straight to a customer, so does it. */
export const insertPart = (
  tx: Tx,
  p: {
    lineId: number;
    partNo: number;
    locationId: SqlValue;
    packQuantity: string;
    baseQuantity: string;
    wantedDate: SqlValue;
    trayLineId: SqlValue;
  },
) =>
  tx.run(
    `INSERT INTO delivery_part (order_line_id, part_no, location_id, pack_quantity, base_quantity, wanted_date, tray_line_id, customer_line_id)
     VALUES (:lineId, :partNo, :locationId, :packQuantity, :baseQuantity, :wantedDate, :trayLineId,
             (SELECT t.customer_line_id FROM tray_line t WHERE t.id = :trayLineId))`,
    p,
  );

export const updatePart = (
  tx: Tx,
  p: { id: number; packQuantity: string; baseQuantity: string; wantedDate: SqlValue },
) =>
  tx.run(
    `UPDATE delivery_part SET pack_quantity = :packQuantity, base_quantity = :baseQuantity, wanted_date = :wantedDate
      WHERE id = :id`,
    p,
  );

/** The tray line that a part goes back to. */
export const setPartTray = (tx: Tx, id: number, trayLineId: number | null) =>
  tx.run('UPDATE delivery_part SET tray_line_id = :trayLineId WHERE id = :id', { id, trayLineId });

export const addReceived = (
  tx: Tx,
  p: { id: number; received: string; receivedPacks: string; receivedValue: number },
) =>
  tx.run(
    `UPDATE delivery_part SET received_quantity = :received, received_packs = :receivedPacks,
            received_value_minor = :receivedValue WHERE id = :id`,
    p,
  );
