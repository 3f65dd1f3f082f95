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
export {
  countWorkingDays,
  isWorked,
  offsetWorkingDays,
  plainWeek,
  rollTo,
  type WorkCalendar,
  weekdayOf,
} from './workCalendar';
