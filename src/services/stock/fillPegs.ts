import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { lockAllocations } from '@/data/repositories/allocations';
import type { Pair } from '@/data/repositories/levels';
import { lockTransfer, type PeggedLine, readPeggedLines, setApproved } from '@/data/repositories/transfers';
import type { Tx } from '@/data/sql';
import { endAllocation, heldOf, reserve } from './reserve';

/** Goods of a tray line, or of a line that a decision put on a transfer, that have come to a place. */
export type Came = Pair & {
  readonly trayLineId: number | null;
  readonly decisionId: number | null;
  quantity: Quantity;
};

/** Lines that goods were bought for one to one, with their requests locked. To be called before levels are locked, as
 *  approving a request does. */
export async function lockPegs(tx: Tx, came: readonly Came[]): Promise<readonly PeggedLine[]> {
  const found = await readPeggedLines(
    tx,
    came.flatMap((c) => c.trayLineId ?? []),
    came.flatMap((c) => c.decisionId ?? []),
  );
  const still = new Set<number>();
  for (const id of [...new Set(found.map((f) => f.transferId))].sort((a, b) => a - b))
    if ((await lockTransfer(tx, id))?.state === 'requested') still.add(id);
  return found.filter((f) => still.has(f.transferId));
}

type At = { readonly userId: number; readonly now: string };

/** What came for a line lies ready for it from now on: promised to its request, in the transaction that books it in, as far
 *  as the line still asks for it and the goods are free. Where goods leave again (a quantity below zero, a receipt that is
 *  reversed), so much less lies ready. */
export async function fillPegs(tx: Tx, at: At, pegs: readonly PeggedLine[], came: readonly Came[]): Promise<void> {
  // An allocation made by an earlier line of these goods is the one to add to.
  const made = new Map<number, number | null>();
  for (const c of came) {
    const peg = pegs.find((p) =>
      c.trayLineId === null ? p.decisionId === c.decisionId : p.trayLineId === c.trayLineId,
    );
    if (!peg || c.quantity === 0) continue;
    const allocationId = made.has(peg.lineId) ? (made.get(peg.lineId) ?? null) : peg.allocationId;
    const [had] = allocationId === null ? [] : await lockAllocations(tx, [allocationId]);
    const held = had ? heldOf(had) : 0;
    const ready = Math.max(0, Math.min(held + c.quantity, fromDecimal(peg.asked)));
    if (ready === held) continue;
    if (had) await endAllocation(tx, had, null);
    const got = ready === 0 ? null : await promise(tx, at, peg, c, ready);
    made.set(peg.lineId, got);
    await setApproved(tx, peg.lineId, toDecimal(0), got);
  }
}

/** Promises goods to the request of a line; where the stock was below zero, the less of them that is free. */
async function promise(tx: Tx, at: At, peg: PeggedLine, pair: Pair, quantity: Quantity): Promise<number | null> {
  const { itemId, locationId } = pair;
  const promisedTo = `${peg.transfer} to ${peg.toLocation}`;
  const ask = (q: Quantity) =>
    reserve(tx, { itemId, locationId, quantity: q, promisedTo, userId: at.userId, at: at.now });
  const whole = await ask(quantity);
  const got = whole.ok || whole.error.free <= 0 ? whole : await ask(whole.error.free);
  return got.ok ? got.value : null;
}
