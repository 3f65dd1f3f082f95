import { type Actor, may } from '@/core/people';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { drawNumber, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany, readTransit } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/planning';
import { insertTransfer, insertTransferLines } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { numberText, periodOf } from '../purchase/orderNumber';
import { itemsInStock, quantitiesOf } from './enterLines';
import { freeOf } from './gauge';
import { postMovements, type StockChange } from './postMovements';

export type ShipTransfer = {
  readonly fromLocationId: number;
  readonly toLocationId: number;
  readonly lines: readonly { readonly itemId: number; readonly quantity: string }[];
};

/** Sends goods from one place to another: quantity and value leave the level there and stand in transit until they are
 *  received. Only what is free can go. Each item stands on one line.
 *  Errors: forbidden, not_found, invalid_field lines.<index>, nothing_counted, not_free, books_closed. */
export async function shipTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<ShipTransfer>,
): Promise<Result<{ transferId: number; transfer: string }, Failure>> {
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
    const [today, transit] = [todayOf(deps, await readCompany(tx)), await readTransit(tx)];
    const at = (locationId: number) => itemIds.map((itemId) => ({ itemId, locationId }));
    const levels = await lockLevels(tx, [...at(fromLocationId), ...at(transit)]);
    const wanted = lines.map((l, i) => ({ itemId: l.itemId, quantity: quantities.value[i] as number }));
    for (const { itemId, quantity } of wanted) {
      const level = levels.find((l) => l.itemId === itemId && l.locationId === fromLocationId);
      const free = Math.max(0, level ? freeOf(level) : 0);
      if (free < quantity) return err({ kind: 'not_free', itemId, free });
    }
    const period = periodOf(today);
    const transfer = numberText('T', period, await drawNumber(tx, 'TR', period));
    const head = { number: transfer, fromLocationId, toLocationId, businessDate: today, userId: actor.userId, at: now };
    const transferId = await insertTransfer(tx, head);
    const change = (i: number, locationId: number, quantity: number, value: number | null): StockChange => ({
      itemId: (wanted[i] as { itemId: number }).itemId,
      locationId,
      kind: 'transfer',
      businessDate: today,
      quantity,
      value,
      document: { kind: 'transfer', id: transferId, line: i + 1 },
    });
    const out = await postMovements(
      tx,
      actor.userId,
      now,
      today,
      wanted.map((w, i) => change(i, fromLocationId, -w.quantity, null)),
    );
    if (!out.ok) return out;
    const values = out.value.map((p) => -p.valueChange);
    const into = wanted.map((w, i) => change(i, transit, w.quantity, values[i] as number));
    const moved = await postMovements(tx, actor.userId, now, today, into);
    if (!moved.ok) return moved;
    await insertTransferLines(
      tx,
      transferId,
      wanted.map((w, i) => ({ itemId: w.itemId, shipped: toDecimal(w.quantity), value: values[i] as number })),
    );
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transferId, action: 'shipped', after: { transfer, lines: lines.length } },
    ]);
    // On the way to where they go.
    markDirty(tx, at(toLocationId));
    return ok({ transferId, transfer });
  });
}
