import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type CountLine, type CountStep, checkCountOpen, differenceOf, stepOf } from '@/core/stock';
import { type CountLineRow, type CountRow, lockCount, readRecountLimits } from '@/data/repositories/counts';
import { readLevels } from '@/data/repositories/levels';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { valueOfFound } from './valueOfFound';

/** Locks a count that is still open and that the person may count. Errors: not_found, forbidden, count_ended. */
export async function openCount(tx: Tx, actor: Actor, countId: number): Promise<Result<CountRow, Failure>> {
  const count = await lockCount(tx, countId);
  if (!count) return err({ kind: 'not_found', what: 'count' });
  const here = may(actor, 'stock.count', { locationIds: [count.locationId] });
  if (!here.ok) return here;
  const open = checkCountOpen(count.state);
  return open.ok ? ok(count) : open;
}

export const figuresOf = (l: CountLineRow): CountLine => {
  const figure = (found: string | null, expected: string | null) =>
    found === null ? null : { found: fromDecimal(found), expected: fromDecimal(expected ?? '0') };
  return { first: figure(l.counted, l.countedExpected), second: figure(l.again, l.againExpected) };
};

export type JudgedLine = {
  readonly line: CountLineRow;
  readonly difference: Quantity | null;
  /** Of the difference, at the average there; with its sign. Minor units. */
  readonly worth: number;
  readonly step: CountStep;
};

/** What each line of a count differs by, what that is worth and whether it has to be counted again. */
export async function judgeLines(tx: Tx, locationId: number, lines: readonly CountLineRow[]): Promise<JudgedLine[]> {
  const limits = await readRecountLimits(tx);
  const levels = new Map(
    (
      await readLevels(
        tx,
        lines.map((l) => l.itemId),
        [locationId],
      )
    ).map((l) => [l.itemId, l]),
  );
  const worthOf = (itemId: number, quantity: Quantity): number => {
    const level = levels.get(itemId);
    return level ? valueOfFound(level, quantity) : 0;
  };
  return lines.map((line) => {
    const figures = figuresOf(line);
    const difference = differenceOf(figures);
    const first = figures.first ? Math.abs(figures.first.found - figures.first.expected) : 0;
    return {
      ...{ line, difference },
      worth: difference === null ? 0 : Math.sign(difference) * worthOf(line.itemId, Math.abs(difference)),
      step: stepOf(figures, worthOf(line.itemId, first), limits),
    };
  });
}
