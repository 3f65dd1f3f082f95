import { type Actor, may } from '@/core/people';
import { checked, fromDecimal, parseQuantity, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { type LevelRow, lockLevels } from '@/data/repositories/levels';
import { findReason } from '@/data/repositories/movements';
import { insertStockDocument } from '@/data/repositories/stockDocuments';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { itemsInStock } from './enterLines';
import { type AtPlace, postAtPlace } from './postAtPlace';
import type { StockChange } from './postMovements';
import { valueOfFound } from './valueOfFound';

/** Stock of items at a place is put right: by so much more or less (`by`, with its sign), or to what is really there. */
export type CorrectStock = {
  readonly locationId: number;
  readonly reasonId: number;
  readonly note: string;
  readonly lines: readonly { readonly itemId: number; readonly how: 'by' | 'to'; readonly quantity: string }[];
};
export type CorrectedStock = AtPlace & { readonly correction: string };

/** Posts a correction with its reason. What is taken leaves at moving average, what is added comes in at it; promises that
 *  can't be kept are released and named. Errors: forbidden, not_found (also the reason), invalid_field lines.<index> (nothing
 *  would change), nothing_counted, books_closed. */
export async function correctStock(
  deps: Deps,
  actor: Actor,
  request: Request<CorrectStock>,
): Promise<Result<CorrectedStock, Failure>> {
  const { locationId, reasonId, note, lines } = request.input;
  const allowed = may(actor, 'stock.count', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  if (lines.length === 0) return err({ kind: 'nothing_counted' });
  const typed: Quantity[] = [];
  for (const [i, l] of lines.entries()) {
    const sign = /^\s*[-−]/.test(l.quantity) ? -1 : 1;
    const q = parseQuantity(l.quantity.replace(/^\s*[-+−]/, ''));
    if (!q.ok) return err(invalidField(`lines.${i}`, q.error));
    if (l.how === 'to' && sign < 0) return err(invalidField(`lines.${i}`, { kind: 'negative', text: l.quantity }));
    typed.push(sign * q.value);
  }
  return command(deps, actor, 'correct-stock', request, async (tx, now) => {
    const reason = await findReason(tx, reasonId);
    if (!reason) return err({ kind: 'not_found', what: 'reason' });
    const itemIds = lines.map((l) => l.itemId);
    const ours = await itemsInStock(tx, [locationId], itemIds);
    if (!ours.ok) return ours;
    const today = todayOf(deps, await readCompany(tx));
    const pairs = lines.map((l) => ({ itemId: l.itemId, locationId }));
    const before = await lockLevels(tx, pairs);
    const levels = new Map(before.map((l) => [l.itemId, l]));
    const level = (itemId: number) => levels.get(itemId) as LevelRow;
    const by = lines.map((l, i) =>
      l.how === 'by' ? (typed[i] as number) : checked((typed[i] as number) - fromDecimal(level(l.itemId).onHand)),
    );
    const still = by.indexOf(0);
    if (still !== -1) return err(invalidField(`lines.${still}`, { kind: 'zero_quantity' }));
    const period = periodOf(today);
    const correction = numberText('K', period, await drawNumber(tx, 'CR', period));
    const documentId = await insertStockDocument(
      tx,
      {
        ...{ number: correction, kind: 'correction', locationId, businessDate: today, note, reasonId },
        ...{ userId: actor.userId, at: now },
      },
      lines.map((l, i) => ({
        ...{ itemId: l.itemId, quantity: toDecimal(by[i] as number), expected: level(l.itemId).onHand },
        ...{ allocationId: null, movesStock: true },
      })),
    );
    const changes = lines.map((l, i): StockChange => {
      const quantity = by[i] as number;
      const value = quantity > 0 ? valueOfFound(level(l.itemId), quantity) : null;
      const document = { kind: 'correction' as const, id: documentId, line: i + 1 };
      return { itemId: l.itemId, locationId, kind: 'correction', businessDate: today, quantity, value, document };
    });
    const posted = await postAtPlace(tx, { userId: actor.userId, now, today }, before, changes);
    if (!posted.ok) return posted;
    const { released } = posted.value;
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'stock_document',
        entityId: documentId,
        action: 'corrected',
        after: { correction, reason: reason.name, lines: by.map(toDecimal), released },
      },
    ]);
    return ok({ correction, ...posted.value });
  });
}
