import { minorOf } from '@/core/landed';
import { isDrafted, netOfLine } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { type OrderedRow, readBudgets, readOrderedBetween } from '@/data/repositories/budgets';
import { readCategoryTree } from '@/data/repositories/catalogue';
import type { Tx } from '@/data/sql';
import { pathOf } from '../catalogue/findItems';
import type { Exchange } from '../cost/exchange';
import { someOf } from './pricing';

/** A budget of a month against what is ordered of it, in minor units of the company's currency, without tax. */
export type Spending = {
  readonly month: string;
  /** Null = everything. */
  readonly category: string | null;
  readonly budget: number;
  /** Goods of approved orders that came, and those still to come. */
  readonly spent: number;
  readonly committed: number;
  /** In drafts, and in the trays. */
  readonly drafts: number;
  readonly trays: number;
  /** What is left once drafts and trays are ordered; below 0 it is too much. */
  readonly left: number;
};

type TrayNet = { readonly categoryId: number; readonly net: number };

/** The budgets of the month of a day, each with what was ordered in that month by order date. A category counts those below it.
 *  What has no price or no rate counts 0. Source: calculations 10 (budget counts orders by order date, without tax). */
export async function spendingOf(
  tx: Tx,
  today: string,
  currency: string,
  exchange: Exchange,
  trays: readonly TrayNet[],
): Promise<Spending[]> {
  const month = `${today.slice(0, 7)}-01`;
  const budgets = await readBudgets(tx, month);
  if (budgets.length === 0) return [];
  const tree = new Map((await readCategoryTree(tx)).map((c) => [c.id, c]));
  const lines = (await readOrderedBetween(tx, month, `${today.slice(0, 7)}-31`)).map((r) => ({
    ...{ categoryId: r.categoryId, ...valuesOf(r, exchange) },
  }));
  const isBelow = (id: number | null, of: number | null): boolean =>
    of === null || (id !== null && (id === of || isBelow(tree.get(id)?.parentId ?? null, of)));
  return budgets.map(({ categoryId, amount }) => {
    const budget = minorOf(amount, currency);
    const own = lines.filter((l) => isBelow(l.categoryId, categoryId));
    const sum = (of: 'spent' | 'committed' | 'drafts') => own.reduce((a, l) => a + l[of], 0);
    const inTrays = trays.filter((t) => isBelow(t.categoryId, categoryId)).reduce((a, t) => a + t.net, 0);
    const [spent, committed, drafts] = [sum('spent'), sum('committed'), sum('drafts')];
    return {
      ...{ month, category: categoryId === null ? null : pathOf(tree, categoryId), budget },
      ...{ spent, committed, drafts, trays: inTrays, left: budget - spent - committed - drafts - inTrays },
    };
  });
}

function valuesOf(r: OrderedRow, exchange: Exchange) {
  const worth = (base: number) => exchange.toBase(netOfLine(someOf(r, base), r.currency), r.currency) ?? 0;
  const [base, came, cancelled] = [fromDecimal(r.base), fromDecimal(r.received), fromDecimal(r.cancelled)];
  const open = Math.max(0, base - came - cancelled);
  return isDrafted(r.state)
    ? { spent: 0, committed: 0, drafts: worth(open) }
    : { spent: worth(Math.max(0, Math.min(came, base))), committed: worth(open), drafts: 0 };
}
