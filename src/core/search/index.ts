export { beginsWithOneSlip, isOneSlipAway, tailsOf } from './oneSlip';
export { type Findable, plainWords, type SearchIndex, searched, searchIndex } from './wordSearch';
