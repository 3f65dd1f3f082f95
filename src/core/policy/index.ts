export {
  checkMinMax,
  type EffectivePolicy,
  effectivePolicy,
  type PolicyFault,
  type PolicyKind,
  type PolicyOrigin,
  type PolicySetting,
  type Refill,
  type Trigger,
} from './policy';
