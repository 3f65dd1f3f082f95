import type { Tx } from '../sql';

export type FoundItem = { readonly id: number; readonly number: string; readonly name: string };
export type FoundOrder = {
  readonly id: number;
  readonly number: string | null;
  readonly supplier: string;
  readonly state: string;
  readonly orderDate: string;
};

const LIMIT = 7;

/** Items whose number begins with the text or whose name holds it; numbers and beginnings of names first. */
export const findItems = (tx: Tx, text: string) =>
  tx.rows<FoundItem>(
    `SELECT id, number, name FROM item
      WHERE LOCATE(:text, number) = 1 OR LOCATE(:text, name) > 0 OR LOCATE(:text, number) > 0
      ORDER BY LOCATE(:text, number) <> 1, LOCATE(:text, name) <> 1, name, id LIMIT ${LIMIT}`,
    { text },
  );

/** Orders by their number, or of a supplier whose name holds the text; newest first. */
export const findOrders = (tx: Tx, text: string) =>
  tx.rows<FoundOrder>(
    `SELECT o.id, o.number, s.name AS supplier, o.state, o.order_date AS orderDate
       FROM purchase_order o JOIN supplier s ON s.id = o.supplier_id
      WHERE o.state <> 'put_back' AND (LOCATE(:text, o.number) > 0 OR LOCATE(:text, s.name) > 0)
      ORDER BY o.id DESC LIMIT ${LIMIT}`,
    { text },
  );
