export { type LotEntry, type LotFault, parseLots, parseSerials } from './parseLots';
export { areDyeLots, type LotStock, type Taken, takeFromLots, wouldMix } from './takeFromLots';
