import type { Tx } from '../sql';

export type KnownCost = {
  readonly itemId: number;
  readonly standardCost: string | null;
  /** What the last receipt that was not reversed was worth, and how much came; null when nothing has come yet. */
  readonly lastValue: number | null;
  readonly lastQuantity: string | null;
  readonly lastOn: string | null;
};

/** Standard cost and last receipt of items, in the company's currency. */
export const readKnownCosts = (tx: Tx, itemIds: readonly number[]) =>
  tx.rowsOf<KnownCost>(
    `SELECT i.id AS itemId, i.standard_cost AS standardCost, x.value_minor AS lastValue, x.base_quantity AS lastQuantity,
            r.business_date AS lastOn
       FROM item i
       LEFT JOIN goods_receipt_line x ON x.id = (
         SELECT MAX(y.id) FROM goods_receipt_line y
          WHERE y.item_id = i.id AND NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = y.receipt_id))
       LEFT JOIN goods_receipt r ON r.id = x.receipt_id
      WHERE i.id IN (?)`,
    itemIds,
  );
