import { type Actor, may } from '@/core/people';
import { checked, fromDecimal, toDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { divideHalfUp } from '@/core/units';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { type LevelRow, lockLevels } from '@/data/repositories/levels';
import { insertStockDocument } from '@/data/repositories/stockDocuments';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { itemsInStock, quantitiesOf } from './enterLines';
import { postMovements, type StockChange } from './postMovements';
import { type ReleasedPromise, releaseOverpromised } from './reserve';

/** What was found of each item, in base units as typed. */
export type CountStock = {
  readonly locationId: number;
  readonly note: string;
  readonly lines: readonly { readonly itemId: number; readonly quantity: string }[];
};
export type CountedStock = {
  readonly count: string;
  readonly differences: readonly { readonly itemId: number; readonly difference: number }[];
  readonly released: readonly ReleasedPromise[];
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
    const levels = new Map((await lockLevels(tx, pairs)).map((l) => [l.itemId, l]));
    const period = periodOf(today);
    const count = numberText('C', period, await drawNumber(tx, 'CN', period));
    const level = (itemId: number) => levels.get(itemId) as LevelRow;
    const documentId = await insertStockDocument(
      tx,
      { number: count, kind: 'count', locationId, businessDate: today, note, userId: actor.userId, at: now },
      lines.map((l, i) => ({
        itemId: l.itemId,
        quantity: toDecimal(counted.value[i] as number),
        expected: level(l.itemId).onHand,
        allocationId: null,
        movesStock: true,
      })),
    );
    const changes = lines.flatMap((l, i): StockChange[] => {
      const quantity = checked((counted.value[i] as number) - fromDecimal(level(l.itemId).onHand));
      if (quantity === 0) return [];
      const value = quantity > 0 ? foundValue(level(l.itemId), quantity) : null;
      const document = { kind: 'count' as const, id: documentId, line: i + 1 };
      return [{ itemId: l.itemId, locationId, kind: 'count', businessDate: today, quantity, value, document }];
    });
    const posted = await postMovements(tx, actor.userId, now, today, changes);
    if (!posted.ok) return posted;
    const released = await releaseOverpromised(tx, pairs);
    const differences = changes.map((c) => ({ itemId: c.itemId, difference: c.quantity }));
    await recordChanges(tx, actor.userId, now, [
      { entity: 'stock_document', entityId: documentId, action: 'counted', after: { count, differences, released } },
    ]);
    return ok({ count, differences, released });
  });
}

/** Found goods come in at the average of what is there, else at what the item last cost here. */
function foundValue(level: LevelRow, quantity: number): number {
  const onHand = fromDecimal(level.onHand);
  const share = (value: number, of: number) => Number(divideHalfUp(BigInt(value) * BigInt(quantity), BigInt(of)));
  if (onHand > 0) return share(level.value, onHand);
  if (onHand < 0) return share(-level.value, -onHand);
  const last = level.lastCostQuantity === null ? 0 : fromDecimal(level.lastCostQuantity);
  return last > 0 ? share(level.lastCost ?? 0, last) : 0;
}
