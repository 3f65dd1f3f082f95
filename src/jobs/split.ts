import { solveSplitRun } from '@/services/planning/splitRun';
import type { Handler } from './handler';
import { mipSolver } from './mipSolver';

/** Assigns needs to suppliers together. The solver has a thread of its own, so that the lease of this work is renewed meanwhile. */
export const splitNeeds: Handler = async (deps, { input, step }) => {
  await step({ done: 0, total: 1, resumeAt: null });
  await solveSplitRun(deps, Number((input as { split: string }).split), mipSolver);
  await step({ done: 1, total: 1, resumeAt: null });
};
