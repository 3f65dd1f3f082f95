export {
  addDays,
  addWorkingDays,
  arrivalDate,
  type BusinessDate,
  businessDate,
  coverHorizon,
  dayHorizonReaches,
  daysBetween,
  isDate,
  isWorkingDay,
  type LeadTime,
  startOfDay,
  workingDayFrom,
} from './calendar';
export { type DateFault, parseDate } from './parseDate';
