export { adviseOrders, type OpenReceipt, type OrderAdvice } from './advice';
export { CONSUME_BACK_DAYS, consumeForecast } from './consumeForecast';
export { type LotForLot, type LotForLotRule, lotForLot } from './lotForLot';
export { type Flow, firstBelow, type ProjectedDay, type ProjectionInput, project, runsBelow } from './project';
export { weekStarts, weekSums } from './weeks';
