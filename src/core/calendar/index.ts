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
