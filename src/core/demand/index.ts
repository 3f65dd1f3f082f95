export { coverTenths, MEASURED_DAYS, meanDailyUse, type UseDay } from './dailyUse';
