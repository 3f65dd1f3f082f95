import { type Actor, may } from '@/core/people';
import { fromDecimal, parseQuantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { setShipped, setTransferState } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import type { CrossedLevel } from './crossings';
import { moveOut, type Outgoing } from './moveOut';
import { markTransfer, openTransfer, releaseLines } from './openTransfer';

export type ShipApproved = {
  readonly transferId: number;
  readonly version: number;
  /** What really goes, in base units as typed; empty or 0 = nothing of that line. */
  readonly lines: readonly { readonly lineNo: number; readonly quantity: string }[];
};

/** Sends what was approved, as much of it as really goes: promises are taken, what stays behind is free again. More than was
 *  approved may go if it is free. Errors: forbidden (for the place that sends), not_found, changed_meanwhile,
 *  transfer_not_in_this_state, invalid_field lines.<line>, nothing_counted, not_free, books_closed. */
export async function shipApproved(
  deps: Deps,
  actor: Actor,
  request: Request<ShipApproved>,
): Promise<Result<{ crossed: readonly CrossedLevel[] }, Failure>> {
  const allowed = may(actor, 'stock.transfer');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'ship-approved', request, async (tx, now) => {
    const opened = await openTransfer(tx, actor, request.input, 'ship', (t) => t.fromLocationId);
    if (!opened.ok) return opened;
    const { transfer, lines } = opened.value;
    const outgoing: Outgoing[] = [];
    for (const { lineNo, quantity } of request.input.lines) {
      const line = lines.find((l) => l.lineNo === lineNo);
      if (!line) return err({ kind: 'not_found', what: 'line' });
      const q = quantity.trim() === '' ? ok(0) : parseQuantity(quantity);
      if (!q.ok) return err(invalidField(`lines.${lineNo}`, q.error));
      if (q.value > 0)
        outgoing.push({ ...{ lineNo, itemId: line.itemId, quantity: q.value }, allocationId: line.allocationId });
    }
    if (outgoing.length === 0) return err({ kind: 'nothing_counted' });
    const sent = new Set(outgoing.map((l) => l.lineNo));
    await releaseLines(
      tx,
      transfer,
      lines.filter((l) => !sent.has(l.lineNo)),
    );
    const today = todayOf(deps, await readCompany(tx));
    const moved = await moveOut(tx, { userId: actor.userId, now, today }, transfer, outgoing);
    if (!moved.ok) return moved;
    for (const [i, l] of outgoing.entries()) {
      const line = lines.find((x) => x.lineNo === l.lineNo);
      if (line) await setShipped(tx, line.id, toDecimal(l.quantity), moved.value.values[i] as number);
    }
    await setTransferState(tx, transfer.id, 'shipped', { userId: actor.userId, at: now });
    const less = outgoing.filter(
      (l) => fromDecimal(lines.find((x) => x.lineNo === l.lineNo)?.approved ?? '0') !== l.quantity,
    );
    await recordChanges(tx, actor.userId, now, [
      {
        entity: 'transfer',
        entityId: transfer.id,
        action: 'shipped',
        after: {
          lines: outgoing.length,
          otherwise: less.map((l) => ({ line: l.lineNo, shipped: toDecimal(l.quantity) })),
        },
      },
    ]);
    markTransfer(tx, transfer, lines);
    return ok({ crossed: moved.value.crossed });
  });
}
