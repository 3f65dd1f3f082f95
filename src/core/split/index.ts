export {
  type Assignment,
  firstChoices,
  type SplitCost,
  type SplitNeed,
  type SplitOption,
  type SplitProblem,
  type SplitSupplier,
  splitCost,
} from './model';
export { assignmentOf, type Program, type Solved, type Solver, splitProgram } from './program';
export { type Split, solveSplit } from './solveSplit';
