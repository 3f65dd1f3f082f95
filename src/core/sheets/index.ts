export {
  type Column,
  choiceColumn,
  codeColumn,
  dateColumn,
  decimalColumn,
  incoterms,
  moneyColumn,
  textColumn,
  type Value,
  type Values,
  wholeColumn,
  yesNoColumn,
} from './column';
export { changesOf, defaultsOf, type FieldChange, merged } from './compare';
export { cellDate, dateEvidence, type OrderEvidence, serialDate } from './dates';
export type { CellFault, CodeKind, Conventions, DateOrder, DecimalMark, InTheWay, Reference, RowFault } from './faults';
export { matchHeadings, plainHeading } from './headers';
export { cellNumber, decimalEvidence, type MarkEvidence } from './numbers';
export { type Cell, type Mapping, neutralised, RowReader, readRow, writeRow } from './readRow';
export { weekBits, weekColumn, weekText } from './weekdays';
