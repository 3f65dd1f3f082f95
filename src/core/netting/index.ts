export { type Claim, fairShare } from './fairShare';
export {
  type Beside,
  type DatedSlot,
  emptyNeedRunInput,
  type NeedRunInput,
  type NeedRunOutput,
  type NeedState,
  needRun,
  needStates,
  planRules,
  roundings,
} from './needRun';
export { fixedMultiple, netRequirement, triggers } from './netRequirement';
export { balancePeg, type PegBalance, type PeggedDemand } from './peg';
export {
  adviceFor,
  type DatedPlan,
  forThoseWhoWait,
  type LevelPlan,
  minMaxTerm,
  type Plan,
  type PlanFigures,
  type PlanTerm,
  type PlanTermLabel,
  planOf,
} from './plan';
export { free, openQuantity, type PositionParts, position } from './position';
export {
  type Reckoning,
  reckon,
  reckonByHand,
  reckonLot,
  reckonPeg,
  type Step,
  type StepLabel,
  type Term,
  type TermLabel,
} from './reckoning';
export { type OrderRule, roundOrder, silences } from './roundOrder';
export { excessOf, isBelow, shortageOf, surplusOf } from './shortage';
export {
  type AcceptedIntoTrays,
  byHandOfPlan,
  type LevelMade,
  planWithAccepted,
  reckoningOfPlan,
  ruleOfPlan,
  type SlotPlan,
  type SlotStock,
  slotOfPlan,
  slotPlan,
} from './slotPlan';
export { itemDigest, type PegBalanceOf, stateFingerprints, termsDigest } from './stateFingerprint';
export { returns, type Suggestion, suggest } from './suggest';
export { type NeedCause, type NeedWarning, needCauses, needWarnings } from './warnings';
