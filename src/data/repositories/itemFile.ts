import type { Completeness } from '@/core/catalogue';
import type { SetPrice } from '@/core/selling';
import type { Tx } from '../sql';

/** What tells whether something is missing of an item, and the pack it is usually sold in. */
export async function readCompleteness(tx: Tx, itemId: number): Promise<Completeness & { sellPackId: number | null }> {
  const row = await tx.row<{
    category: string;
    sources: number;
    priced: number;
    standardCost: string | null;
    policies: number;
    salePrice: string | null;
    barcodes: number;
    components: number;
    stockKept: number;
    purpose: Completeness['purpose'];
    sellPackId: number | null;
  }>(
    `SELECT c.name AS category, i.standard_cost AS standardCost, i.sale_price AS salePrice, i.stock_kept AS stockKept, i.purpose,
            i.usual_sell_pack_id AS sellPackId,
            (SELECT COUNT(*) FROM source s WHERE s.item_id = i.id) AS sources,
            (SELECT COUNT(DISTINCT s.id) FROM source s JOIN price p ON p.source_id = s.id WHERE s.item_id = i.id) AS priced,
            (SELECT COUNT(*) FROM policy p WHERE p.item_id = i.id) AS policies,
            (SELECT COUNT(*) FROM barcode b WHERE b.item_id = i.id) AS barcodes,
            (SELECT COUNT(*) FROM kit_component k WHERE k.kit_id = i.id) AS components
       FROM item i JOIN category c ON c.id = i.category_id WHERE i.id = :itemId`,
    { itemId },
  );
  if (!row) throw new Error(`item ${itemId} is not there`);
  return {
    categoryNamed: row.category !== 'Unsorted',
    sources: Number(row.sources),
    pricedSources: Number(row.priced),
    standardCost: row.standardCost,
    policies: Number(row.policies),
    salePrice: row.salePrice,
    barcodes: Number(row.barcodes),
    components: Number(row.components),
    stockKept: row.stockKept === 1,
    purpose: row.purpose,
    sellPackId: row.sellPackId,
  };
}

/** Prices to sell at that are set: the item's own per base unit, and those of packs and places. */
export async function readSetPrices(tx: Tx, itemId: number): Promise<SetPrice[]> {
  const rows = await tx.rows<Omit<SetPrice, 'withTax'> & { withTax: number }>(
    // A bare NULL would make text of the numbers below it.
    `SELECT CAST(NULL AS UNSIGNED) AS packId, CAST(NULL AS UNSIGNED) AS locationId,
            TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM sale_price)) AS amount, sale_with_tax AS withTax,
            TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM sale_tax_rate)) AS taxRate
       FROM item WHERE id = :itemId AND sale_price IS NOT NULL
     UNION ALL
     SELECT pack_id, location_id, TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM amount)), with_tax,
            TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM tax_rate))
       FROM sale_price WHERE item_id = :itemId`,
    { itemId },
  );
  return rows.map((r) => ({ ...r, withTax: r.withTax === 1 }));
}

export const readUserName = async (tx: Tx, id: number): Promise<string | null> =>
  (await tx.row<{ name: string }>('SELECT name FROM app_user WHERE id = :id', { id }))?.name ?? null;

export const findItemByNumber = (tx: Tx, number: string) =>
  tx.row<{ id: number }>('SELECT id FROM item WHERE number = :number', { number });

export const setToComplete = (tx: Tx, id: number, is: boolean) =>
  tx.run(`UPDATE item SET to_complete = ${is ? 1 : 0}, version = version + 1 WHERE id = :id`, { id });

/** Orders of an item, newest first. */
export const readItemOrders = (tx: Tx, itemId: number, limit: number) =>
  tx.rows<{
    at: string;
    who: string;
    orderId: number;
    number: string | null;
    supplier: string;
    packs: string;
    packName: string;
  }>(
    `SELECT o.created_at AS at, u.name AS who, o.id AS orderId, o.number, s.name AS supplier, l.pack_quantity AS packs,
            l.pack_name AS packName
       FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
       JOIN app_user u ON u.id = o.created_by
      WHERE l.item_id = :itemId AND o.state <> 'put_back' AND l.base_quantity > 0 AND l.unordered = 0
      ORDER BY o.id DESC LIMIT ${Math.trunc(limit)}`,
    { itemId },
  );

/** Decisions about the needs of an item, newest first. */
export const readItemDecisions = (tx: Tx, itemId: number, limit: number) =>
  tx.rows<{
    at: string;
    who: string;
    kind: 'accept' | 'take_back';
    locationId: number;
    packs: string;
    supplier: string | null;
  }>(
    `SELECT d.decided_at AS at, u.name AS who, d.kind, n.location_id AS locationId, d.pack_quantity AS packs, p.name AS supplier
       FROM decision d JOIN need n ON n.id = d.need_id JOIN app_user u ON u.id = d.user_id
       LEFT JOIN source s ON s.id = d.source_id LEFT JOIN supplier p ON p.id = s.supplier_id
      WHERE n.item_id = :itemId ORDER BY d.id DESC LIMIT ${Math.trunc(limit)}`,
    { itemId },
  );

export type FamilyMember = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly family: string;
  readonly option1: string;
  readonly option2: string;
  readonly value1: string;
  readonly value2: string;
};

/** The members of the family that an item is of, in the order of their numbers; none when it is of none. Stopped ones are left out. */
export const readFamilyOf = (tx: Tx, itemId: number) =>
  tx.rows<FamilyMember>(
    `SELECT m.id AS itemId, m.number, m.name, f.name AS family, f.option_1 AS option1, f.option_2 AS option2,
            m.option_1 AS value1, m.option_2 AS value2
       FROM item i JOIN item_family f ON f.id = i.family_id JOIN item m ON m.family_id = f.id
      WHERE i.id = :itemId AND m.status <> 'stopped' ORDER BY m.number`,
    { itemId },
  );
