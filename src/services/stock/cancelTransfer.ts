import { type Actor, may } from '@/core/people';
import { ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { setTransferState } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import type { Failure } from '../failure';
import { markTransfer, openTransfer, releaseLines } from './openTransfer';
import { withdrawSent } from './withdrawSent';

/** Takes back a request (the place that asked) or an approved transfer before it is shipped (the place that sends): what was
 *  promised for it is free again, and needs that were decided on it are open again. Errors: forbidden, not_found,
 *  changed_meanwhile, transfer_not_in_this_state. */
export async function cancelTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<{ readonly transferId: number; readonly version: number }>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.transfer');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'cancel-transfer', request, async (tx, now) => {
    const opened = await openTransfer(tx, actor, request.input, 'cancel', (t) =>
      t.state === 'requested' ? t.toLocationId : t.fromLocationId,
    );
    if (!opened.ok) return opened;
    const { transfer, lines } = opened.value;
    for (const line of lines) if (line.decisionId !== null) await withdrawSent(tx, actor, now, transfer, line);
    await releaseLines(
      tx,
      transfer,
      lines.filter((l) => l.decisionId === null),
    );
    await setTransferState(tx, transfer.id, 'cancelled', { userId: actor.userId, at: now });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transfer.id, action: 'cancelled', before: { state: transfer.state } },
    ]);
    markTransfer(tx, transfer, lines);
    return ok(null);
  });
}
