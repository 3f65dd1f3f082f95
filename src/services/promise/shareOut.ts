import { addDays, type BusinessDate } from '@/core/calendar';
import { allocateSets, openOf, partQuantity } from '@/core/promise';
import { checked, fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { lockAllocations } from '@/data/repositories/allocations';
import { recordChanges } from '@/data/repositories/bookkeeping';
import {
  type CustomerLineRow,
  type DemandRow,
  readCustomerLines,
  readDemands,
  setDemandAllocation,
} from '@/data/repositories/customerOrders';
import { lockLevels, type Pair } from '@/data/repositories/levels';
import { findOrdersWaiting, lockOrdersAtHand, readPromiseRules } from '@/data/repositories/promises';
import { readReserves } from '@/data/repositories/reserves';
import type { Tx } from '@/data/sql';
import { groupBy, pairKey, pairMap } from '../grouping';
import { freeOf } from '../stock/gauge';
import { endAllocation, type NotFree, reserve } from '../stock/reserve';

/** userId: null = nobody, by time alone. */
type At = { readonly userId: number | null; readonly now: string; readonly today: BusinessDate };
type Head = {
  readonly id: number;
  readonly priority: number;
  readonly number: string;
  readonly customer: string;
  readonly createdBy: number;
};

/** Orders that wait and nobody else is at, with the pairs that their lines take stock of. */
export type Waiting = {
  readonly orders: readonly Head[];
  readonly lines: readonly CustomerLineRow[];
  readonly pairs: readonly Pair[];
};

/** Sets of a line that lie ready: of all its parts; of what no stock is kept of, all that is open. */
export const readyOf = (line: CustomerLineRow, demands: readonly DemandRow[]): Quantity => {
  if (line.way === 'straight') return 0;
  if (demands.length === 0) return openOf(figuresOf(line));
  const sets = demands.map((d) => {
    const held = fromDecimal(d.held);
    if (fromDecimal(d.perSet) === MICRO) return held;
    return Number((BigInt(held) * BigInt(MICRO)) / BigInt(fromDecimal(d.perSet)));
  });
  const ready = Math.min(...sets);
  return line.wholeSets === 1 ? ready - (ready % MICRO) : ready;
};

export const figuresOf = (l: CustomerLineRow) => ({
  ordered: fromDecimal(l.ordered),
  handedOver: fromDecimal(l.handedOver),
  cancelled: fromDecimal(l.cancelled),
});

/** Orders that may be given stock of these pairs by themselves, locked. To be called before levels are locked; an order that
 *  somebody is working in is left to the worker. */
export async function lockWaiting(tx: Tx, pairs: readonly Pair[], today: BusinessDate): Promise<Waiting> {
  if (pairs.length === 0) return { orders: [], lines: [], pairs: [] };
  const until = addDays(today, (await readPromiseRules(tx)).days);
  const orders = await lockOrdersAtHand(tx, await findOrdersWaiting(tx, pairs, until));
  const all = await readCustomerLines(
    tx,
    orders.map((o) => o.id),
  );
  const lines = all.filter(
    (l) => l.way !== 'straight' && l.byHand === 0 && l.shipBy <= until && openOf(figuresOf(l)) > 0,
  );
  const at = new Map(lines.map((l) => [l.id, l.locationId]));
  const demands = await readDemands(tx, [...at.keys()]);
  const own = demands.map((d) => ({ itemId: d.itemId, locationId: at.get(d.lineId) as number }));
  return { orders, lines, pairs: [...pairMap(own).values()] };
}

/** An order for which something was put by. */
export type PutBy = { readonly orderId: number; readonly order: string; readonly customer: string };

/** Gives what is free to those who wait, in their turn, in whole sets, beyond what is kept back; what was given before stays.
 *  Levels are locked here. Returns the orders that got something. */
export async function giveToWaiting(tx: Tx, at: At, waiting: Waiting): Promise<readonly PutBy[]> {
  if (waiting.lines.length === 0) return [];
  const levels = pairMap(await lockLevels(tx, waiting.pairs));
  const keep = await readReserves(tx, waiting.pairs, at.today);
  const demands = groupBy(
    await readDemands(
      tx,
      waiting.lines.map((l) => l.id),
    ),
    (d) => d.lineId,
  );
  const orders = new Map(waiting.orders.map((o) => [o.id, o]));
  const got: CustomerLineRow[] = [];
  for (const [locationId, lines] of groupBy(waiting.lines, (l) => l.locationId)) {
    const free = new Map<number, Quantity>();
    for (const p of waiting.pairs) {
      const level = levels.get(pairKey(p.itemId, locationId));
      if (p.locationId === locationId && level) free.set(p.itemId, Math.max(0, freeOf(level) - keep(p)));
    }
    const own = lines.map((line) => {
      const parts = demands.get(line.id) ?? [];
      const ready = readyOf(line, parts);
      // What is held of one part beyond what makes sets is free for sets again.
      for (const d of parts) {
        const beyond = fromDecimal(d.held) - partQuantity(ready, fromDecimal(d.perSet));
        if (beyond > 0) free.set(d.itemId, (free.get(d.itemId) ?? 0) + beyond);
      }
      return { line, parts, ready, order: orders.get(line.orderId) as Head };
    });
    const given = allocateSets(
      free,
      own.map(({ line, parts, ready, order }) => ({
        open: Math.max(0, openOf(figuresOf(line)) - ready),
        parts: parts.map((d) => ({ itemId: d.itemId, perSet: fromDecimal(d.perSet) })),
        whole: line.wholeSets === 1,
        wanted: line.wantedDate,
        priority: order.priority,
        entry: line.id,
      })),
    );
    // Whoever has parts that make no set gives them back before others are given them.
    for (const { line, parts, ready, order } of own) await held(tx, at, order, line, parts, ready);
    const now = groupBy(
      await readDemands(
        tx,
        lines.map((l) => l.id),
      ),
      (d) => d.lineId,
    );
    for (const [i, { line, ready, order }] of own.entries()) {
      if ((given[i] as number) <= 0) continue;
      await held(tx, at, order, line, now.get(line.id) ?? [], checked(ready + (given[i] as number)));
      got.push(line);
    }
  }
  for (const [orderId, lines] of groupBy(got, (l) => l.orderId))
    await recordChanges(tx, at.userId, at.now, [
      {
        ...{ entity: 'customer_order', entityId: orderId, action: 'stock put by' },
        after: { lines: lines.map((l) => l.lineNo) },
      },
    ]);
  return waiting.orders
    .filter((o) => got.some((l) => l.orderId === o.id))
    .map((o) => ({ orderId: o.id, order: o.number, customer: o.customer }));
}

/** The same where what is asked for is known to be free. */
async function held(...asked: Parameters<typeof holdSets>): Promise<void> {
  const done = await holdSets(...asked);
  if (!done.ok) throw new Error(`item ${done.error.itemId} was free and is not`);
}

/** Holds so many sets of a line ready, no more and no less. The levels are locked by the caller.
 *  Errors: not_free where it is not there. */
export async function holdSets(
  tx: Tx,
  at: At,
  order: Pick<Head, 'number' | 'customer' | 'createdBy'>,
  line: Pick<CustomerLineRow, 'locationId'>,
  parts: readonly DemandRow[],
  sets: Quantity,
): Promise<Result<void, NotFree>> {
  for (const d of parts) {
    const wanted = partQuantity(sets, fromDecimal(d.perSet));
    if (wanted === fromDecimal(d.held)) continue;
    const [had] = d.allocationId === null ? [] : await lockAllocations(tx, [d.allocationId]);
    if (had) await endAllocation(tx, had, null);
    const promise = {
      ...{ itemId: d.itemId, locationId: line.locationId, quantity: wanted, userId: order.createdBy, at: at.now },
      promisedTo: `${order.number} ${order.customer}`.slice(0, 120),
    };
    const made = wanted === 0 ? null : await reserve(tx, promise);
    if (made && !made.ok) return made;
    await setDemandAllocation(tx, d.id, made?.value ?? null);
  }
  return ok(undefined);
}

/** What became free of these pairs goes to those who wait. Levels may be locked already. */
export async function shareOut(tx: Tx, at: At, pairs: readonly Pair[]): Promise<readonly PutBy[]> {
  return giveToWaiting(tx, at, await lockWaiting(tx, pairs, at.today));
}
