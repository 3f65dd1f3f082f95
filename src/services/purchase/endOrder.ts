import { type Actor, may } from '@/core/people';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { markDirty } from '@/data/repositories/marks';
import { readPromisedTo, setCancelled, setEnded } from '@/data/repositories/orderLife';
import type { PartRow } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { type LoadedOrder, loadOrder, openOfPart, pairsOf } from './loadOrder';
import type { OrderVersion } from './putBackOrder';

export type EndOrder = OrderVersion & { readonly reason: string };
/** Whoever was promised something of what does not come any more: their orders and requests. */
export type Ended = { readonly open: Quantity; readonly promised: readonly string[] };

/** Cancels a whole order of which nothing came; its supplier has to be told. Its needs come back. It can be undone.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, invalid_field reason. */
export const cancelOrder = (deps: Deps, actor: Actor, request: Request<EndOrder>) =>
  end(deps, actor, request, 'cancel', 'cancelled');

/** Closes an order: nothing more is expected of it. Errors: as cancelOrder. */
export const closeOrder = (deps: Deps, actor: Actor, request: Request<EndOrder>) =>
  end(deps, actor, request, 'close', 'closed');

async function end(
  deps: Deps,
  actor: Actor,
  request: Request<EndOrder>,
  action: 'cancel' | 'close',
  words: string,
): Promise<Result<Ended, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version } = request.input;
  const reason = request.input.reason.trim();
  return command(deps, actor, `${action}-order`, request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, action, version);
    if (!loaded.ok) return loaded;
    const { order, parts, next } = loaded.value;
    // Closing what has come whole needs no reason.
    if (reason === '' && parts.some((p) => openOfPart(p) > 0))
      return err(invalidField('reason', { kind: 'reason_missing' }));
    const cut = await cutParts(tx, loaded.value, parts);
    await setEnded(tx, { id: orderId, state: next, before: action === 'close' ? order.state : null });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'order', entityId: orderId, action: words, after: { reason, open: cut.ended.open } },
    ]);
    await recordUndo(tx, actor, request.key, `${action}-order`, now, {
      ...{ kind: 'ended', orderId, state: order.state, before: order.before, parts: cut.undo },
    });
    return ok(cut.ended);
  });
}

export type CutSupply = EndOrder & {
  /** One line of it, or one delivery; both null = everything that is still to come. */
  readonly lineId: number | null;
  readonly partId: number | null;
};

/** The rest of a line, of a delivery or of the whole order does not come any more; the order goes on. It can be undone.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state, invalid_field reason. */
export async function cutSupply(
  deps: Deps,
  actor: Actor,
  request: Request<CutSupply>,
): Promise<Result<Ended, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version, lineId, partId } = request.input;
  const reason = request.input.reason.trim();
  if (reason === '') return err(invalidField('reason', { kind: 'reason_missing' }));
  return command(deps, actor, 'cut-supply', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'cut', version);
    if (!loaded.ok) return loaded;
    const { order, lines, parts } = loaded.value;
    const chosen = parts.filter(
      (p) => openOfPart(p) > 0 && (partId === null || p.id === partId) && (lineId === null || p.lineId === lineId),
    );
    if (chosen.length === 0) return err({ kind: 'not_found', what: 'line' });
    const cut = await cutParts(tx, loaded.value, chosen);
    await setEnded(tx, { id: orderId, state: order.state, before: order.before });
    const line = lines.find((l) => l.id === chosen[0]?.lineId);
    const one = line && chosen.every((p) => p.lineId === line.id);
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'order', entityId: orderId },
        action: one ? `line ${line.lineNo}: the rest does not come` : 'the rest does not come',
        after: { reason, open: cut.ended.open },
      },
    ]);
    await recordUndo(tx, actor, request.key, 'cut-supply', now, {
      ...{ kind: 'ended', orderId, state: order.state, before: order.before, parts: cut.undo },
    });
    return ok(cut.ended);
  });
}

/** Nothing more comes of these parts; returns what that was and how it is undone. */
async function cutParts(tx: Tx, { lines, parts }: LoadedOrder, chosen: readonly PartRow[]) {
  const undo = [];
  let open = 0;
  const promised = await readPromisedTo(
    tx,
    chosen.filter((p) => openOfPart(p) > 0).map((p) => p.id),
  );
  for (const p of chosen) {
    const rest = openOfPart(p);
    if (rest === 0) continue;
    const cancelled = toDecimal(rest + fromDecimal(p.cancelled));
    undo.push({ id: p.id, cancelled: p.cancelled, to: cancelled });
    await setCancelled(tx, p.id, cancelled);
    open += rest;
  }
  markDirty(tx, pairsOf(lines, parts));
  return { undo, ended: { open, promised } };
}

/** Opens a closed order again; what was cancelled by closing it stays so, and can be ordered by a change.
 *  Errors: forbidden, not_found, changed_meanwhile, not_in_this_state. */
export async function openOrderAgain(
  deps: Deps,
  actor: Actor,
  request: Request<OrderVersion>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, version } = request.input;
  return command(deps, actor, 'open-order-again', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'open_again', version);
    if (!loaded.ok) return loaded;
    const { lines, parts, next } = loaded.value;
    await setEnded(tx, { id: orderId, state: next, before: null });
    await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: orderId, action: 'opened again' }]);
    markDirty(tx, pairsOf(lines, parts));
    return ok(null);
  });
}
