export {
  addDays,
  addWorkingDays,
  type BusinessDate,
  businessDate,
  daysBetween,
  daysFrom,
  instantOf,
  isDate,
  isWorkingDay,
  startOfDay,
  workingDayFrom,
} from './calendar';
export { type DateFault, parseDate, parseDay } from './parseDate';
export {
  arrivalOf,
  arrivesIfOrdered,
  horizonOf,
  horizonReaches,
  nextSlot,
  orderBy,
  reviewDays,
  type SupplyCalendar,
  slotAfter,
  weekOf,
} from './supplyCalendar';
export {
  countWorkingDays,
  isWorked,
  offsetWorkingDays,
  plainWeek,
  rollTo,
  type WorkCalendar,
  weekdayOf,
} from './workCalendar';
