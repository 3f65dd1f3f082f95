export {
  type DemandModel,
  type Measured,
  type SimulationInput,
  type SimulationResult,
  type StockRule,
  simulate,
} from './dailySystem';
export { type MinimumMethod, minimumBy, type PlayedCase, playMinimum } from './playMinimum';
export { normalDraw, poissonDraw, randomNumbers } from './random';
