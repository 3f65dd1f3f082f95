import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { lockSupplier, updateSupplierTerms } from '@/data/repositories/catalogue';
import { markSet } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';

export type SetSupplierTerms = {
  readonly supplierId: number;
  readonly version: number;
  readonly leadTimeDays: number;
  readonly leadTimeKind: 'working' | 'calendar';
  readonly status: 'active' | 'blocked';
};

/** Lead time of a supplier, and whether it is bought from. All items it is a source of are reckoned again by the worker.
 *  Errors: forbidden, not_found, changed_meanwhile. */
export async function setSupplierTerms(
  deps: Deps,
  actor: Actor,
  request: Request<SetSupplierTerms>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'catalogue.edit');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'set-supplier-terms', request, async (tx, now) => {
    const { supplierId, version, ...terms } = request.input;
    const had = await lockSupplier(tx, supplierId);
    if (!had) return err({ kind: 'not_found', what: 'supplier' });
    if (had.version !== version) return err({ kind: 'changed_meanwhile', what: 'supplier', who: null, now: null });
    await updateSupplierTerms(tx, { id: supplierId, ...terms });
    const before = { leadTimeDays: had.leadTimeDays, leadTimeKind: had.leadTimeKind, status: had.status };
    await recordChanges(tx, actor.userId, now, [
      { entity: 'supplier', entityId: supplierId, action: 'terms', before, after: terms },
    ]);
    markSet(tx, { supplierId });
    return ok(null);
  });
}
