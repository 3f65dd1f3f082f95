import { instantOf, parseDate } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { type CountStep, expectedThen } from '@/core/stock';
import { readCompany } from '@/data/repositories/company';
import {
  appendCountLines,
  type CountLineRow,
  readCountLines,
  readMovedSince,
  setCountFigure,
} from '@/data/repositories/counts';
import { readLevels } from '@/data/repositories/levels';
import type { Tx } from '@/data/sql';
import { type Deps, stamp, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { checkSaleDecimals, itemsInStock } from './enterLines';
import { judgeLines, openCount } from './openCount';

export type EnteredLine = {
  readonly itemId: number;
  readonly step: CountStep;
  readonly expected: Quantity | null;
  readonly difference: Quantity | null;
  readonly worth: number;
};
export type Figures = {
  readonly countId: number;
  /** When they were taken, as "9:40" today or as "2026-11-24 17:30"; '' = now. */
  readonly countedAt: string;
  /** found null takes a figure back. */
  readonly figures: readonly {
    readonly itemId: number;
    readonly round: 'first' | 'again';
    readonly found: Quantity | null;
  }[];
};

/** Notes what was found on an open count, with what the books said at that moment; what each line comes to.
 *  Errors: not_found, forbidden, count_ended, invalid_field lines.<index>|countedAt. */
export async function enterFigures(
  deps: Deps,
  tx: Tx,
  actor: Actor,
  now: string,
  { countId, countedAt, figures }: Figures,
): Promise<Result<{ lines: readonly EnteredLine[] }, Failure>> {
  const count = await openCount(tx, actor, countId);
  if (!count.ok) return count;
  const { locationId } = count.value;
  const company = await readCompany(tx);
  const at = momentOf(countedAt, todayOf(deps, company), company.timeZone, now);
  if (!at.ok) return at;
  const itemIds = [...new Set(figures.map((l) => l.itemId))];
  const ours = await itemsInStock(
    tx,
    [locationId],
    figures.map((l) => l.itemId),
  );
  if (!ours.ok) return ours;
  const fine = checkSaleDecimals(
    ours.value,
    figures,
    figures.map((f) => f.found ?? 0),
  );
  if (!fine.ok) return fine;
  const rows = await linesFor(tx, countId, itemIds);
  const levels = new Map((await readLevels(tx, itemIds, [locationId])).map((l) => [l.itemId, fromDecimal(l.onHand)]));
  const moved = at.value === now ? new Map() : await readMovedSince(tx, locationId, itemIds, at.value);
  for (const l of figures) {
    const { lineNo } = rows.get(l.itemId) as CountLineRow;
    const quantity = l.found;
    const expected = expectedThen(levels.get(l.itemId) ?? 0, fromDecimal(moved.get(l.itemId) ?? '0'));
    const figure = quantity === null ? null : { found: toDecimal(quantity), expected: toDecimal(expected) };
    const who = { userId: actor.userId, at: at.value };
    await setCountFigure(tx, { countId, lineNo, round: l.round, figure, ...who });
  }
  const own = new Set(itemIds);
  const judged = await judgeLines(
    tx,
    locationId,
    (await readCountLines(tx, countId)).filter((l) => own.has(l.itemId)),
  );
  return ok({
    lines: judged.map(({ line, step, difference, worth }): EnteredLine => {
      const expected = line.againExpected ?? line.countedExpected;
      // A blind count says what was expected when it is posted.
      const hidden = count.value.blind === 1;
      return {
        ...{ itemId: line.itemId, step },
        expected: hidden || expected === null ? null : fromDecimal(expected),
        difference: hidden ? null : difference,
        worth: hidden ? 0 : worth,
      };
    }),
  });
}

/** The lines of these items; those not on the sheet yet are put on it. */
async function linesFor(tx: Tx, countId: number, itemIds: readonly number[]): Promise<Map<number, CountLineRow>> {
  const there = new Set((await readCountLines(tx, countId)).map((l) => l.itemId));
  const missing = itemIds.filter((id) => !there.has(id));
  await appendCountLines(tx, countId, missing);
  return new Map((await readCountLines(tx, countId)).map((l) => [l.itemId, l]));
}

/** The moment that figures were taken. Errors: invalid_field countedAt: no time, or one that has not come yet. */
function momentOf(typed: string, today: string, timeZone: string, now: string): Result<string, Failure> {
  const text = typed.trim();
  if (text === '') return ok(now);
  const found = /^(?:(.+?)\s+)?(\d{1,2})[:.](\d{2})$/.exec(text);
  const day = found?.[1] ? parseDate(found[1], today) : ok(today);
  const [hour, minute] = [Number(found?.[2]), Number(found?.[3])];
  if (!found || !day.ok || hour > 23 || minute > 59)
    return err(invalidField('countedAt', { kind: 'not_a_time', text: typed }));
  const at = stamp(instantOf(day.value, `${hour}:${minute}`, timeZone));
  return at > now ? err(invalidField('countedAt', { kind: 'time_to_come', text: typed })) : ok(at);
}
