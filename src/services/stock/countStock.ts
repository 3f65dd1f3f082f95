import { type Actor, may } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { itemsInStock, quantitiesOf } from './enterLines';
import type { AtPlace } from './postAtPlace';
import { postCounted } from './postCounted';

/** What was found of each item, in base units as typed. */
export type CountStock = {
  readonly locationId: number;
  readonly note: string;
  readonly lines: readonly { readonly itemId: number; readonly quantity: string }[];
};
export type CountedStock = AtPlace & {
  readonly count: string;
  readonly differences: readonly { readonly itemId: number; readonly difference: number }[];
};

/** Posts a count as one document: stock becomes what was counted, the differences are movements. What is missing leaves
 *  at moving average, what was found comes in at it. Promises that can't be kept are released, newest first, and named.
 *  Errors: forbidden, not_found, invalid_field lines.<index>, nothing_counted, books_closed. */
export async function countStock(
  deps: Deps,
  actor: Actor,
  request: Request<CountStock>,
): Promise<Result<CountedStock, Failure>> {
  const { locationId, note, lines } = request.input;
  const allowed = may(actor, 'stock.count', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const counted = quantitiesOf(lines, 'zero');
  if (!counted.ok) return counted;
  return command(deps, actor, 'count-stock', request, async (tx, now) => {
    const ours = await itemsInStock(
      tx,
      [locationId],
      lines.map((l) => l.itemId),
    );
    if (!ours.ok) return ours;
    const today = todayOf(deps, await readCompany(tx));
    const pairs = lines.map((l) => ({ itemId: l.itemId, locationId }));
    const before = await lockLevels(tx, pairs);
    const expected = new Map(before.map((l) => [l.itemId, l.onHand]));
    const period = periodOf(today);
    const count = numberText('C', period, await drawNumber(tx, 'CN', period));
    const who = { userId: actor.userId, now, today };
    const posted = await postCounted(
      tx,
      who,
      { number: count, locationId, note },
      before,
      lines.map((l, i) => ({
        ...{ itemId: l.itemId, found: toDecimal(counted.value[i] as number), reasonId: null },
        expected: expected.get(l.itemId) ?? '0',
      })),
    );
    if (!posted.ok) return posted;
    const { documentId, changes, crossed } = posted.value;
    const { released } = posted.value;
    const differences = changes.map((c) => ({ itemId: c.itemId, difference: c.quantity }));
    await recordChanges(tx, actor.userId, now, [
      { entity: 'stock_document', entityId: documentId, action: 'counted', after: { count, differences, released } },
    ]);
    return ok({ count, differences, released, crossed });
  });
}
