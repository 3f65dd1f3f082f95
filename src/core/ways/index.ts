export { type BreakHint, breakHint } from './breakHint';
export { type Delivery, figuresOf, type NeedForWays, type WayCost, type WayFigures } from './figures';
export { MOST_WAYS, rankWays, usefulQuantities, type Way, type WaySource } from './rankWays';
export { type EarlyBuy, type TopUp, topUp } from './topUp';
