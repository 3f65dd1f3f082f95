export {
  emptyNeedRunInput,
  type NeedRunInput,
  type NeedRunOutput,
  type NeedState,
  needRun,
  needStates,
  roundings,
} from './needRun';
export { fixedMultiple, netRequirement, triggers } from './netRequirement';
export { free, openQuantity, type PositionParts, position } from './position';
export { type Reckoning, reckon, type Step, type StepLabel, type Term, type TermLabel } from './reckoning';
export { type OrderRule, roundOrder, silences } from './roundOrder';
export { itemDigest, stateFingerprints } from './stateFingerprint';
export { type MinMax, refillLevel, returns, type Suggestion, suggest } from './suggest';
