import fc from 'fast-check';
import { type Program, type Solver, type SplitProblem, solveSplit, splitCost } from '@/core/split';
import { handlers } from '@/jobs/handlers';
import { mipSolver } from '@/jobs/mipSolver';
import { workOnce } from '@/jobs/worker';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { readSplit } from '@/services/planning/readSplit';
import { markChanged } from '@/services/planning/recompute';
import { solveSplitRun } from '@/services/planning/splitRun';
import { startSplit } from '@/services/planning/startSplit';
import { takeSplit } from '@/services/planning/takeSplit';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, needsOf, otto, req, violations } from './support';

// Needs assigned to suppliers together. Source: calculations 6; the solver is HiGHS (Huangfu and Hall 2018), checked here against
// looking at every assignment.
let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
});
afterAll(() => books.close());

const limits = { seconds: 10, gap: 0 };
const clear = async () =>
  (await needsOf(books, mira)).needs
    .filter((n) => n.warnings.length === 0 && n.sentFrom === null && n.boughtFor === null)
    .sort((a, b) => a.id - b.id);
const split = async (needIds: readonly number[]) => must(await startSplit(books.deps, mira, req({ needIds }))).splitId;
const view = async (id: number) => must(await readSplit(books.deps, mira, id));

test('the solver finds what looking at every assignment finds', async () => {
  const best = (problem: SplitProblem): number | null => {
    let found: number | null = null;
    const look = (at: number, chosen: number[]) => {
      const need = problem.needs[at];
      if (!need) {
        const { total, below } = splitCost(problem, chosen);
        if (below.length === 0 && (found === null || total < found)) found = total;
        return;
      }
      for (const k of need.options.keys()) look(at + 1, [...chosen, k]);
    };
    look(0, []);
    return found;
  };
  const supplier = fc.record({
    minimum: fc.constantFrom(0, 0, 9_000, 20_000),
    perOrder: fc.constantFrom(0, 500),
    freight: fc.constantFrom(0, 1_200, 3_000),
    freeFrom: fc.constantFrom(null, 9_000, 16_000),
    already: fc.constantFrom(0, 0, 5_000),
  });
  const option = fc.record({
    at: fc.nat(),
    goods: fc.integer({ min: 500, max: 9_000 }),
    more: fc.constantFrom(0, 250),
    byWeight: fc.constantFrom(0, 300),
  });
  const problems = fc
    .record({
      suppliers: fc.array(supplier, { minLength: 2, maxLength: 4 }),
      needs: fc.array(fc.array(option, { minLength: 1, maxLength: 4 }), { minLength: 3, maxLength: 6 }),
    })
    .map(({ suppliers, needs }) => ({
      suppliers: suppliers.map((s, id) => ({ id, ...s })),
      needs: needs.map((options, i) => ({
        key: `n${i}`,
        options: options.map(({ at, ...o }, k) => ({ key: `n${i}/${k}`, supplier: at % suppliers.length, ...o })),
      })),
    }));
  await fc.assert(
    fc.asyncProperty(problems, async (problem) => {
      const known = best(problem);
      const { found } = await solveSplit(problem, mipSolver, limits);
      if (known === null) expect(found).toEqual({ kind: 'infeasible' });
      else expect(found).toMatchObject({ kind: 'found', inTime: true, cost: { total: known, below: [] } });
    }),
    { numRuns: 12 },
  );
});

test('asked for, solved by the worker, shown beside the first choice for all, taken over in one step and undone as one', async () => {
  const needs = await clear();
  const id = await split(needs.map((n) => n.id));
  expect(await view(id)).toMatchObject({ state: 'running', lines: [] });
  expect(await readSplit(books.deps, otto, id)).toMatchObject({ error: { kind: 'not_found' } });
  const only = { 'split-needs': handlers['split-needs'] };
  expect(await workOnce({ id: 'w1', deps: books.deps, kinds: only })).toMatchObject({ kind: 'split-needs' });
  const found = await view(id);
  // Thirty small needs do not reach every supplier's minimum by themselves.
  expect(['found', 'infeasible']).toContain(found.state);
  expect(found.lines).toHaveLength(needs.length);
  if (found.state === 'infeasible') {
    await books.owner.query('UPDATE supplier SET order_minimum_minor = 0');
    const again = await split(needs.map((n) => n.id));
    await workOnce({ id: 'w1', deps: books.deps, kinds: only });
    return taken(again, needs.length);
  }
  return taken(id, needs.length);
});

async function taken(id: number, count: number) {
  const found = await view(id);
  expect(found).toMatchObject({ state: 'found', taken: false, left: 0 });
  expect(found.gap).toBeLessThanOrEqual(0.01);
  expect(found.best?.total).toBeLessThanOrEqual(found.first?.total ?? 0);
  const request = req({ splitId: id });
  expect(must(await takeSplit(books.deps, mira, request)).taken).toHaveLength(count);
  expect(await takeSplit(books.deps, mira, req({ splitId: id }))).toMatchObject({
    error: { kind: 'changed_meanwhile' },
  });
  const lines = await books.rows<{ needId: number; sourceId: number }>(
    "SELECT d.need_id AS needId, t.source_id AS sourceId FROM tray_line t JOIN decision d ON d.id = t.decision_id WHERE t.state = 'in_tray'",
  );
  expect(lines).toHaveLength(count);
  must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
  expect(await clear()).toHaveLength(count);
}

test('what changed meanwhile is left as it is', async () => {
  await books.owner.query('UPDATE supplier SET order_minimum_minor = 0');
  const [a, b, c] = await clear();
  if (!a || !b || !c) throw new Error('too few needs');
  const id = await split([a.id, b.id, c.id]);
  await solveSplitRun(books.deps, id, mipSolver);
  const packs = String(a.packs / 1e6);
  must(await acceptNeed(books.deps, otto, req({ needId: a.id, fingerprint: a.fingerprint, packs })));
  expect((await view(id)).lines.map((l) => l.changed)).toEqual([true, false, false]);
  expect(must(await takeSplit(books.deps, mira, req({ splitId: id })))).toEqual({ taken: [b.id, c.id], changed: 1 });
});

test('what is decided before it is solved is left out of the sums', async () => {
  await books.owner.query('UPDATE supplier SET order_minimum_minor = 0');
  const [a, b] = await clear();
  if (!a || !b) throw new Error('too few needs');
  const id = await split([a.id, b.id]);
  const packs = String(a.packs / 1e6);
  must(await acceptNeed(books.deps, otto, req({ needId: a.id, fingerprint: a.fingerprint, packs })));
  await solveSplitRun(books.deps, id, mipSolver);
  expect((await view(id)).lines.map((l) => l.needId)).toEqual([b.id]);
});

test('no solution, and none in time, are states of their own; nothing can be taken over then', async () => {
  const [a] = await clear();
  const of = async (solve: Solver) => {
    const id = await split([a?.id ?? 0]);
    await solveSplitRun(books.deps, id, solve);
    return id;
  };
  for (const kind of ['infeasible', 'nothing_in_time'] as const) {
    const id = await of(async (_: Program) => ({ kind }));
    expect(await view(id)).toMatchObject({ state: kind, best: null });
    expect(await takeSplit(books.deps, mira, req({ splitId: id }))).toMatchObject({ error: { kind: 'not_found' } });
  }
  const late = await of(async (p) => ({
    kind: 'solved',
    values: p.cost.map((_, i) => (i === 0 ? 1 : 0)),
    gap: 0.2,
    inTime: false,
  }));
  expect(await view(late)).toMatchObject({ state: 'found', gap: 0.2, inTime: false });
});
