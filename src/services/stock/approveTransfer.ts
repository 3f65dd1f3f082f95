import { type Actor, may } from '@/core/people';
import { fromDecimal, parseQuantity, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readReserves } from '@/data/repositories/reserves';
import { setApproved, setTransferState } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { markTransfer, openTransfer, releaseLines } from './openTransfer';
import { reserve } from './reserve';

export type ApproveTransfer = {
  readonly transferId: number;
  readonly version: number;
  /** What each line gets, in base units as typed; empty or 0 = nothing of it. */
  readonly lines: readonly { readonly lineNo: number; readonly approved: string }[];
};

/** Says what of a request is sent, in full or less, and promises it at once, so that nothing free is promised twice. The
 *  reserve of a policy is not promised. Errors: forbidden (for the place that sends), not_found, changed_meanwhile,
 *  transfer_not_in_this_state, invalid_field lines.<line> (more than was asked for), nothing_counted, not_free. */
export async function approveTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<ApproveTransfer>,
): Promise<Result<null, Failure>> {
  const allowed = may(actor, 'stock.transfer');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'approve-transfer', request, async (tx, now) => {
    const opened = await openTransfer(tx, actor, request.input, 'approve', (t) => t.fromLocationId);
    if (!opened.ok) return opened;
    const { transfer, lines } = opened.value;
    const given = new Map<number, Quantity>();
    for (const { lineNo, approved } of request.input.lines) {
      const line = lines.find((l) => l.lineNo === lineNo);
      if (!line) return err({ kind: 'not_found', what: 'line' });
      const q = approved.trim() === '' ? ok(0) : parseQuantity(approved);
      if (!q.ok) return err(invalidField(`lines.${lineNo}`, q.error));
      const most = fromDecimal(line.asked);
      if (q.value > most) return err(invalidField(`lines.${lineNo}`, { kind: 'more_than', most }));
      given.set(lineNo, q.value);
    }
    if ([...given.values()].every((q) => q === 0)) return err({ kind: 'nothing_counted' });
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const promisedTo = `${transfer.number} to ${places.get(transfer.toLocationId) ?? ''}`;
    const pairs = lines.map((l) => ({ itemId: l.itemId, locationId: transfer.fromLocationId }));
    const keep = await readReserves(tx, pairs, todayOf(deps, await readCompany(tx)));
    // What came in for these lines lies ready; they are promised anew, in full or less.
    await releaseLines(tx, transfer, lines);
    for (const l of lines) if (l.allocationId !== null) await setApproved(tx, l.id, '0', null);
    for (const line of [...lines].sort((a, b) => a.itemId - b.itemId)) {
      const quantity = given.get(line.lineNo) ?? 0;
      if (quantity === 0) continue;
      const pair = { itemId: line.itemId, locationId: transfer.fromLocationId };
      const promise = { ...pair, quantity, promisedTo, userId: actor.userId, at: now, keep: keep(pair) };
      const reserved = await reserve(tx, promise);
      if (!reserved.ok) return reserved;
      await setApproved(tx, line.id, toDecimal(quantity), reserved.value);
    }
    await setTransferState(tx, transfer.id, 'approved', { userId: actor.userId, at: now });
    const after = { lines: lines.map((l) => ({ line: l.lineNo, approved: toDecimal(given.get(l.lineNo) ?? 0) })) };
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transfer.id, action: 'approved', after },
    ]);
    markTransfer(tx, transfer, lines);
    return ok(null);
  });
}
