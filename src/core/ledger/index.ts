export { backDatedEffect, type LedgerEntry, replayByDate } from './backDated';
export { closings } from './closings';
export { type Passage, spreadLateCharge, stillThere } from './lateCharge';
export { issue, type LevelValue, type Posting, receive } from './postToLevel';
export { removeAtValue } from './removeAtValue';
