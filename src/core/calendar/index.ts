export {
  addDays,
  addWorkingDays,
  arrivalDate,
  type BusinessDate,
  businessDate,
  coverHorizon,
  daysBetween,
  isDate,
  isWorkingDay,
  type LeadTime,
  workingDayFrom,
} from './calendar';
export { type DateFault, parseDate } from './parseDate';
