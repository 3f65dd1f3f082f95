import type { Tx } from '../sql';
import { BOOKED } from './orderStates';

export type LastBought = {
  orderId: number;
  number: string;
  orderDate: string;
  currency: string;
  supplier: string;
  packQuantity: string;
  packName: string;
  priceAmount: string | null;
  pricePer: string;
  priceContentNum: number;
  priceContentDen: number;
};

/** Earlier purchases of an item, newest first: approved or sent lines that are not cancelled. */
export const readLastBought = (tx: Tx, itemId: number, limit: number) =>
  tx.rows<LastBought>(
    `SELECT o.id AS orderId, o.number, o.order_date AS orderDate, o.currency, s.name AS supplier, l.pack_quantity AS packQuantity,
            l.pack_name AS packName, l.price_amount AS priceAmount, l.price_per AS pricePer,
            l.price_content_num AS priceContentNum, l.price_content_den AS priceContentDen
       FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
      WHERE l.item_id = :itemId AND o.state IN ${BOOKED} AND l.base_quantity > 0
      ORDER BY o.order_date DESC, o.id DESC LIMIT ${Math.trunc(limit)}`,
    { itemId },
  );

/** How many other orders have a line of the same free description. */
export const readBoughtAsText = async (tx: Tx, description: string, besides: number): Promise<number> =>
  Number(
    (
      await tx.row<{ n: number }>(
        `SELECT COUNT(DISTINCT l.order_id) AS n FROM order_line l JOIN purchase_order o ON o.id = l.order_id
          WHERE l.kind = 'non_stock' AND l.description = :description AND l.order_id <> :besides AND o.state IN ${BOOKED}`,
        { description, besides },
      )
    )?.n ?? 0,
  );

export type BoughtRow = LastBought & {
  itemId: number;
  itemNumber: string;
  name: string;
  packId: number | null;
};

/** Earlier purchases of an item, or from a supplier, newest first. */
export const readBoughtFrom = (
  tx: Tx,
  of: { readonly itemId: number } | { readonly supplierId: number },
  limit: number,
) =>
  tx.rows<BoughtRow>(
    `SELECT l.item_id AS itemId, i.number AS itemNumber, i.name, l.pack_id AS packId, o.id AS orderId, o.number,
            o.order_date AS orderDate, o.currency, s.name AS supplier, l.pack_quantity AS packQuantity, l.pack_name AS packName,
            l.price_amount AS priceAmount, l.price_per AS pricePer, l.price_content_num AS priceContentNum,
            l.price_content_den AS priceContentDen
       FROM order_line l JOIN purchase_order o ON o.id = l.order_id JOIN supplier s ON s.id = o.supplier_id
       JOIN item i ON i.id = l.item_id
      WHERE ${'itemId' in of ? 'l.item_id = :itemId' : 'o.supplier_id = :supplierId'} AND o.state IN ${BOOKED}
        AND l.base_quantity > 0 AND l.unordered = 0
      ORDER BY o.order_date DESC, o.id DESC, l.line_no LIMIT ${Math.trunc(limit)}`,
    of,
  );
