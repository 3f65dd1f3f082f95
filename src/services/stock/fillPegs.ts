import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { lockAllocations } from '@/data/repositories/allocations';
import { lockCustomerOrder, readPeggedDemands, setDemandAllocation } from '@/data/repositories/customerOrders';
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

/** A line that goods came for, with where it is kept what lies ready for it. */
type Peg = PeggedLine & {
  readonly key: string;
  readonly keep: (tx: Tx, lineId: number, allocationId: number | null) => Promise<unknown>;
};

/** Lines of requests and customers' orders that goods were bought for one to one, with their heads locked. To be called before
 *  levels are locked, as approving a request or putting something by does. */
export async function lockPegs(tx: Tx, came: readonly Came[]): Promise<readonly Peg[]> {
  const of = [came.flatMap((c) => c.trayLineId ?? []), came.flatMap((c) => c.decisionId ?? [])] as const;
  const requests = await readPeggedLines(tx, ...of);
  const orders = await readPeggedDemands(tx, ...of);
  const open = async (found: readonly PeggedLine[], isOpen: (headId: number) => Promise<boolean>) => {
    const still = new Set<number>();
    for (const id of [...new Set(found.map((f) => f.headId))].sort((a, b) => a - b))
      if (await isOpen(id)) still.add(id);
    return found.filter((f) => still.has(f.headId));
  };
  const asked = await open(requests, async (id) => (await lockTransfer(tx, id))?.state === 'requested');
  const ordered = await open(orders, async (id) => (await lockCustomerOrder(tx, id))?.state === 'open');
  return [
    ...asked.map(
      (p): Peg => ({
        ...{ ...p, key: `request ${p.lineId}` },
        keep: (t, id, allocation) => setApproved(t, id, toDecimal(0), allocation),
      }),
    ),
    ...ordered.map((p): Peg => ({ ...p, key: `order ${p.lineId}`, keep: setDemandAllocation })),
  ];
}

type At = { readonly userId: number; readonly now: string };

/** What came for a line lies ready for it from now on: promised to it, in the transaction that books it in, as far
 *  as the line still asks for it and the goods are free. Where goods leave again (a quantity below zero, a receipt that is
 *  reversed), so much less lies ready. */
export async function fillPegs(tx: Tx, at: At, pegs: readonly Peg[], came: readonly Came[]): Promise<void> {
  // An allocation made by an earlier line of these goods is the one to add to.
  const made = new Map<string, number | null>();
  for (const c of came) {
    const peg = pegs.find((p) =>
      c.trayLineId === null ? p.decisionId === c.decisionId : p.trayLineId === c.trayLineId,
    );
    if (!peg || c.quantity === 0) continue;
    const allocationId = made.has(peg.key) ? (made.get(peg.key) ?? null) : peg.allocationId;
    const [had] = allocationId === null ? [] : await lockAllocations(tx, [allocationId]);
    const held = had ? heldOf(had) : 0;
    const ready = Math.max(0, Math.min(held + c.quantity, fromDecimal(peg.asked)));
    if (ready === held) continue;
    if (had) await endAllocation(tx, had, null);
    const got = ready === 0 ? null : await promise(tx, at, peg, c, ready);
    made.set(peg.key, got);
    await peg.keep(tx, peg.lineId, got);
  }
}

/** Promises goods to a line; where the stock was below zero, the less of them that is free. */
async function promise(tx: Tx, at: At, peg: PeggedLine, pair: Pair, quantity: Quantity): Promise<number | null> {
  const { itemId, locationId } = pair;
  const { promisedTo } = peg;
  const ask = (q: Quantity) =>
    reserve(tx, { itemId, locationId, quantity: q, promisedTo, userId: at.userId, at: at.now });
  const whole = await ask(quantity);
  const got = whole.ok || whole.error.free <= 0 ? whole : await ask(whole.error.free);
  return got.ok ? got.value : null;
}
