import type { Pack } from '@/core/packs';
import type { PriceStep } from '@/core/sourcing';
import { fraction } from '@/core/units';
import { atLocations, list, type Tx } from '../sql';

export type ItemRow = {
  id: number;
  number: string;
  name: string;
  category: string;
  unitName: string;
  baseUnit: string;
  status: 'active' | 'phase_out' | 'stopped';
};

const itemColumns = `i.id, i.number, i.name, c.name AS category, i.unit_name AS unitName, i.base_unit AS baseUnit, i.status`;

export const findItem = (tx: Tx, id: number) =>
  tx.row<ItemRow>(`SELECT ${itemColumns} FROM item i JOIN category c ON c.id = i.category_id WHERE i.id = :id`, { id });

export type PackRow = Pack & { readonly itemId: number };

/** Packs of the given items. */
export async function readPacks(tx: Tx, itemIds: readonly number[]): Promise<PackRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  const rows = await tx.rows<{ id: number; itemId: number; name: string; num: number; den: number; of: number | null }>(
    `SELECT id, item_id AS itemId, name, count_num AS num, count_den AS den, of_pack_id AS \`of\`
       FROM pack WHERE item_id IN (${ids.sql}) ORDER BY id`,
    ids.values,
  );
  return rows.map((r) => ({ id: r.id, itemId: r.itemId, name: r.name, count: fraction(r.num, r.den), of: r.of }));
}

export type SourceRow = {
  id: number;
  itemId: number;
  supplierId: number;
  supplierName: string;
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
};

/** Sources of the given items with what is needed of their suppliers. */
export async function readSources(tx: Tx, itemIds: readonly number[]): Promise<SourceRow[]> {
  const ids = list('id', itemIds);
  if (!ids) return [];
  const rows = await tx.rows<Omit<SourceRow, 'supplierActive'> & { supplierActive: number }>(
    `SELECT s.id, s.item_id AS itemId, s.supplier_id AS supplierId, p.name AS supplierName,
            p.status = 'active' AS supplierActive, p.currency, s.preference,
            s.supplier_item_number AS supplierItemNumber, s.pack_id AS packId, s.minimum_quantity AS minimum,
            s.multiple_packs AS multiplePacks, s.rounding,
            p.lead_time_days AS leadTimeDays, p.lead_time_kind AS leadTimeKind
       FROM source s JOIN supplier p ON p.id = s.supplier_id
      WHERE s.item_id IN (${ids.sql}) ORDER BY s.item_id, s.preference, s.id`,
    ids.values,
  );
  return rows.map((r) => ({ ...r, supplierActive: r.supplierActive === 1 }));
}

export type PriceRow = PriceStep & { readonly sourceId: number };

export async function readPrices(tx: Tx, sourceIds: readonly number[]): Promise<PriceRow[]> {
  const ids = list('id', sourceIds);
  if (!ids) return [];
  const rows = await tx.rows<Omit<PriceRow, 'fromPacks'> & { fromPacks: number }>(
    `SELECT source_id AS sourceId, CAST(from_packs * 1000000 AS SIGNED) AS fromPacks, valid_from AS validFrom,
            valid_to AS validTo, amount, per_quantity AS perQuantity, pack_id AS packId
       FROM price WHERE source_id IN (${ids.sql})`,
    ids.values,
  );
  return rows;
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
  leadTimeDays: number;
  leadTimeKind: 'working' | 'calendar';
  status: 'active' | 'blocked';
};

export const readSuppliers = (tx: Tx) =>
  tx.rows<SupplierRow>(
    `SELECT id, code, name, address, email, currency, payment_terms AS paymentTerms, delivery_terms AS deliveryTerms,
            order_minimum_minor AS orderMinimum, lead_time_days AS leadTimeDays, lead_time_kind AS leadTimeKind, status
       FROM supplier ORDER BY name, id`,
  );

/** These items by id. */
export async function readItemsByIds(tx: Tx, itemIds: readonly number[]): Promise<Map<number, ItemRow>> {
  const ids = list('id', itemIds);
  if (!ids) return new Map();
  const rows = await tx.rows<ItemRow>(
    `SELECT ${itemColumns} FROM item i JOIN category c ON c.id = i.category_id WHERE i.id IN (${ids.sql})`,
    ids.values,
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

/** Ids of the items whose name or number holds the text, in order; by value means that of the stock at these places, the
 *  most first. */
export async function readItemIds(
  tx: Tx,
  search: string,
  order: keyof typeof itemOrders,
  locationIds: readonly number[] | null = null,
): Promise<number[]> {
  const at = atLocations('location_id', locationIds);
  const byValue = order === 'value';
  const rows = await tx.rows<{ id: number }>(
    `SELECT i.id FROM item i
       ${byValue ? `LEFT JOIN (SELECT item_id, SUM(value_minor) AS value FROM level WHERE TRUE ${at.sql} GROUP BY item_id) v ON v.item_id = i.id` : ''}
      WHERE ${FOUND_ITEM} ORDER BY ${itemOrders[order]}`,
    { search, ...(byValue ? at.values : {}) },
  );
  return rows.map((r) => r.id);
}
