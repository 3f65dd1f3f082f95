import { type Actor, may } from '@/core/people';
import { type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { insertTransfer, insertTransferLines } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import type { CrossedLevel } from './crossings';
import { itemsInStock, quantitiesOf } from './enterLines';
import { moveOut } from './moveOut';
import { nextTransferNumber } from './transferNumber';

export type ShipTransfer = {
  readonly fromLocationId: number;
  readonly toLocationId: number;
  readonly lines: readonly { readonly itemId: number; readonly quantity: string }[];
};

/** Sends goods that nobody asked for from one place to another, in one step: quantity and value leave the level there and
 *  stand in transit until they are received. Only what is free can go. Each item stands on one line.
 *  Errors: forbidden, not_found, invalid_field lines.<index>, nothing_counted, not_free, books_closed. */
export async function shipTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<ShipTransfer>,
): Promise<Result<{ transferId: number; transfer: string; crossed: readonly CrossedLevel[] }, Failure>> {
  const { fromLocationId, toLocationId, lines } = request.input;
  const allowed = may(actor, 'stock.transfer', { locationIds: [fromLocationId] });
  if (!allowed.ok) return allowed;
  if (fromLocationId === toLocationId) return err({ kind: 'not_found', what: 'location' });
  const quantities = quantitiesOf(lines, 'positive');
  if (!quantities.ok) return quantities;
  return command(deps, actor, 'ship-transfer', request, async (tx, now) => {
    const itemIds = lines.map((l) => l.itemId);
    const ours = await itemsInStock(tx, [fromLocationId, toLocationId], itemIds);
    if (!ours.ok) return ours;
    const today = todayOf(deps, await readCompany(tx));
    const transfer = await nextTransferNumber(tx, today);
    const transferId = await insertTransfer(tx, {
      ...{ number: transfer, fromLocationId, toLocationId, state: 'shipped', businessDate: today },
      ...{ wantedDate: null, note: '', userId: actor.userId, at: now },
    });
    const outgoing = lines.map((l, i) => ({
      lineNo: i + 1,
      itemId: l.itemId,
      quantity: quantities.value[i] as Quantity,
      allocationId: null,
    }));
    const who = { userId: actor.userId, now, today };
    const moved = await moveOut(tx, who, { id: transferId, fromLocationId, toLocationId }, outgoing);
    if (!moved.ok) return moved;
    await insertTransferLines(
      tx,
      transferId,
      outgoing.map((l, i) => {
        const quantity = toDecimal(l.quantity);
        const shippedValue = moved.value.values[i] as number;
        const whole = { asked: quantity, approved: quantity, shipped: quantity, shippedValue };
        return { itemId: l.itemId, ...whole, allocationId: null, decisionId: null };
      }),
    );
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transferId, action: 'shipped', after: { transfer, lines: lines.length } },
    ]);
    return ok({ transferId, transfer, crossed: moved.value.crossed });
  });
}
