import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { endCount, readCountLines } from '@/data/repositories/counts';
import { lockLevels } from '@/data/repositories/levels';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { judgeLines, openCount } from './openCount';
import type { AtPlace } from './postAtPlace';
import { postCounted } from './postCounted';

export type PostCount = {
  readonly countId: number;
  /** Also lines that are far off and were counted only once. */
  readonly asCounted: boolean;
};
export type PostedCount = AtPlace & {
  readonly count: string;
  readonly counted: number;
  readonly differing: number;
  /** Of all differences, minor units. */
  readonly worth: number;
};

/** Posts a count as one document. Stock changes by each line's difference against what the books said when it was counted,
 *  so that what has moved since stays; lines that were not counted stay as they are. What is missing leaves at moving
 *  average, what was found comes in at it; of items whose use nobody records the difference is use. Promises that can't be
 *  kept are released and named. Errors: forbidden, not_found, count_ended, nothing_counted, count_again, books_closed. */
export async function postCount(
  deps: Deps,
  actor: Actor,
  request: Request<PostCount>,
): Promise<Result<PostedCount, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'post-count', request, async (tx, now) => {
    const open = await openCount(tx, actor, request.input.countId);
    if (!open.ok) return open;
    const { id, number: count, locationId, name } = open.value;
    const today = todayOf(deps, await readCompany(tx));
    const lines = (await readCountLines(tx, id)).filter((l) => l.counted !== null);
    if (lines.length === 0) return err({ kind: 'nothing_counted' });
    const pairs = lines.map((l) => ({ itemId: l.itemId, locationId }));
    const before = await lockLevels(tx, pairs);
    const judged = await judgeLines(tx, locationId, lines);
    const again = judged.filter((l) => l.step === 'second').length;
    if (again > 0 && !request.input.asCounted) return err({ kind: 'count_again', lines: again });
    const who = { userId: actor.userId, now, today };
    const posted = await postCounted(
      tx,
      who,
      { number: count, locationId, note: name },
      before,
      lines.map((l) => ({
        ...{ itemId: l.itemId, reasonId: l.reasonId },
        found: l.again ?? (l.counted as string),
        expected: (l.again === null ? l.countedExpected : l.againExpected) as string,
      })),
    );
    if (!posted.ok) return posted;
    const { documentId, changes, released, crossed } = posted.value;
    await endCount(tx, { id, state: 'posted', userId: actor.userId, at: now, documentId });
    const worth = judged.reduce((a, l) => a + l.worth, 0);
    const said = { count, counted: lines.length, differing: changes.length, worth };
    await recordChanges(tx, actor.userId, now, [
      { entity: 'stock_count', entityId: id, action: 'posted', after: { ...said, released } },
    ]);
    return ok({ ...said, released, crossed });
  });
}
