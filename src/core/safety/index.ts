export { type Advice, type AdviceInput, type AdviceMethod, adviseMinimum, SLOW_BELOW } from './adviseMinimum';
export {
  leadTimeDemand,
  type MeanSd,
  type SafetyStock,
  type ServiceTarget,
  safetyStock,
  undershoot,
} from './safetyStock';
