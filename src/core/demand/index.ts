export { type UseCount, usedBetweenCounts } from './countedUse';
export { coverTenths, figuresOfUse, MEASURED_DAYS, meanDailyUse, type UseDay, type UseFigures } from './dailyUse';
