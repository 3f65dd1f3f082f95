export { type LotEntry, type LotFault, parseLots, parseSerials } from './parseLots';
export { type CostedSerial, costOfSerials, costPerSerial } from './serialCost';
export { areDyeLots, type LotStock, type Taken, takeFromLots, wouldMix } from './takeFromLots';
