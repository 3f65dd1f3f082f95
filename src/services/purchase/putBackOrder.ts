import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setOrderState } from '@/data/repositories/orders';
import { markDirty } from '@/data/repositories/planning';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { loadOrder, pairsOf } from './loadOrder';

export type OrderVersion = { readonly orderId: number; readonly version: number };

/** Puts an order that was not sent back into its trays, with the quantities it has now. A draft that never had a number
 *  is put back; one with a number is cancelled and keeps it.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state (sent, or goods were booked in). */
export async function putBackOrder(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<{ lines: number }, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'put-back-order', request, async (tx, now) => {
    const loaded = await loadOrder(tx, request.input.orderId, 'put_back', request.input.version);
    if (!loaded.ok) return loaded;
    const { order, lines, parts, next } = loaded.value;
    const byTrayLine = new Map(parts.filter((p) => p.trayLineId !== null).map((p) => [p.trayLineId as number, p]));
    for (const line of await lockTrayLines(tx, [...byTrayLine.keys()])) {
      const part = byTrayLine.get(line.id);
      if (!part) continue;
      const { packQuantity, baseQuantity } = part;
      await updateTrayLine(tx, { id: line.id, state: 'in_tray', packQuantity, baseQuantity });
    }
    await setOrderState(tx, order.id, next);
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'order',
        entityId: order.id,
        action: 'put back into trays',
        before: { state: order.state },
        after: { state: next },
      },
    ]);
    markDirty(tx, pairsOf(lines, parts));
    return ok({ lines: lines.length });
  });
}
