export { type CellFault, cellText, readCell } from './cells';
export { checkSetting, type PolicyFault, type PolicyHint, policyHints } from './checks';
export {
  DEFAULT_TARGET_THOUSANDTHS,
  DEFAULT_WINDOW_DAYS,
  type EffectivePolicy,
  effectivePolicy,
  type PolicyLevel,
  type PolicyOrigin,
} from './effective';
export { isPlain, type PlainRow, plainMinMax } from './plainMinMax';
export { inSeason, nextSeasonChange } from './season';
export { type RuleFigures, type SetRule, setByRule } from './setByRule';
export {
  emptySetting,
  fieldsOf,
  isPolicyField,
  kindWords,
  neededFields,
  type PolicyField,
  type PolicyKind,
  type PolicySetting,
  policyFields,
  policyKinds,
  type Refill,
  refills,
  type Season,
  type Trigger,
} from './setting';
export { supplyLoop } from './supplyLoop';
