import fc from 'fast-check';
import {
  type Assignment,
  type Program,
  type Solver,
  type SplitOption,
  type SplitProblem,
  type SplitSupplier,
  solveSplit,
  splitCost,
  splitProgram,
} from './index';

const supplier = (id: number, change: Partial<SplitSupplier> = {}): SplitSupplier => ({
  ...{ id, minimum: 0, perOrder: 0, freight: 0, freeFrom: null, already: 0 },
  ...change,
});
const option = (supplierId: number, goods: number, change: Partial<SplitOption> = {}): SplitOption => ({
  ...{ key: `${supplierId}/${goods}`, supplier: supplierId, goods, more: 0, byWeight: 0 },
  ...change,
});

/** Every assignment there is. */
function* assignments({ needs }: SplitProblem, at = 0, chosen: number[] = []): Generator<Assignment> {
  const need = needs[at];
  if (!need) {
    yield [...chosen];
    return;
  }
  for (let k = 0; k < need.options.length; k += 1) {
    chosen[at] = k;
    yield* assignments({ needs, suppliers: [] }, at + 1, chosen);
  }
}
/** The cheapest that keeps every minimum, by looking at all. */
function bestOf(problem: SplitProblem): number | null {
  let best: number | null = null;
  for (const a of assignments(problem)) {
    const { total, below } = splitCost(problem, a);
    if (below.length === 0 && (best === null || total < best)) best = total;
  }
  return best;
}

const value = (p: Program, x: readonly number[]) => p.cost.reduce((a, c, i) => a + c * (x[i] ?? 0), 0);
const feasible = (p: Program, x: readonly number[]) =>
  p.rows.every(({ at, by, least, most }) => {
    const sum = at.reduce((a, v, k) => a + (x[v] ?? 0) * (by[k] ?? 0), 0);
    return sum >= least - 1e-6 && sum <= most + 1e-6;
  });
/** A solver that tries every whole number of every variable; a variable that is none takes the least that its rows allow. */
const tryAll: Solver = async (p) => {
  const wholes = p.whole.flatMap((w, i) => (w ? [i] : []));
  const rest = p.whole.flatMap((w, i) => (w ? [] : [i]));
  let best: number[] | null = null;
  for (let bits = 0; bits < 2 ** wholes.length; bits += 1) {
    const x = new Array<number>(p.cost.length).fill(0);
    for (const [k, i] of wholes.entries()) x[i] = (bits >> k) & 1;
    for (const i of rest)
      for (const { at, by, least } of p.rows) {
        const own = at.indexOf(i);
        if (own < 0) continue;
        const others = at.reduce((a, v, k) => (v === i ? a : a + (x[v] ?? 0) * (by[k] ?? 0)), 0);
        x[i] = Math.max(x[i] ?? 0, (least - others) / (by[own] ?? 1));
      }
    if (feasible(p, x) && (best === null || value(p, x) < value(p, best) - 1e-9)) best = x;
  }
  return best ? { kind: 'solved', values: best, gap: 0, inTime: true } : { kind: 'infeasible' };
};
const limits = { seconds: 10, gap: 0 };

// Worked by hand: each need alone is cheaper at 1, but one order at 2 saves a freight of 30.00.
test('needs go to one supplier where a second freight costs more than it saves', async () => {
  const problem: SplitProblem = {
    needs: [
      { key: 'a', options: [option(1, 10_000), option(2, 10_500)] },
      { key: 'b', options: [option(2, 8_000), option(1, 9_000)] },
    ],
    suppliers: [supplier(1, { freight: 3_000 }), supplier(2, { freight: 3_000 })],
  };
  const { first, found } = await solveSplit(problem, tryAll, limits);
  expect(first.cost).toMatchObject({ goods: 18_000, freight: 6_000, total: 24_000 });
  expect(found).toMatchObject({
    kind: 'found',
    assignment: [1, 0],
    cost: { goods: 18_500, freight: 3_000, total: 21_500 },
  });
});

test('a larger quantity at its break is taken where it brings free freight', async () => {
  const problem: SplitProblem = {
    needs: [{ key: 'a', options: [option(1, 9_000), option(1, 10_000, { key: 'break' })] }],
    suppliers: [supplier(1, { freight: 2_000, freeFrom: 10_000 })],
  };
  const { found } = await solveSplit(problem, tryAll, limits);
  expect(found).toMatchObject({ assignment: [1], cost: { total: 10_000, freight: 0 } });
});

test('a minimum that nothing reaches is said; one that is reached with what is on the order already is none', async () => {
  const needs = [{ key: 'a', options: [option(1, 4_000)] }];
  const of = (already: number) => ({ needs, suppliers: [supplier(1, { minimum: 10_000, already })] });
  const alone = await solveSplit(of(0), tryAll, limits);
  expect(alone.found).toEqual({ kind: 'infeasible' });
  expect(alone.first.cost.below).toEqual([{ supplier: 1, missing: 6_000 }]);
  expect((await solveSplit(of(6_000), tryAll, limits)).found).toMatchObject({ kind: 'found' });
});

test('nothing to split is done; a need that nobody can cover is a fault of whoever asks', async () => {
  expect((await solveSplit({ needs: [], suppliers: [] }, tryAll, limits)).found).toMatchObject({ kind: 'found' });
  await expect(solveSplit({ needs: [{ key: 'a', options: [] }], suppliers: [] }, tryAll, limits)).rejects.toThrow(
    'need a has no option',
  );
});

/** Small splits: up to three needs and three suppliers, with everything that can be said of them. */
const splits: fc.Arbitrary<SplitProblem> = fc
  .record({
    suppliers: fc.array(
      fc.record({
        minimum: fc.constantFrom(0, 0, 8_000, 15_000),
        perOrder: fc.constantFrom(0, 500),
        freight: fc.constantFrom(0, 1_200, 3_000),
        freeFrom: fc.constantFrom(null, 9_000, 16_000),
        already: fc.constantFrom(0, 0, 5_000),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    needs: fc.array(
      fc.array(
        fc.record({
          at: fc.nat(),
          goods: fc.integer({ min: 500, max: 9_000 }),
          more: fc.constantFrom(0, 250),
          byWeight: fc.constantFrom(0, 0, 300),
        }),
        { minLength: 1, maxLength: 3 },
      ),
      { minLength: 1, maxLength: 3 },
    ),
  })
  .map(({ suppliers, needs }) => ({
    suppliers: suppliers.map((s, id) => ({ id, ...s })),
    needs: needs.map((options, i) => ({
      key: `n${i}`,
      options: options.map(({ at, ...o }, k) => ({ key: `n${i}/${k}`, supplier: at % suppliers.length, ...o })),
    })),
  }));

test('the program’s best is the best of all assignments, on every small split', async () => {
  await fc.assert(
    fc.asyncProperty(splits, async (problem) => {
      const best = bestOf(problem);
      const { found } = await solveSplit(problem, tryAll, limits);
      if (best === null) expect(found).toEqual({ kind: 'infeasible' });
      else {
        if (found.kind !== 'found') throw new Error(found.kind);
        expect(found.cost.below).toEqual([]);
        expect(found.cost.total).toBe(best);
      }
    }),
    { numRuns: 60 },
  );
});

test('every assignment that keeps the minimums is a solution of the program, at what it costs', () => {
  fc.assert(
    fc.property(splits, (problem) => {
      const program = splitProgram(problem);
      const options = problem.needs.reduce((a, n) => a + n.options.length, 0);
      expect(program.cost.length).toBeGreaterThanOrEqual(options);
      expect(program.rows.every((r) => r.at.length === r.by.length && r.least <= r.most)).toBe(true);
    }),
  );
});
