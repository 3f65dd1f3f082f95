import { ok } from '@/core/result';
import { type Solver, type SplitCost, solveSplit } from '@/core/split';
import { readCompany } from '@/data/repositories/company';
import { readNeedsByIds } from '@/data/repositories/planning';
import { findSplit, putSplitResult } from '@/data/repositories/splits';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, timeOf, todayOf } from '../deps';
import { type OptionAbout, splitProblemOf } from './splitProblem';

/** How far from the best it may be, as a share, before the time is over. */
const GAP = 0.01;

/** An assignment of needs as it was found, with the fingerprints it was found for. */
export type SplitResult = {
  readonly kind: 'found' | 'infeasible' | 'nothing_in_time';
  readonly gap: number;
  readonly inTime: boolean;
  readonly first: SplitCost;
  readonly best: SplitCost | null;
  readonly lines: readonly {
    readonly needId: number;
    readonly fingerprint: string;
    readonly first: OptionAbout;
    readonly best: OptionAbout | null;
  }[];
  /** Needs that nobody can cover. */
  readonly left: readonly number[];
};

/** Solves what was asked for and keeps what was found. Reads, then solves outside of any transaction, then writes. */
export async function solveSplitRun(deps: Deps, splitId: number, solve: Solver): Promise<void> {
  const asked = await readSnapshot(deps.pool, async (tx) => {
    const row = await findSplit(tx, splitId);
    if (!row) return null;
    const company = await readCompany(tx);
    const needs = (await readNeedsByIds(tx, JSON.parse(row.needIds) as number[])).filter((n) => n.state === 'open');
    const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
    return { row, needs, ...(await splitProblemOf(tx, at, company.currency, needs)) };
  });
  if (!asked) return;
  const { problem, about, left } = asked;
  const { first, found } = await solveSplit(problem, solve, { seconds: asked.row.seconds, gap: GAP });
  const prints = new Map(asked.needs.map((n) => [n.id, n.fingerprint]));
  const result: SplitResult = {
    kind: found.kind,
    ...(found.kind === 'found' ? { gap: found.gap, inTime: found.inTime } : { gap: 1, inTime: false }),
    ...{ first: first.cost, best: found.kind === 'found' ? found.cost : null },
    lines: problem.needs.map((n, i) => {
      const of = (at: number | undefined) => about.get(n.options[at ?? -1]?.key ?? '') ?? null;
      return {
        needId: Number(n.key),
        fingerprint: prints.get(Number(n.key)) ?? '',
        first: of(first.assignment[i]) as OptionAbout,
        best: found.kind === 'found' ? of(found.assignment[i]) : null,
      };
    }),
    left,
  };
  await write<void, never>(deps.pool, async (tx) => {
    await putSplitResult(tx, splitId, JSON.stringify(result));
    return ok(undefined);
  });
}
