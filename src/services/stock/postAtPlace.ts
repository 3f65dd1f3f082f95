import type { Result } from '@/core/result';
import { ok } from '@/core/result';
import type { LevelRow } from '@/data/repositories/levels';
import type { Tx } from '@/data/sql';
import { type CrossedLevel, crossingsOf } from './crossings';
import { type BooksClosed, postMovements, type StockChange } from './postMovements';
import { type ReleasedPromise, releaseOverpromised } from './reserve';

export type AtPlace = {
  /** Promises that the rest can't keep, newest first. */
  readonly released: readonly ReleasedPromise[];
  /** Levels that stock came to by it. */
  readonly crossed: readonly CrossedLevel[];
};

/** Posts what a document changes at one place, whatever is promised there: promises that can't be kept are released. `before`
 *  are the levels as they were locked for it. Errors: books_closed. */
export async function postAtPlace(
  tx: Tx,
  who: { readonly userId: number; readonly now: string; readonly today: string },
  before: readonly LevelRow[],
  changes: readonly StockChange[],
): Promise<Result<AtPlace, BooksClosed>> {
  const posted = await postMovements(tx, who.userId, who.now, who.today, changes);
  if (!posted.ok) return posted;
  const released = await releaseOverpromised(tx, before);
  return ok({ released, crossed: await crossingsOf(tx, before, changes) });
}
