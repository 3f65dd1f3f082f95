import type { Pack } from '@/core/packs';
import { deliveryWords, type FreightPayer, paymentWords } from '@/core/purchase';
import { type BreakScope, discounted, type PriceStep } from '@/core/sourcing';
import { fraction } from '@/core/units';
import { Asking } from '../asking';
import { atLocations, list, type Tx } from '../sql';

export type ItemRow = {
  id: number;
  number: string;
  name: string;
  category: string;
  categoryId: number;
  unitName: string;
  baseUnit: string;
  status: 'active' | 'phase_out' | 'stopped';
  maker: string;
  salePrice: string | null;
  standardCost: string | null;
  stockKept: number;
  saleDecimals: number;
  /** 0: nobody records what goes out; a count tells. */
  useRecorded: number;
  availability: 'available' | 'to_order' | 'not_available';
  toComplete: number;
  buyerNote: string;
  version: number;
  /** The pack it is usually sent in between our places. */
  usualSendPackId: number | null;
};

const itemColumns = `i.id, i.number, i.name, c.name AS category, i.category_id AS categoryId, i.unit_name AS unitName, i.base_unit AS baseUnit, i.status, i.maker,
  i.sale_price AS salePrice, i.standard_cost AS standardCost, i.stock_kept AS stockKept, i.sale_decimals AS saleDecimals,
  i.use_recorded AS useRecorded,
  i.availability, i.to_complete AS toComplete, i.buyer_note AS buyerNote,
  i.usual_send_pack_id AS usualSendPackId, i.version`;

export const findItem = (tx: Tx, id: number) =>
  tx.row<ItemRow>(`SELECT ${itemColumns} FROM item i JOIN category c ON c.id = i.category_id WHERE i.id = :id`, { id });

/** What is on file of an item besides what planning needs. */
export type ItemFacts = {
  maker: string;
  makerNumber: string;
  tracking: 'none' | 'lot' | 'serial';
  purpose: 'resale' | 'own_use' | 'service' | 'one_off';
  taxCategory: string;
  weightKg: string | null;
  volumeL: string | null;
  hsCode: string;
  origin: string;
  unNumber: string;
  hazardClass: string;
  packingGroup: string;
  hazardName: string;
  standardCost: string | null;
  salePrice: string | null;
  saleWithTax: number;
  saleTaxRate: string | null;
  edition: string;
  buyerNote: string;
  account: string;
  department: string;
  successor: string | null;
  successorId: number | null;
  family: string | null;
  option1: string | null;
  value1: string;
  option2: string | null;
  value2: string;
};

export const readItemFacts = (tx: Tx, id: number) =>
  tx.row<ItemFacts>(
    `SELECT i.maker, i.maker_number AS makerNumber, i.tracking, i.purpose, i.tax_category AS taxCategory,
            i.weight_kg AS weightKg, i.volume_l AS volumeL, i.hs_code AS hsCode, i.origin, i.un_number AS unNumber,
            i.hazard_class AS hazardClass, i.packing_group AS packingGroup, i.hazard_name AS hazardName,
            i.standard_cost AS standardCost, i.sale_price AS salePrice, i.sale_with_tax AS saleWithTax,
            i.sale_tax_rate AS saleTaxRate, i.edition, i.buyer_note AS buyerNote, i.account, i.department,
            s.name AS successor, i.successor_id AS successorId, f.name AS family, f.option_1 AS option1,
            i.option_1 AS value1, f.option_2 AS option2, i.option_2 AS value2
       FROM item i LEFT JOIN item s ON s.id = i.successor_id LEFT JOIN item_family f ON f.id = i.family_id WHERE i.id = :id`,
    { id },
  );

export type BarcodeRow = { readonly kind: 'gtin' | 'internal'; readonly code: string; readonly pack: string | null };

export const readBarcodes = (tx: Tx, itemId: number) =>
  tx.rows<BarcodeRow>(
    `SELECT b.kind, b.code, p.name AS pack FROM barcode b LEFT JOIN pack p ON p.id = b.pack_id
      WHERE b.item_id = :itemId ORDER BY p.name IS NOT NULL, p.name, b.kind, b.code`,
    { itemId },
  );

export type ComponentRow = { id: number; number: string; name: string; unitName: string; quantity: string };

/** What a kit is made of. */
export const readComponents = (tx: Tx, kitId: number) =>
  tx.rows<ComponentRow>(
    `SELECT c.id, c.number, c.name, c.unit_name AS unitName, k.quantity FROM kit_component k JOIN item c ON c.id = k.component_id
      WHERE k.kit_id = :kitId ORDER BY c.name`,
    { kitId },
  );

export type PackRow = Pack & { readonly itemId: number };

/** Packs of the given items. */
export function askPacks(ask: Asking, itemIds: readonly number[]): () => Promise<PackRow[]> {
  const rows = ask.rows<{
    id: number;
    itemId: number;
    name: string;
    num: number;
    den: number;
    of: number | null;
  }>(
    `SELECT id, item_id AS itemId, name, count_num AS num, count_den AS den, of_pack_id AS \`of\`
       FROM pack WHERE item_id IN (?) ORDER BY id`,
    [itemIds],
  );
  return async () =>
    (await rows()).map((r) => ({
      ...{ id: r.id, itemId: r.itemId, name: r.name },
      ...{ count: fraction(r.num, r.den), of: r.of },
    }));
}

export const readPacks = async (tx: Tx, itemIds: readonly number[]): Promise<PackRow[]> =>
  itemIds.length === 0 ? [] : askPacks(new Asking(tx, 'together'), itemIds)();

export type SourceRow = {
  id: number;
  itemId: number;
  supplierId: number;
  supplierName: string;
  supplierCode: string;
  supplierActive: boolean;
  currency: string;
  preference: number;
  supplierItemNumber: string;
  packId: number | null;
  minimum: string;
  multiplePacks: number;
  rounding: 'up' | 'nearest' | 'none';
  leadTimeDays: number;
  leadTimeKind: 'working' | 'calendar';
  /** Fixed share of what is bought, percent; null = by rank. */
  share: string | null;
  breakScope: BreakScope;
  priceGroup: string;
  edition: string;
};

/** Sources of these items. Their suppliers are few: looked at first, everything they sell would be read. */
export function askSources(ask: Asking, itemIds: readonly number[]): () => Promise<SourceRow[]> {
  const rows = ask.rows<Omit<SourceRow, 'supplierActive'> & { supplierActive: number }>(
    `SELECT s.id, s.item_id AS itemId, s.supplier_id AS supplierId, p.name AS supplierName, p.code AS supplierCode,
            p.status = 'active' AS supplierActive, p.currency, s.preference,
            s.supplier_item_number AS supplierItemNumber, s.pack_id AS packId, s.minimum_quantity AS minimum,
            s.multiple_packs AS multiplePacks, s.rounding,
            COALESCE(s.lead_time_days, p.lead_time_days) AS leadTimeDays, p.lead_time_kind AS leadTimeKind,
            s.share_percent AS share, s.break_scope AS breakScope, COALESCE(f.price_group, '') AS priceGroup, i.edition
       FROM source s FORCE INDEX (source_preference) STRAIGHT_JOIN supplier p ON p.id = s.supplier_id
       STRAIGHT_JOIN item i ON i.id = s.item_id LEFT JOIN item_family f ON f.id = i.family_id
      WHERE s.item_id IN (?) ORDER BY s.item_id, s.preference, s.id`,
    [itemIds],
  );
  return async () => (await rows()).map((r) => ({ ...r, supplierActive: r.supplierActive === 1 }));
}

export const readSources = async (tx: Tx, itemIds: readonly number[]): Promise<SourceRow[]> =>
  itemIds.length === 0 ? [] : askSources(new Asking(tx, 'together'), itemIds)();

export type PriceRow = PriceStep & { readonly sourceId: number };

/** Price lists of the sources of these items. */
export function askPrices(ask: Asking, itemIds: readonly number[]): () => Promise<PriceRow[]> {
  const rows = ask.rows<PriceRow & { discount: string }>(
    `SELECT p.source_id AS sourceId, CAST(p.from_packs * 1000000 AS SIGNED) AS fromPacks, p.valid_from AS validFrom,
            p.valid_to AS validTo, p.amount, p.discount_percent AS discount, p.per_quantity AS perQuantity, p.pack_id AS packId
       FROM source s JOIN price p ON p.source_id = s.id WHERE s.item_id IN (?)`,
    [itemIds],
  );
  return async () =>
    (await rows()).map(({ discount, ...step }) => ({
      ...step,
      amount: Number(discount) === 0 ? step.amount : discounted(step.amount, discount),
    }));
}

export type SupplierRow = {
  id: number;
  code: string;
  name: string;
  address: string;
  email: string;
  currency: string;
  paymentTerms: string;
  deliveryTerms: string;
  orderMinimum: number;
  /** Days until goods are paid; null where nothing is agreed. */
  paymentDays: number | null;
  leadTimeDays: number;
  leadTimeKind: 'working' | 'calendar';
  status: 'active' | 'blocked';
  /** A tray makes one order, or one for each place. */
  trayRule: 'one_order' | 'per_location';
  /** Name of the way it is shipped, '' when none is agreed. */
  shippingWay: string;
  /** Stands on every order. */
  orderText: string;
};

type StandingTerms = {
  words: string;
  days: number | null;
  discountPercent: string | null;
  discountDays: number | null;
  deliveryTerms: string;
  incoterm: string;
  place: string;
  payer: FreightPayer | null;
};

/** All suppliers, with their standing terms as orders say them. */
export async function readSuppliers(tx: Tx): Promise<SupplierRow[]> {
  const rows = await tx.rows<Omit<SupplierRow, 'paymentTerms' | 'paymentDays'> & StandingTerms>(
    `SELECT s.id, s.code, s.name, s.address, s.email, s.currency, s.payment_terms AS words, s.payment_days AS days,
            s.discount_percent AS discountPercent, s.discount_days AS discountDays, s.delivery_terms AS deliveryTerms,
            s.incoterm, s.incoterm_place AS place, s.freight_payer AS payer, s.order_minimum_minor AS orderMinimum, s.lead_time_days AS leadTimeDays,
            s.lead_time_kind AS leadTimeKind, s.status, s.tray_rule AS trayRule, COALESCE(w.name, '') AS shippingWay,
            s.order_text AS orderText
       FROM supplier s LEFT JOIN shipping_way w ON w.id = s.shipping_way_id ORDER BY s.name, s.id`,
  );
  return rows.map(({ words, days, discountPercent, discountDays, incoterm, place, payer, ...s }) => ({
    ...s,
    paymentDays: days,
    paymentTerms: paymentWords({ words, days, discountPercent, discountDays }),
    deliveryTerms: deliveryWords({ words: s.deliveryTerms, incoterm, place, payer }),
  }));
}

/** These items by id. */
export async function readItemsByIds(tx: Tx, itemIds: readonly number[]): Promise<Map<number, ItemRow>> {
  const rows = await tx.rowsOf<ItemRow>(
    `SELECT ${itemColumns} FROM item i FORCE INDEX (PRIMARY) STRAIGHT_JOIN category c ON c.id = i.category_id WHERE i.id IN (?)`,
    itemIds,
  );
  return new Map(rows.map((r) => [r.id, r]));
}

export const countItems = async (tx: Tx): Promise<number> =>
  Number((await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM item'))?.n ?? 0);

/** The next items by id, and how many there are in all: for going through the catalogue in steps. */
export async function readItemIdsAfter(
  tx: Tx,
  after: number,
  limit: number,
): Promise<{ ids: number[]; total: number }> {
  const rows = await tx.rows<{ id: number }>(
    `SELECT id FROM item WHERE id > :after ORDER BY id LIMIT ${Math.trunc(limit)}`,
    { after },
  );
  const count = await tx.row<{ n: number }>('SELECT COUNT(*) AS n FROM item');
  return { ids: rows.map((r) => r.id), total: Number(count?.n ?? 0) };
}

export const lockSupplier = (tx: Tx, id: number) =>
  tx.row<Pick<SupplierRow, 'id' | 'leadTimeDays' | 'leadTimeKind' | 'status'> & { version: number }>(
    `SELECT id, lead_time_days AS leadTimeDays, lead_time_kind AS leadTimeKind, status, version
       FROM supplier WHERE id = :id FOR UPDATE`,
    { id },
  );

export const updateSupplierTerms = (tx: Tx, s: Pick<SupplierRow, 'id' | 'leadTimeDays' | 'leadTimeKind' | 'status'>) =>
  tx.run(
    `UPDATE supplier SET lead_time_days = :leadTimeDays, lead_time_kind = :leadTimeKind, status = :status,
            version = version + 1 WHERE id = :id`,
    s,
  );

type SourceTerms = Pick<SourceRow, 'id' | 'preference' | 'minimum' | 'multiplePacks' | 'rounding'>;

export const lockSource = (tx: Tx, id: number) =>
  tx.row<SourceTerms & { version: number }>(
    `SELECT id, preference, minimum_quantity AS minimum, multiple_packs AS multiplePacks, rounding, version
       FROM source WHERE id = :id FOR UPDATE`,
    { id },
  );

export const updateSource = (tx: Tx, s: SourceTerms) =>
  tx.run(
    `UPDATE source SET preference = :preference, minimum_quantity = :minimum, multiple_packs = :multiplePacks,
            rounding = :rounding, version = version + 1 WHERE id = :id`,
    s,
  );

const itemOrders = { name: 'i.name, i.number', number: 'i.number', value: 'v.value DESC, i.name, i.number' } as const;

/** Items whose name or number holds the text. */
export const FOUND_ITEM = `(:search = '' OR LOCATE(:search, i.name) > 0 OR LOCATE(:search, i.number) > 0)`;

/** Which items: by text in name or number, those to be completed, without a supplier, of a status, of some categories. */
export type ItemFilter = {
  readonly search?: string;
  readonly toComplete?: boolean;
  readonly noSupplier?: boolean;
  readonly status?: string;
  readonly categoryIds?: readonly number[] | null;
  readonly supplierId?: number | null;
  readonly stockKept?: boolean;
};

/** Ids of items in order; by value means that of the stock at these places, the most first. */
export async function readItemIds(
  tx: Tx,
  filter: ItemFilter,
  order: keyof typeof itemOrders,
  locationIds: readonly number[] | null = null,
): Promise<number[]> {
  const at = atLocations('location_id', locationIds);
  const byValue = order === 'value';
  const categories = list('category', filter.categoryIds ?? []);
  if (filter.categoryIds && !categories) return [];
  const rows = await tx.rows<{ id: number }>(
    `SELECT i.id FROM item i
       ${byValue ? `LEFT JOIN (SELECT item_id, SUM(value_minor) AS value FROM level WHERE TRUE ${at.sql} GROUP BY item_id) v ON v.item_id = i.id` : ''}
      WHERE ${FOUND_ITEM} ${filter.toComplete ? 'AND i.to_complete = 1' : ''} ${filter.stockKept ? 'AND i.stock_kept = 1' : ''}
        ${filter.noSupplier ? 'AND NOT EXISTS (SELECT 1 FROM source s WHERE s.item_id = i.id)' : ''}
        ${filter.supplierId ? 'AND EXISTS (SELECT 1 FROM source s WHERE s.item_id = i.id AND s.supplier_id = :supplierId)' : ''}
        ${filter.status ? 'AND i.status = :status' : ''} ${categories ? `AND i.category_id IN (${categories.sql})` : ''}
      ORDER BY ${itemOrders[order]}`,
    {
      search: filter.search ?? '',
      ...(byValue ? at.values : {}),
      ...(filter.status ? { status: filter.status } : {}),
      ...(filter.supplierId ? { supplierId: filter.supplierId } : {}),
      ...(categories?.values ?? {}),
    },
  );
  return rows.map((r) => r.id);
}

/** Who is named as buyer of items, of their categories and of the supplier they come from first. */
export const readNamedBuyers = (tx: Tx, itemId: number | null = null) =>
  tx.rows<{ itemId: number; categoryId: number; own: number | null; supplier: number | null }>(
    `SELECT i.id AS itemId, i.category_id AS categoryId, i.buyer_id AS own,
            (SELECT p.buyer_id FROM source s JOIN supplier p ON p.id = s.supplier_id WHERE s.item_id = i.id
              ORDER BY p.status = 'active' DESC, s.preference, s.id LIMIT 1) AS supplier FROM item i
      ${itemId === null ? '' : 'WHERE i.id = :itemId'}`,
    itemId === null ? {} : { itemId },
  );

export const readCategoryTree = (tx: Tx) =>
  tx.rows<{ id: number; parentId: number | null; name: string; buyerId: number | null }>(
    'SELECT id, parent_id AS parentId, name, buyer_id AS buyerId FROM category ORDER BY id',
  );

/** Where items lie at a place. */
export const readShelves = (tx: Tx, itemIds: readonly number[], locationId: number) =>
  tx.rowsOf<{ itemId: number; shelf: string }>(
    `SELECT item_id AS itemId, shelf FROM item_place WHERE location_id = ${Math.trunc(locationId)} AND shelf <> '' AND item_id IN (?)`,
    itemIds,
  );

/** Numbers of items, in order. */
export const readItemNumbers = async (tx: Tx, ids: readonly number[]): Promise<string[]> =>
  (await tx.rowsOf<{ number: string }>('SELECT number FROM item WHERE id IN (?) ORDER BY number', ids)).map(
    (r) => r.number,
  );

/** A supplier sells an item from now on, by the base unit, behind the sources there are. In two steps: the server refuses an
 *  INSERT … SELECT with an aggregate when it is executed a second time. */
export async function insertSource(tx: Tx, itemId: number, supplierId: number): Promise<void> {
  const row = await tx.row<{ last: number | null }>(
    'SELECT MAX(preference) AS last FROM source WHERE item_id = :itemId FOR UPDATE',
    { itemId },
  );
  const preference = (row?.last ?? 0) + 1;
  await tx.run('INSERT INTO source (item_id, supplier_id, preference) VALUES (:itemId, :supplierId, :preference)', {
    ...{ itemId, supplierId, preference },
  });
}

/** Makers of the items on file, those that are named. */
export const readMakers = async (tx: Tx): Promise<string[]> =>
  (await tx.rows<{ maker: string }>("SELECT DISTINCT maker FROM item WHERE maker <> '' ORDER BY maker LIMIT 300")).map(
    (r) => r.maker,
  );

/** The category of every item. */
export const readItemCategories = async (tx: Tx): Promise<Map<number, number>> =>
  new Map((await tx.arrays('SELECT id, category_id FROM item')) as [number, number][]);

/** Sale prices of items as they are said of the base unit everywhere; those without one are left out. */
export const readSaleTerms = (tx: Tx, itemIds: readonly number[]) =>
  tx.rowsOf<{ itemId: number; amount: string; withTax: boolean; taxRate: string | null }>(
    `SELECT id AS itemId, sale_price AS amount, sale_with_tax = 1 AS withTax, sale_tax_rate AS taxRate FROM item
      WHERE sale_price IS NOT NULL AND id IN (?)`,
    itemIds,
  );

/** Puts a price on a source's list from a day on: at the step that holds for a quantity, in the pack it was ordered in.
 *  Returns what stood there, null when nothing did. */
export async function putListPrice(
  tx: Tx,
  p: {
    sourceId: number;
    packs: string;
    packId: number | null;
    per: string;
    amount: string;
    from: string;
    userId: number;
    at: string;
  },
): Promise<string | null> {
  const step = await tx.row<{ fromPacks: string; amount: string }>(
    `SELECT from_packs AS fromPacks, amount FROM price
      WHERE source_id = :sourceId AND from_packs <= :packs AND valid_from <= :from AND (valid_to IS NULL OR valid_to >= :from)
      ORDER BY from_packs DESC, valid_from DESC LIMIT 1`,
    { sourceId: p.sourceId, packs: p.packs, from: p.from },
  );
  await tx.run(
    `INSERT INTO price (source_id, from_packs, valid_from, amount, per_quantity, pack_id, reason, set_by, set_at)
     VALUES (:sourceId, :fromPacks, :from, :amount, :per, :packId, 'confirmed by the supplier', :userId, :at)
     ON DUPLICATE KEY UPDATE amount = :amount, per_quantity = :per, pack_id = :packId, discount_percent = 0,
       reason = 'confirmed by the supplier', set_by = :userId, set_at = :at`,
    {
      ...{ sourceId: p.sourceId, fromPacks: step?.fromPacks ?? '0', from: p.from, amount: p.amount, per: p.per },
      ...{ packId: p.packId, userId: p.userId, at: p.at },
    },
  );
  return step?.amount ?? null;
}

/** Items that a supplier sells us. */
export const readSoldBy = async (tx: Tx, supplierId: number): Promise<number[]> =>
  (
    await tx.rows<{ id: number }>(
      "SELECT DISTINCT s.item_id AS id FROM source s JOIN item i ON i.id = s.item_id AND i.status <> 'stopped' WHERE s.supplier_id = :supplierId",
      { supplierId },
    )
  ).map((r) => r.id);
