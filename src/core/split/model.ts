import type { Minor } from '@/core/money';

/** One way to cover a need: so much from one supplier, here in time. Amounts in minor units of one currency. */
export type SplitOption = {
  readonly key: string;
  readonly supplier: number;
  /** Goods at the price of that quantity, and everything else that comes with these goods alone (duty, charges by value). */
  readonly goods: Minor;
  readonly more: Minor;
  /** Freight by weight, where the supplier asks for it and its goods do not reach free freight. */
  readonly byWeight: Minor;
};

export type SplitNeed = {
  readonly key: string;
  /** The first is the first choice. */
  readonly options: readonly SplitOption[];
};

export type SplitSupplier = {
  readonly id: number;
  /** Goods that an order has to come to; 0 = none. */
  readonly minimum: Minor;
  /** Once per order: placing it and fixed charges; and fixed freight, unless goods reach `freeFrom`. */
  readonly perOrder: Minor;
  readonly freight: Minor;
  readonly freeFrom: Minor | null;
  /** Goods that go on the same order whatever is decided here. */
  readonly already: Minor;
};

export type SplitProblem = { readonly needs: readonly SplitNeed[]; readonly suppliers: readonly SplitSupplier[] };

/** Which option of each need, by its place among them. */
export type Assignment = readonly number[];

export type SplitCost = {
  readonly goods: Minor;
  readonly more: Minor;
  readonly freight: Minor;
  readonly orders: Minor;
  readonly total: Minor;
  /** Suppliers whose orders stay below their minimum, and by how much. */
  readonly below: readonly { readonly supplier: number; readonly missing: Minor }[];
};

/** What an assignment costs: goods and what comes with them, freight as far as it is not free, and each order once. An order that
 *  goes out anyway (something is on it already) is not counted as placed by this; its freight is, whatever is decided, because what
 *  is decided may make it free.
 *  Source: calculations 6 (needs and suppliers that interact). */
export function splitCost(problem: SplitProblem, assignment: Assignment): SplitCost {
  let [goods, more, freight, orders] = [0, 0, 0, 0];
  const below: { supplier: number; missing: Minor }[] = [];
  const bySupplier = new Map<number, { goods: number; byWeight: number }>();
  for (const [i, n] of problem.needs.entries()) {
    const o = n.options[assignment[i] as number];
    if (!o) throw new RangeError(`need ${n.key} has no option ${assignment[i]}`);
    goods += o.goods;
    more += o.more;
    const own = bySupplier.get(o.supplier) ?? { goods: 0, byWeight: 0 };
    bySupplier.set(o.supplier, { goods: own.goods + o.goods, byWeight: own.byWeight + o.byWeight });
  }
  for (const s of problem.suppliers) {
    const own = bySupplier.get(s.id);
    if (!own && s.already === 0) continue;
    const all = (own?.goods ?? 0) + s.already;
    const free = s.freeFrom !== null && all >= s.freeFrom;
    if (!free) freight += s.freight + (own?.byWeight ?? 0);
    if (!own) continue;
    orders += s.already > 0 ? 0 : s.perOrder;
    if (all < s.minimum) below.push({ supplier: s.id, missing: s.minimum - all });
  }
  return { goods, more, freight, orders, total: goods + more + freight + orders, below };
}

/** The first choice for every need, minimums or not. */
export const firstChoices = (problem: SplitProblem): Assignment => problem.needs.map(() => 0);
