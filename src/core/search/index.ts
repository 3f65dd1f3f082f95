export { isPackWord, type LineReading, lineReadings } from './lineText';
export { beginsWithOneSlip, isOneSlipAway, tailsOf } from './oneSlip';
export { type Findable, plainWords, type SearchIndex, searched, searchIndex } from './wordSearch';
