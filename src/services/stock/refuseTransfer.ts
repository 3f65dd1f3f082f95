import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setTransferState } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { markTransfer, openTransfer, releaseLines } from './openTransfer';

/** Says no to a request, with the reason the place that asked will read. Errors: forbidden (for the place that would send),
 *  not_found, changed_meanwhile, transfer_not_in_this_state. */
export async function refuseTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly transferId: number; readonly version: number; readonly reason: string }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.transfer');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'refuse-transfer', request, async (tx, now) => {
    const opened = await openTransfer(tx, actor, request.input, 'refuse', (t) => t.fromLocationId);
    if (!opened.ok) return opened;
    const { transfer, lines } = opened.value;
    // What came in for these lines is free again.
    await releaseLines(tx, transfer, lines);
    const because = request.input.reason.trim();
    await setTransferState(tx, transfer.id, 'refused', { userId: actor.userId, at: now, because });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transfer.id, action: 'refused', after: { because } },
    ]);
    markTransfer(tx, transfer, lines);
    return ok(null);
  });
}
