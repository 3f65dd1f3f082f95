import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { lockNeeds, readOpenNeeds } from '@/data/repositories/planning';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { needViewsOf } from '../planning/needViews';
import { decisionGround, postAccepted } from '../planning/postDecisions';
import { type Decided, recordUndo } from '../undo/recordUndo';
import { loadOrder } from './loadOrder';
import { postOntoOrder } from './postOntoOrder';

export type FillFromNeeds = {
  readonly orderId: number;
  /** Only of this place; null = of all that the person works at. */
  readonly locationId: number | null;
  /** Those with a warning too. */
  readonly warned: boolean;
  /** Only of items with these words in number or name; left out = of all. */
  readonly words?: string;
  /** Only these, chosen one by one; left out = all of them. */
  readonly needIds?: readonly number[];
};
export type Filled = {
  /** Needs that were put on the order, and those that have a warning and stayed. */
  readonly taken: number;
  readonly warned: number;
};

/** Decides what is open of this supplier as it is suggested, each with its reckoning, and puts it onto a draft: one step, undone as
 *  one. Errors: forbidden, not_found, not_in_this_state. */
export async function fillFromNeeds(
  deps: Deps,
  actor: Actor,
  request: Request<FillFromNeeds>,
): Promise<Result<Filled, Failure>> {
  const { orderId, locationId, needIds, words = '' } = request.input;
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const right = may(actor, 'needs.decide', locationId === null ? {} : { locationIds: [locationId] });
  if (!right.ok) return right;
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'fill-from-needs', request, async (tx, now) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { supplierId } = loaded.value.order;
    const places = locationId === null ? actor.locations : [locationId];
    const fits = (n: { readonly id: number; readonly itemNumber: string; readonly itemName: string }) =>
      (needIds === undefined || needIds.includes(n.id)) &&
      asked.every((w) => `${n.itemNumber} ${n.itemName}`.toLowerCase().includes(w));
    const open = (await readOpenNeeds(tx, places)).filter(
      (n) => n.supplierId === supplierId && n.sender === null && fits(n),
    );
    const locked = (
      await lockNeeds(
        tx,
        open.map((n) => n.id),
      )
    ).filter((n) => n.state === 'open' && n.supplyLocationId === null);
    const views = await needViewsOf(
      deps,
      tx,
      locked.map((n) => n.id),
    );
    const clear = locked.filter((n) => request.input.warned || views.get(n.id)?.warnings.length === 0);
    const ground = await decisionGround(deps, tx, actor, now, clear);
    const decided: Decided[] = [];
    const trayLineIds: number[] = [];
    for (const need of clear) {
      const packs = views.get(need.id)?.packs ?? 0;
      if (packs === 0) continue;
      const done = await postAccepted(ground, need, [{ packs }]);
      if (!done.ok) return done;
      decided.push(...done.value.decided);
      trayLineIds.push(...done.value.parts.flatMap((p) => p.trayLineId ?? []));
    }
    if (trayLineIds.length > 0) {
      const by = { userId: actor.userId, now, action: 'filled from needs' };
      const effect = await postOntoOrder(deps, tx, by, loaded.value, trayLineIds, decided);
      await recordUndo(tx, actor, request.key, 'fill-from-needs', now, effect);
    }
    return ok({ taken: trayLineIds.length, warned: locked.length - clear.length });
  });
}
