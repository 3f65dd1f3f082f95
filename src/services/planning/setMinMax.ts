import { type Actor, may } from '@/core/people';
import { checkMinMax } from '@/core/policy';
import { entryText, parseQuantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { findItem } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/planning';
import { deletePolicy, insertMinMax, lockPolicy, updateMinMax } from '@/data/repositories/policies';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

/** Minimum and maximum of an item at a location, or everywhere (location null), as typed; `was` is the setting of this
 *  very scope as the person saw it, null when there was none. Both empty resets a location to what the item says. */
export type SetMinMax = {
  readonly itemId: number;
  readonly locationId: number | null;
  readonly min: string;
  readonly max: string;
  readonly was: { readonly min: string; readonly max: string } | null;
};

const entry = (q: number | null): string => (q === null ? '' : entryText(q));

/** Errors: forbidden, not_found, invalid_field min or max (text, decimals, min above max), changed_meanwhile. */
export async function setMinMax(deps: Deps, actor: Actor, request: Request<SetMinMax>): Promise<Result<null, Failure>> {
  const { itemId, locationId, was } = request.input;
  const allowed = may(actor, 'policies.edit', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const read = (field: 'min' | 'max'): Result<number | null, Failure> => {
    const typed = request.input[field];
    if (typed.trim() === '') return ok(null);
    const q = parseQuantity(typed);
    return q.ok ? q : err(invalidField(field, q.error));
  };
  const [min, max] = [read('min'), read('max')];
  if (!min.ok) return min;
  if (!max.ok) return max;
  const order = checkMinMax(min.value, max.value);
  if (!order.ok) return err(invalidField(order.error.kind === 'max_without_min' ? 'min' : 'max', order.error));
  return command(deps, actor, 'set-min-max', request, async (tx, now) => {
    if (!(await findItem(tx, itemId))) return err({ kind: 'not_found', what: 'item' });
    const locations = await readLocations(tx);
    if (locationId !== null && !locations.some((l) => l.id === locationId))
      return err({ kind: 'not_found', what: 'location' });
    const had = await lockPolicy(tx, itemId, locationId ?? 0);
    const seen = had && { min: entry(had.min), max: entry(had.max) };
    if (seen?.min !== was?.min || seen?.max !== was?.max) {
      const now = seen && `${seen.min} / ${seen.max}`;
      return err({ kind: 'changed_meanwhile', what: 'policy', who: null, now });
    }
    const [low, high] = [min.value, max.value].map((q) => (q === null ? null : toDecimal(q))) as [
      string | null,
      string | null,
    ];
    if (low === null) {
      if (had) await deletePolicy(tx, had.id);
    } else if (had) await updateMinMax(tx, had.id, low, high);
    else await insertMinMax(tx, { itemId, locationId, min: low, max: high });
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'policy',
        entityId: itemId,
        action: locationId === null ? 'min/max everywhere' : `min/max at ${locationId}`,
        before: had && { min: had.min, max: had.max },
        after: { min: low, max: high },
      },
    ]);
    const places = locationId === null ? locations.map((l) => l.id) : [locationId];
    markDirty(
      tx,
      places.map((id) => ({ itemId, locationId: id })),
    );
    return ok(null);
  });
}
