import { type Actor, may } from '@/core/people';
import { parseQuantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockSource, updateSource } from '@/data/repositories/catalogue';
import { markSet } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';

/** How a supplier sells an item; minimum in base units as typed, empty for none. */
export type SetSource = {
  readonly sourceId: number;
  readonly version: number;
  readonly preference: number;
  readonly minimum: string;
  readonly multiplePacks: number;
  readonly rounding: 'up' | 'nearest' | 'none';
};

/** Preference, minimum, order multiple and rounding of a source; its item is reckoned again.
 *  Errors: forbidden, not_found, invalid_field minimum, changed_meanwhile. */
export async function setSource(deps: Deps, actor: Actor, request: Request<SetSource>): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'catalogue.edit');
  if (!allowed.ok) return allowed;
  const { sourceId, version, minimum, ...how } = request.input;
  const least = minimum.trim() === '' ? ok(0) : parseQuantity(minimum);
  if (!least.ok) return err(invalidField('minimum', least.error));
  return command(deps, actor, 'set-source', request, async (tx, now) => {
    const had = await lockSource(tx, sourceId);
    if (!had) return err({ kind: 'not_found', what: 'source' });
    if (had.version !== version) return err({ kind: 'changed_meanwhile', what: 'source', who: null, now: null });
    const after = { ...how, minimum: toDecimal(least.value) };
    await updateSource(tx, { id: sourceId, ...after });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'source', entityId: sourceId, action: 'how it sells', before: had, after },
    ]);
    markSet(tx, { sourceId });
    return ok(null);
  });
}
