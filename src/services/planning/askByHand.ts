import { baseQuantity, packContent } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { checkLineQuantity } from '@/core/purchase';
import { toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem, readPacks } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import { lockHandNeed, putHandNeed } from '@/data/repositories/handNeeds';
import { markDirty } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';

export type AskByHand = {
  readonly itemId: number;
  readonly locationId: number;
  /** In the pack, or in base units; 0 takes it away. */
  readonly quantity: string;
  readonly packId: number | null;
  readonly note: string;
};

/** Asks for an item at a place by hand, also without a policy: a part of its need on top of what its policy asks, until it is
 *  accepted. Asked again, the new quantity takes the place of the old one.
 *  Errors: forbidden, not_found, invalid_field quantity. */
export async function askByHand(
  deps: Deps,
  actor: Actor,
  request: Request<AskByHand>,
): Promise<Result<{ readonly quantity: string }, Failure>> {
  const { itemId, locationId, packId, note } = request.input;
  const allowed = may(actor, 'needs.decide', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'ask-by-hand', request, async (tx, now) => {
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    if (item.stockKept === 0) return err(invalidField('quantity', { kind: 'stock_not_kept', item: item.name }));
    const place = (await readLocations(tx)).find((l) => l.id === locationId && l.closed === 0);
    if (!place) return err({ kind: 'not_found', what: 'location' });
    const packs = new Map((await readPacks(tx, [itemId])).map((p) => [p.id, p]));
    const content = packId === null ? null : packContent(packs, packId);
    if (content && !content.ok) return err({ kind: 'not_found', what: 'item' });
    const perPack = content?.ok ? content.value : fraction(1n);
    const none = /^0+$/.test(request.input.quantity.trim());
    const typed = none ? ok(0) : checkLineQuantity(request.input.quantity, perPack);
    if (!typed.ok) return err(invalidField('quantity', typed.error));
    const quantity = toDecimal(baseQuantity(typed.value, perPack));
    const before = await lockHandNeed(tx, { itemId, locationId });
    await putHandNeed(tx, { itemId, locationId, quantity, note: note.trim(), userId: actor.userId, at: now });
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'item', entityId: itemId, action: 'asked for by hand' },
        ...{ before: { byHand: before.quantity }, after: { byHand: quantity, at: place.name } },
      },
    ]);
    const undo = { kind: 'by_hand' as const, itemId, locationId, before, after: quantity };
    await recordUndo(tx, actor, request.key, 'ask-by-hand', now, undo);
    markDirty(tx, [{ itemId, locationId }]);
    return ok({ quantity });
  });
}
