import { reckonPeg } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { isBought, openPegNeed, type Peggable } from '@/data/repositories/peggable';
import { lockNeed } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { decisionGround, postAccepted } from '../planning/postDecisions';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { packsFor, peggableOf } from './askedFor';
import { loadOrder } from './loadOrder';
import { postOntoOrder } from './postOntoOrder';

export type BuyOneToOne = {
  readonly orderId: number;
  /** Customers' lines, by what they take of an item, and lines of places' requests. */
  readonly lines: readonly Pick<Peggable, 'of' | 'id'>[];
};

/** Buys for lines of customers' orders and of places' requests one to one, by hand, whatever the policy of the item says: each is a
 *  decision of its own with its reckoning, on the draft at once, and what comes lies ready for that line. Undone as one.
 *  Errors: forbidden, not_found (nothing of it is asked for any more, or it is bought already), not_in_this_state. */
export async function buyOneToOne(
  deps: Deps,
  actor: Actor,
  request: Request<BuyOneToOne>,
): Promise<Result<{ readonly taken: number }, Failure>> {
  const right = may(actor, 'needs.decide');
  if (!right.ok) return right;
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, lines } = request.input;
  return command(deps, actor, 'buy-one-to-one', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const all = await peggableOf(tx, loaded.value.order.supplierId, actor.locations);
    const chosen = all.filter(({ line }) => lines.some((l) => l.of === line.of && l.id === line.id));
    if (chosen.length === 0) return err({ kind: 'not_found', what: 'line' });
    const decided: Decided[] = [];
    const trayLineIds: number[] = [];
    for (const { line, buying } of chosen) {
      const [asked, held] = [fromDecimal(line.asked), fromDecimal(line.held)];
      const shortage = toDecimal(asked - held);
      const id = await openPegNeed(tx, line, { shortage, sourceId: buying.source.id, at: now });
      const need = await lockNeed(tx, id);
      // Somebody else may have bought it since this was read: the need is locked now, so it is bought once.
      if (!need || (await isBought(tx, id))) return err({ kind: 'not_found', what: 'line' });
      const ground = await decisionGround(deps, tx, actor, now, [need]);
      const rule = (await ground.plans()).at(line.itemId, line.locationId)?.rule;
      const packs = packsFor(buying, asked - held);
      const way = { sourceId: buying.source.id };
      const reckoning = rule ? reckonPeg({ asked, held, supply: 0 }, rule) : null;
      const done = await postAccepted(ground, need, [{ packs, way }], reckoning);
      if (!done.ok) return done;
      decided.push(...done.value.decided);
      trayLineIds.push(...done.value.parts.flatMap((p) => p.trayLineId ?? []));
    }
    const by = { userId: actor.userId, now, action: 'bought one to one' };
    const effect = await postOntoOrder(deps, tx, by, loaded.value, trayLineIds, decided);
    await recordUndo(tx, actor, request.key, 'buy-one-to-one', now, effect);
    return ok({ taken: trayLineIds.length });
  });
}
