import type { OrderState } from '@/core/purchase';
import type { Tx } from '../sql';
import { LIVE } from './orderStates';

/** The amount in the company's currency, as decimal text. */
export type BudgetRow = { readonly month: string; readonly categoryId: number | null; readonly amount: string };

/** Budgets of a month. */
export const readBudgets = (tx: Tx, month: string) =>
  tx.rows<BudgetRow>(
    'SELECT month, category_id AS categoryId, amount FROM purchase_budget WHERE month = :month ORDER BY category_id IS NOT NULL, id',
    { month },
  );

export type OrderedRow = {
  readonly categoryId: number;
  readonly currency: string;
  readonly state: OrderState;
  /** What of the line is here, as a share of what is ordered; and its price, in the supplier's currency. */
  readonly base: string;
  readonly received: string;
  readonly cancelled: string;
  readonly priceAmount: string | null;
  readonly pricePer: string;
  readonly priceContentNum: number;
  readonly priceContentDen: number;
  readonly freeOfCharge: number;
  readonly discountPercent: string;
};

/** Lines of items on orders dated in some days, drafts included, with what came of each. */
export const readOrderedBetween = (tx: Tx, from: string, to: string) =>
  tx.rows<OrderedRow>(
    `SELECT i.category_id AS categoryId, o.currency, o.state, l.base_quantity AS base,
            (SELECT COALESCE(SUM(d.received_quantity), 0) FROM delivery_part d WHERE d.order_line_id = l.id) AS received,
            (SELECT COALESCE(SUM(d.cancelled_quantity), 0) FROM delivery_part d WHERE d.order_line_id = l.id) AS cancelled,
            l.price_amount AS priceAmount, l.price_per AS pricePer, l.price_content_num AS priceContentNum,
            l.price_content_den AS priceContentDen, l.free_of_charge AS freeOfCharge,
            l.discount_percent AS discountPercent
       FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN item i ON i.id = l.item_id
      WHERE o.order_date BETWEEN :from AND :to AND (o.state IN ${LIVE} OR o.state = 'closed')`,
    { from, to },
  );
