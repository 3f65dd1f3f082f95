import { type Actor, may } from '@/core/people';
import { checked, fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockLevels } from '@/data/repositories/levels';
import { addReceived, voidOrderLine } from '@/data/repositories/orders';
import { findReceipt, insertReceiptReversal, readReceiptLines } from '@/data/repositories/receipts';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { loadOrder } from '../purchase/loadOrder';
import { type Came, fillPegs, lockPegs } from './fillPegs';
import { takeBackHandedOver } from './postHandedOver';
import { postMovements, type StockChange } from './postMovements';
import { type ReleasedPromise, releaseOverpromised } from './reserve';

export type Reversed = { readonly receipt: string; readonly released: readonly ReleasedPromise[] };

/** Takes a whole receipt back: its goods leave again at the value they came in with, and are expected again on their
 *  order; what nobody had ordered is not, and what was sent straight to a customer is open there again. Errors: forbidden, not_found, already_reversed, books_closed. */
export async function reversal(
  tx: Tx,
  actor: Actor,
  now: string,
  today: string,
  { receiptId, reason }: { readonly receiptId: number; readonly reason: string },
): Promise<Result<Reversed, Failure>> {
  const seen = await findReceipt(tx, receiptId);
  if (!seen) return err({ kind: 'not_found', what: 'receipt' });
  const place = may(actor, 'goods.receive', { locationIds: [seen.locationId] });
  if (!place.ok) return place;
  const loaded = await loadOrder(tx, seen.orderId, 'receive');
  if (!loaded.ok) return loaded;
  // Under the lock of its order nobody else reverses it.
  const receipt = await findReceipt(tx, receiptId);
  if (!receipt || receipt.reversed === 1) return err({ kind: 'already_reversed', receipt: seen.number });
  const parts = new Map(loaded.value.parts.map((p) => [p.id, p]));
  const lines = await readReceiptLines(tx, receiptId);
  for (const l of lines) {
    const part = parts.get(l.partId);
    if (!part) throw new Error(`receipt ${receiptId} without its part ${l.partId}`);
    const after = {
      ...part,
      received: toDecimal(checked(fromDecimal(part.received) - fromDecimal(l.baseQuantity))),
      receivedPacks: toDecimal(checked(fromDecimal(part.receivedPacks) - fromDecimal(l.packQuantity))),
      receivedValue: part.receivedValue - l.orderValue,
    };
    parts.set(part.id, after);
    await addReceived(tx, after);
    const line = loaded.value.lines.find((o) => o.id === part.lineId);
    if (line?.unordered === 1 && fromDecimal(after.received) === 0) await voidOrderLine(tx, line.id);
  }

  const changes = lines.flatMap((l): StockChange[] =>
    l.itemId === null || l.movesStock === 0
      ? []
      : [
          {
            itemId: l.itemId,
            locationId: receipt.locationId,
            kind: 'receipt_reversal',
            businessDate: today,
            quantity: -fromDecimal(l.baseQuantity),
            value: -l.value,
            document: { kind: 'receipt', id: receiptId, line: l.lineNo },
          },
        ],
  );
  const gone = lines.flatMap((l): Came[] => {
    if (l.itemId === null || l.movesStock === 0) return [];
    const trayLineId = parts.get(l.partId)?.trayLineId ?? null;
    const quantity = -fromDecimal(l.baseQuantity);
    return [{ itemId: l.itemId, locationId: receipt.locationId, trayLineId, decisionId: null, quantity }];
  });
  await takeBackHandedOver(tx, { userId: actor.userId, now }, receiptId);
  const pegs = await lockPegs(tx, gone);
  await lockLevels(tx, changes);
  await insertReceiptReversal(tx, { receiptId, businessDate: today, reason, userId: actor.userId, at: now });
  const posted = await postMovements(tx, actor.userId, now, today, changes);
  if (!posted.ok) return posted;
  await fillPegs(tx, { userId: actor.userId, now }, pegs, gone);
  const released = await releaseOverpromised(tx, changes);
  await recordChanges(tx, actor.userId, now, [
    { entity: 'receipt', entityId: receiptId, action: 'reversed', after: { reason, released } },
    {
      entity: 'order',
      entityId: receipt.orderId,
      action: 'receipt reversed',
      after: { receipt: receipt.number, reason },
    },
  ]);
  return ok({ receipt: receipt.number, released });
}
