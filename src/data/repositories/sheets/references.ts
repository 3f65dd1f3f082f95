import type { SqlValue, Tx } from '../../sql';

export type ItemReference = {
  id: number;
  number: string;
  baseUnit: string;
  stockKept: number;
  familyId: number | null;
};
export type SupplierReference = { id: number; code: string; currency: string };
export type LocationReference = { id: number; code: string };
export type PackReference = { id: number; itemId: number; name: string; ofPackId: number | null };

const by = <T>(tx: Tx, sql: (names: string) => string, values: readonly SqlValue[]): Promise<T[]> =>
  tx.rowsOf<T>(sql('?'), values);

export const itemsByNumber = (tx: Tx, numbers: readonly string[]) =>
  by<ItemReference>(
    tx,
    (names) =>
      `SELECT id, number, base_unit AS baseUnit, stock_kept AS stockKept, family_id AS familyId FROM item WHERE number IN (${names})`,
    numbers,
  );

export const suppliersByCode = (tx: Tx, codes: readonly string[]) =>
  by<SupplierReference>(tx, (names) => `SELECT id, code, currency FROM supplier WHERE code IN (${names})`, codes);

export const locationsByCode = (tx: Tx, codes: readonly string[]) =>
  by<LocationReference>(
    tx,
    (names) => `SELECT id, code FROM location WHERE kind <> 'transit' AND code IN (${names})`,
    codes,
  );

export const packsOfItems = (tx: Tx, itemIds: readonly number[]) =>
  by<PackReference>(
    tx,
    (names) => `SELECT id, item_id AS itemId, name, of_pack_id AS ofPackId FROM pack WHERE item_id IN (${names})`,
    itemIds,
  );

export const familiesByName = (tx: Tx, names: readonly string[]) =>
  by<{ id: number; name: string; option1: string; option2: string; priceGroup: string }>(
    tx,
    (marks) =>
      `SELECT id, name, option_1 AS option1, option_2 AS option2, price_group AS priceGroup FROM item_family WHERE name IN (${marks})`,
    names,
  );

export const sourcesOfItems = (tx: Tx, itemIds: readonly number[]) =>
  by<{ id: number; itemId: number; supplierId: number }>(
    tx,
    (names) => `SELECT id, item_id AS itemId, supplier_id AS supplierId FROM source WHERE item_id IN (${names})`,
    itemIds,
  );

export const usersByLogin = (tx: Tx, logins: readonly string[]) =>
  by<{ id: number; login: string }>(tx, (names) => `SELECT id, login FROM app_user WHERE login IN (${names})`, logins);

export const shippingWaysByName = (tx: Tx, ways: readonly string[]) =>
  by<{ id: number; name: string }>(tx, (names) => `SELECT id, name FROM shipping_way WHERE name IN (${names})`, ways);

export const readCategories = (tx: Tx) =>
  tx.rows<{ id: number; parentId: number | null; name: string }>(
    'SELECT id, parent_id AS parentId, name FROM category ORDER BY id',
  );

export const insertCategory = async (tx: Tx, name: string, parentId: number | null): Promise<number> =>
  (await tx.run('INSERT INTO category (name, parent_id) VALUES (:name, :parentId)', { name, parentId })).id;
