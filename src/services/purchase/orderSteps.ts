import type { Actor } from '@/core/people';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markDirty } from '@/data/repositories/marks';
import { setOrderState } from '@/data/repositories/orders';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { type LoadedOrder, pairsOf } from './loadOrder';

/** Puts the lines of an order that was not sent back into their trays, with the quantities they have now. `loaded` is
 *  locked and may be put back. Returns the tray lines. */
export async function putBack(tx: Tx, actor: Actor, now: string, loaded: LoadedOrder): Promise<number[]> {
  const { order, lines, parts, next } = loaded;
  const byTrayLine = new Map(parts.filter((p) => p.trayLineId !== null).map((p) => [p.trayLineId as number, p]));
  const trayLineIds = [...byTrayLine.keys()];
  for (const line of await lockTrayLines(tx, trayLineIds)) {
    const part = byTrayLine.get(line.id);
    if (!part) continue;
    const { packQuantity, baseQuantity } = part;
    await updateTrayLine(tx, { id: line.id, state: 'in_tray', packQuantity, baseQuantity });
  }
  await setOrderState(tx, order.id, next);
  const before = { state: order.state };
  await recordChanges(tx, actor.userId, now, [
    { entity: 'order', entityId: order.id, action: 'put back into trays', before, after: { state: next } },
    ...trayLineIds.map((id) => ({ entity: 'tray_line' as const, entityId: id, action: 'back in its tray' })),
  ]);
  markDirty(tx, pairsOf(lines, parts));
  return trayLineIds;
}

/** Opens an approved order that was not sent for editing; it keeps its number. `loaded` is locked and may be reopened. */
export async function reopen(tx: Tx, actor: Actor, now: string, loaded: LoadedOrder): Promise<void> {
  const { order, lines, parts, next } = loaded;
  await setOrderState(tx, order.id, next);
  await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: order.id, action: 'opened for editing' }]);
  markDirty(tx, pairsOf(lines, parts));
}
