export {
  type ColumnFilter,
  type ColumnFilterFault,
  type ColumnKind,
  type Columns,
  type ColumnValues,
  fitsColumns,
  parseColumnFilter,
} from './columnFilter';
export { isPackWord, type LineReading, lineReadings } from './lineText';
export { beginsWithOneSlip, isOneSlipAway, tailsOf } from './oneSlip';
export { type Findable, plainWords, type SearchIndex, searched, searchIndex } from './wordSearch';
