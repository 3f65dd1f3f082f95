import { type Actor, may } from '@/core/people';
import { checkMinMax } from '@/core/policy';
import { entryText, parseQuantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { findItem } from '@/data/repositories/catalogue';
import { readLocations } from '@/data/repositories/company';
import { lockPolicy } from '@/data/repositories/policies';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { recordUndo } from '../undo/recordUndo';
import { writeMinMax } from './writeMinMax';

/** Minimum and maximum of an item at a location, or everywhere (location null), as typed; `was` is the setting of this
 *  very scope as the person saw it, null when there was none. Both empty resets a location to what the item says. */
export type SetMinMax = {
  readonly itemId: number;
  readonly locationId: number | null;
  readonly min: string;
  readonly max: string;
  readonly was: { readonly min: string; readonly max: string } | null;
};

const text = (q: number | null): string | null => (q === null ? null : toDecimal(q));
const entry = (q: number | null): string => (q === null ? '' : entryText(q));

/** Errors: forbidden, not_found, invalid_field min or max (text, decimals, min above max, stock
 *  not kept), changed_meanwhile. */
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
    const item = await findItem(tx, itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    if (item.stockKept === 0) return err(invalidField('min', { kind: 'stock_not_kept', item: item.name }));
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
    await writeMinMax(tx, actor, now, {
      itemId,
      locationId,
      had,
      after: low === null ? null : { min: low, max: high },
    });
    await recordUndo(tx, actor, request.key, 'set-min-max', now, {
      kind: 'min_max',
      itemId,
      locationId,
      before: had && { min: text(had.min), max: text(had.max) },
      after: low === null ? null : { min: low, max: high },
    });
    return ok(null);
  });
}
