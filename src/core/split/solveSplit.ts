import { type Assignment, firstChoices, type SplitCost, type SplitProblem, splitCost } from './model';
import { assignmentOf, type Solver, splitProgram } from './program';

/** A split beside the first choice for all. */
export type Split = {
  readonly first: { readonly assignment: Assignment; readonly cost: SplitCost };
  readonly found:
    | {
        readonly kind: 'found';
        readonly assignment: Assignment;
        readonly cost: SplitCost;
        readonly gap: number;
        readonly inTime: boolean;
      }
    /** No assignment keeps every minimum. */
    | { readonly kind: 'infeasible' }
    /** The time was over before one was found. */
    | { readonly kind: 'nothing_in_time' };
};

/** The cheapest assignment of needs to suppliers under minimums, freight and breaks, by a solver that is handed in; costs are reckoned
 *  again from the assignment, in whole minor units, so what is shown is never the solver's rounding.
 *  Errors: throws RangeError for a need without an option. */
export async function solveSplit(
  problem: SplitProblem,
  solve: Solver,
  limits: { readonly seconds: number; readonly gap: number },
): Promise<Split> {
  for (const n of problem.needs) if (n.options.length === 0) throw new RangeError(`need ${n.key} has no option`);
  const assignment = firstChoices(problem);
  const first = { assignment, cost: splitCost(problem, assignment) };
  if (problem.needs.length === 0) return { first, found: { kind: 'found', ...first, gap: 0, inTime: true } };
  const solved = await solve(splitProgram(problem), limits);
  if (solved.kind !== 'solved') return { first, found: solved };
  const best = assignmentOf(problem, solved.values);
  const { gap, inTime } = solved;
  return { first, found: { kind: 'found', assignment: best, cost: splitCost(problem, best), gap, inTime } };
}
