import type { Actor } from '@/core/people';
import type { SentHow } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markDirty } from '@/data/repositories/marks';
import { beginChange, endChange, markAmendmentsSent, markSent, readSaid } from '@/data/repositories/orderLife';
import {
  deletePart,
  type OrderLineRow,
  type PartRow,
  setOrderState,
  setPartTray,
  takeOffOrderLine,
  unsaid,
  updateOrderLine,
  updatePart,
} from '@/data/repositories/orders';
import { lockTrayLines, updateTrayLine } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import type { Failure } from '../failure';
import { type LoadedOrder, pairsOf } from './loadOrder';
import { perTrayLine } from './perTrayLine';
import { saidOf } from './said';

/** Puts the lines of an order that was not sent back into their trays, with the quantities they have now. `loaded` is
 *  locked and may be put back. Returns the tray lines. */
export async function putBack(tx: Tx, actor: Actor, now: string, loaded: LoadedOrder): Promise<number[]> {
  const { order, lines, parts, next } = loaded;
  const byTrayLine = perTrayLine(parts);
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

/** An order has gone to its supplier, who knows from now on what it says. `loaded` is locked and may be sent. */
export async function postSent(
  tx: Tx,
  by: { readonly userId: number | null; readonly now: string },
  { order, lines, parts }: Pick<LoadedOrder, 'order' | 'lines' | 'parts'>,
  { how, to }: { readonly how: SentHow; readonly to: string },
): Promise<void> {
  const said = JSON.stringify(saidOf(lines, parts));
  await markSent(tx, { id: order.id, userId: by.userId, at: by.now, how, to, said });
  await markAmendmentsSent(tx, order.id, by.now);
  await recordChanges(tx, by.userId, by.now, [
    {
      ...{ entity: 'order', entityId: order.id, action: order.amendmentNo > 0 ? 'change sent' : 'sent' },
      after: { how, ...(to ? { to } : {}) },
    },
  ]);
}

type Kept = { readonly lines: readonly OrderLineRow[]; readonly parts: readonly PartRow[] };

/** Opens an order for a change. `loaded` is locked and may be amended. */
export async function openChange(tx: Tx, actor: Actor, now: string, loaded: LoadedOrder): Promise<void> {
  const { order, lines, parts } = loaded;
  const kept: Kept = { lines, parts };
  const said = order.sentAt === null ? JSON.stringify(saidOf(lines, parts)) : null;
  await beginChange(tx, { id: order.id, before: order.state, lines: JSON.stringify(kept), said });
  await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: order.id, action: 'change begun' }]);
}

/** Drops a change: every line and part says what it said before it; what was added goes, back into its tray where it came out of
 *  one; what came meanwhile stays booked in.
 *  Errors: not_in_this_state (goods_received) once something was booked in on what the change added. */
export async function dropChange(
  tx: Tx,
  actor: Actor,
  now: string,
  loaded: LoadedOrder,
): Promise<Result<null, Failure>> {
  const { order, lines, parts, next } = loaded;
  const json = (await readSaid(tx, order.id))?.beforeChange;
  if (!json) throw new Error(`order ${order.id} is being changed and has nothing to go back to`);
  const kept = JSON.parse(json) as Kept;
  const [keptLines, keptParts] = [new Set(kept.lines.map((l) => l.id)), new Set(kept.parts.map((p) => p.id))];
  const ordered = new Set(lines.filter((l) => l.unordered === 0).map((l) => l.id));
  const added = parts.filter((p) => !keptParts.has(p.id) && ordered.has(p.lineId));
  if (added.some((p) => fromDecimal(p.received) > 0)) {
    const because = 'goods_received' as const;
    return err({ kind: 'not_in_this_state', state: order.state, action: 'drop_amendment', because });
  }
  const staying = new Set(parts.flatMap((p) => (keptParts.has(p.id) ? (p.trayLineId ?? []) : [])));
  const back = perTrayLine(added.filter((p) => p.trayLineId !== null && !staying.has(p.trayLineId)));
  for (const t of await lockTrayLines(tx, [...back.keys()]))
    await updateTrayLine(tx, { id: t.id, state: 'in_tray', ...(back.get(t.id) ?? t) });
  for (const p of added) if (keptLines.has(p.lineId)) await deletePart(tx, p.id);
  for (const l of lines) if (ordered.has(l.id) && !keptLines.has(l.id)) await takeOffOrderLine(tx, l.id);
  for (const l of kept.lines) await updateOrderLine(tx, { ...unsaid, ...l });
  const nowParts = new Map(parts.map((p) => [p.id, p]));
  // What was taken off went back into its tray; it is ordered again, unless somebody has used it meanwhile.
  const off = kept.parts.filter((p) => p.trayLineId !== null && nowParts.get(p.id)?.trayLineId === null);
  const waiting = await lockTrayLines(
    tx,
    off.flatMap((p) => p.trayLineId ?? []),
  );
  for (const p of kept.parts) await updatePart(tx, p);
  for (const t of waiting.filter((x) => x.state === 'in_tray')) {
    const { packQuantity, baseQuantity } = perTrayLine(off).get(t.id) ?? t;
    await updateTrayLine(tx, { id: t.id, state: 'ordered', packQuantity, baseQuantity });
    for (const p of off) if (p.trayLineId === t.id) await setPartTray(tx, p.id, t.id);
  }
  await endChange(tx, { id: order.id, state: next, no: order.amendmentNo });
  await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: order.id, action: 'change dropped' }]);
  markDirty(tx, [...pairsOf(lines, parts), ...pairsOf(kept.lines, kept.parts)]);
  return ok(null);
}
