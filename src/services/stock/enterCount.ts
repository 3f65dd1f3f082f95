import { type Actor, may } from '@/core/people';
import { parseQuantity, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readCountLines, setCountReason } from '@/data/repositories/counts';
import { findReason } from '@/data/repositories/movements';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { type EnteredLine, enterFigures } from './countFigures';
import { openCount } from './openCount';

/** Figures as typed, in base units; '' takes a figure back. `countedAt`: when they were taken, as "9:40" today or as
 *  "2026-11-24 17:30"; '' = now. An item that is not on the sheet is put on it. */
export type EnterCount = {
  readonly countId: number;
  readonly countedAt: string;
  readonly lines: readonly {
    readonly itemId: number;
    readonly round: 'first' | 'again';
    readonly quantity: string;
  }[];
};
/** What was found of items, with what the books said at that moment. Nothing moves before the count is posted.
 *  Errors: forbidden, not_found, count_ended, invalid_field lines.<index>|countedAt, nothing_counted. */
export async function enterCount(
  deps: Deps,
  actor: Actor,
  request: Request<EnterCount>,
): Promise<Result<{ lines: readonly EnteredLine[] }, Failure>> {
  const { countId, lines } = request.input;
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  if (lines.length === 0) return err({ kind: 'nothing_counted' });
  const found: (Quantity | null)[] = [];
  for (const [i, l] of lines.entries()) {
    if (l.quantity.trim() === '') found.push(null);
    else {
      const q = parseQuantity(l.quantity);
      if (!q.ok) return err(invalidField(`lines.${i}`, q.error));
      found.push(q.value);
    }
  }
  return command(deps, actor, 'enter-count', request, (tx, now) =>
    enterFigures(deps, tx, actor, now, {
      ...{ countId, countedAt: request.input.countedAt },
      figures: lines.map((l, i) => ({ itemId: l.itemId, round: l.round, found: found[i] as Quantity | null })),
    }),
  );
}

export type ReasonOfCount = {
  readonly countId: number;
  readonly itemId: number;
  readonly reasonId: number | null;
  readonly note: string;
};

/** Why a line differs. Errors: forbidden, not_found (also the reason), count_ended. */
export async function setReasonOfCount(
  deps: Deps,
  actor: Actor,
  request: Request<ReasonOfCount>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.count');
  if (!allowed.ok) return allowed;
  const { countId, itemId, reasonId, note } = request.input;
  return command(deps, actor, 'reason-of-count', request, async (tx) => {
    const count = await openCount(tx, actor, countId);
    if (!count.ok) return count;
    if (reasonId !== null && !(await findReason(tx, reasonId))) return err({ kind: 'not_found', what: 'reason' });
    const line = (await readCountLines(tx, countId)).find((l) => l.itemId === itemId);
    if (!line) return err({ kind: 'not_found', what: 'line' });
    await setCountReason(tx, countId, line.lineNo, reasonId, note.trim());
    return ok(null);
  });
}
