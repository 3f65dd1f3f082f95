import { type Actor, may } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { lockAllocations } from '@/data/repositories/allocations';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { insertStockDocument } from '@/data/repositories/stockDocuments';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { businessDayOf } from './businessDay';
import { checkSaleDecimals, itemsOfLines, quantitiesOf } from './enterLines';
import { postMovements, type StockChange } from './postMovements';
import { endAllocation, type ReleasedPromise, releaseOverpromised } from './reserve';

/** Quantities in base units as typed; a line may take goods that were promised. An empty day is today. */
export type SellGoods = {
  readonly locationId: number;
  readonly businessDate: string;
  readonly lines: readonly {
    readonly itemId: number;
    readonly quantity: string;
    readonly allocationId: number | null;
  }[];
};
export type Sold = { readonly sale: string; readonly released: readonly ReleasedPromise[] };

/** Goods leave over the counter: a sale with its movements, in one transaction. Stock may go below zero; promises that the
 *  rest can't keep are released, newest first, and named. What no stock is kept of is sold without a movement.
 *  Errors: forbidden, not_found, invalid_field lines.<index> or businessDate, nothing_counted, books_closed. */
export async function sellGoods(deps: Deps, actor: Actor, request: Request<SellGoods>): Promise<Result<Sold, Failure>> {
  const { locationId, lines } = request.input;
  const allowed = may(actor, 'stock.sell', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const quantities = quantitiesOf(lines, 'positive');
  if (!quantities.ok) return quantities;
  return command(deps, actor, 'sell-goods', request, async (tx, now) => {
    const ours = await itemsOfLines(
      tx,
      [locationId],
      lines.map((l) => l.itemId),
    );
    if (!ours.ok) return ours;
    const fine = checkSaleDecimals(ours.value, lines, quantities.value);
    if (!fine.ok) return fine;
    const moves = (itemId: number) => ours.value.get(itemId)?.stockKept === 1;
    const today = todayOf(deps, await readCompany(tx));
    const day = businessDayOf(request.input.businessDate, today);
    if (!day.ok) return day;
    const pairs = lines.flatMap(({ itemId }) => (moves(itemId) ? [{ itemId, locationId }] : []));
    await lockLevels(tx, pairs);
    const promised = await lockAllocations(
      tx,
      lines.flatMap((l) => (l.allocationId === null ? [] : [l.allocationId])),
    );
    for (const [i, l] of lines.entries()) {
      if (l.allocationId === null) continue;
      const own = promised.find((a) => a.id === l.allocationId);
      if (!own || own.itemId !== l.itemId || own.locationId !== locationId)
        return err({ kind: 'not_found', what: 'allocation' });
      await endAllocation(tx, own, quantities.value[i] as number);
    }
    const period = periodOf(today);
    const sale = numberText('S', period, await drawNumber(tx, 'SA', period));
    const documentId = await insertStockDocument(
      tx,
      { number: sale, kind: 'sale', locationId, businessDate: day.value, note: '', userId: actor.userId, at: now },
      lines.map((l, i) => ({
        itemId: l.itemId,
        quantity: toDecimal(quantities.value[i] as number),
        expected: null,
        allocationId: l.allocationId,
        movesStock: moves(l.itemId),
      })),
    );
    const posted = await postMovements(
      tx,
      actor.userId,
      now,
      today,
      lines.flatMap(({ itemId }, i): StockChange[] => {
        if (!moves(itemId)) return [];
        const document = { kind: 'sale' as const, id: documentId, line: i + 1 };
        const quantity = -(quantities.value[i] as number);
        return [{ itemId, locationId, kind: 'sale', businessDate: day.value, quantity, value: null, document }];
      }),
    );
    if (!posted.ok) return posted;
    const released = await releaseOverpromised(tx, pairs);
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'stock_document',
        entityId: documentId,
        action: 'sold',
        after: { sale, lines: lines.length, released },
      },
    ]);
    return ok({ sale, released });
  });
}
