export { chargeSentence } from './chargeSentence';
export { type DutyRate, dutyRateOf } from './dutyRate';
export { type EstimatedCharge, type FreightTerms, minorOf, type UsualCharge, usualCharges, weightOf } from './estimate';
export { landedCost, landedPerUnit, percentOf } from './landedCost';
export {
  type ChargeDifference,
  chargeDifferences,
  chargesToSpread,
  chargeText,
  effectiveCharges,
  type OrderCharge,
  standingCharges,
} from './orderCharges';
export type { Charge, ChargeAmount, LandedCost, LandedFault, LandedInput, LandedLine, Spread } from './types';
