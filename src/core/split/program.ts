import type { Assignment, SplitProblem } from './model';

/** A mixed-integer program: minimise cost · x under rows, every x in [0, upper], those of `whole` whole numbers. */
export type Program = {
  readonly cost: readonly number[];
  readonly upper: readonly number[];
  readonly whole: readonly boolean[];
  readonly rows: readonly {
    readonly at: readonly number[];
    readonly by: readonly number[];
    readonly least: number;
    readonly most: number;
  }[];
};

/** What a solver makes of a program. `gap`: how far its best is from the bound it has proved, as a share; 0 when it is proved
 *  to be the best. */
export type Solved =
  | { readonly kind: 'solved'; readonly values: readonly number[]; readonly gap: number; readonly inTime: boolean }
  | { readonly kind: 'infeasible' }
  | { readonly kind: 'nothing_in_time' };

export type Solver = (program: Program, limits: { readonly seconds: number; readonly gap: number }) => Promise<Solved>;

const FREE = Number.POSITIVE_INFINITY;

/** The program of a split: one variable for each option of a need; for each supplier whether it gets an order, whether that reaches
 *  free freight, and what freight by weight comes to. Amounts are in whole units of money, not minor ones, which keeps the numbers of the
 *  program of like size.
 *  - of each need exactly one option;
 *  - an option only where its supplier gets an order;
 *  - an order comes to its minimum;
 *  - freight is free only where goods reach the sum for it, else it is paid, by weight as well.
 *  Source: standard fixed-charge formulation (facility location; e.g. Wolsey, Integer Programming, ch. 1, from memory). */
export function splitProgram({ needs, suppliers }: SplitProblem): Program {
  const [cost, upper, whole]: [number[], number[], boolean[]] = [[], [], []];
  const rows: Program['rows'][number][] = [];
  const variable = (price: number, most: number, integer: boolean): number => {
    cost.push(price);
    upper.push(most);
    whole.push(integer);
    return cost.length - 1;
  };
  const row = (terms: readonly (readonly [number, number])[], least: number, most: number) =>
    rows.push({ at: terms.map(([x]) => x), by: terms.map(([, q]) => q), least, most });
  const units = (minor: number) => minor / 100;
  const options = needs.map((n) => n.options.map((o) => variable(units(o.goods + o.more), 1, true)));
  for (const own of options)
    row(
      own.map((x) => [x, 1]),
      1,
      1,
    );
  for (const s of suppliers) {
    const own = needs.flatMap((n, i) =>
      n.options.flatMap((o, k) => (o.supplier === s.id ? [{ x: options[i]?.[k] as number, o }] : [])),
    );
    if (own.length === 0) continue;
    // What goes out anyway is paid anyway.
    const order = variable(s.already > 0 ? 0 : units(s.perOrder + s.freight), 1, true);
    for (const { x } of own)
      row(
        [
          [x, 1],
          [order, -1],
        ],
        -FREE,
        0,
      );
    const goods = own.map(({ x, o }) => [x, units(o.goods)] as const);
    if (s.minimum > s.already) row([...goods, [order, -units(s.minimum - s.already)]], 0, FREE);
    const byWeight = own.filter(({ o }) => o.byWeight > 0).map(({ x, o }) => [x, units(o.byWeight)] as const);
    if (s.freeFrom === null || (s.freight === 0 && byWeight.length === 0)) {
      for (const { x, o } of own) cost[x] = (cost[x] as number) + units(o.byWeight);
      continue;
    }
    const free = variable(-units(s.freight), 1, true);
    if (s.already === 0)
      row(
        [
          [free, 1],
          [order, -1],
        ],
        -FREE,
        0,
      );
    row([...goods, [free, -units(Math.max(0, s.freeFrom - s.already))]], 0, FREE);
    if (byWeight.length > 0) {
      const all = byWeight.reduce((a, [, q]) => a + q, 0);
      const weight = variable(1, FREE, false);
      row([[weight, 1], ...byWeight.map(([x, q]) => [x, -q] as const), [free, all]], 0, FREE);
    }
  }
  return { cost, upper, whole, rows };
}

/** The assignment that a solution of the program stands for: of each need the option nearest to one. */
export function assignmentOf({ needs }: SplitProblem, values: readonly number[]): Assignment {
  let at = 0;
  return needs.map((n) => {
    const own = n.options.map((_, k) => values[at + k] ?? 0);
    at += n.options.length;
    return own.indexOf(Math.max(...own));
  });
}
