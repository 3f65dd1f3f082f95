import type { BusinessDate } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type { Quantity } from '@/core/quantity';
import { issue, type LevelValue, receive } from './postToLevel';
import { removeAtValue } from './removeAtValue';

/** One movement of a level as a replay by business date sees it. */
export type LedgerEntry = {
  readonly businessDate: BusinessDate;
  readonly posting: number;
  /** Signed: what came in or went out. */
  readonly quantity: Quantity;
  /** 'average': an issue that costs what the moving average says. 'given': the document says the value (receipt,
   *  reversal, transfer, return, charge). 'adjustment': the effect of an earlier replay, which this one replaces. */
  readonly valued: 'average' | 'given' | 'adjustment';
  /** What the document brought (+) or took (−): value change + variance. Not read for 'average'. */
  readonly value: Minor;
};

const inOrder = (a: LedgerEntry, b: LedgerEntry): number =>
  a.businessDate < b.businessDate ? -1 : a.businessDate > b.businessDate ? 1 : a.posting - b.posting;

/** The level that would be there had everything been posted on its business date. `opening` is the level before the first
 *  entry; `lastCost` what a piece beyond the stock costs until something comes in. */
export function replayByDate(
  opening: LevelValue,
  entries: readonly LedgerEntry[],
  lastCost: LevelValue = { quantity: 0, value: 0 },
): LevelValue {
  let level = opening;
  let last = lastCost;
  for (const e of [...entries].sort(inOrder)) {
    if (e.valued === 'adjustment') continue;
    if (e.valued === 'average') level = issue(level, -e.quantity, last).level;
    else if (e.quantity < 0) level = removeAtValue(level, -e.quantity, -e.value).level;
    else if (e.quantity > 0) {
      level = receive(level, e.quantity, e.value).level;
      last = { quantity: e.quantity, value: e.value };
    } else if (level.quantity > 0) level = { ...level, value: level.value + e.value };
  }
  return level;
}

/** The value-only movement that a back-dated receipt brings, dated today: what the issues since should have cost under a
 *  replay by business date, less what was booked for them, variance included. As what came in is the same both ways, that
 *  is the value booked on the level less the value of the replay. It takes at most the value on hand; the rest is variance.
 *  Value change + variance + cost of the issues = 0.
 *  Source: common practice (retroactive cost adjustment, posted in the open period). */
export function backDatedEffect(booked: LevelValue, replayed: LevelValue): { valueChange: Minor; variance: Minor } {
  const due = replayed.value - booked.value;
  const valueChange = booked.quantity > 0 ? Math.max(due, -Math.max(0, booked.value)) : 0;
  return { valueChange, variance: due - valueChange || 0 };
}
