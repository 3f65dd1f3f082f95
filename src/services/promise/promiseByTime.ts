import { addDays } from '@/core/calendar';
import { ok } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { lockCustomerOrder, readCustomerLines, readDemands, setLineHold } from '@/data/repositories/customerOrders';
import { lockLevels } from '@/data/repositories/levels';
import { findExpired, readGivable, readPromiseRules } from '@/data/repositories/promises';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, stamp, todayOf } from '../deps';
import { groupBy } from '../grouping';
import { holdSets, shareOut } from './shareOut';

/** Pairs whose free stock is shared out in one transaction. */
const AT_ONCE = 100;

/** What is put by until a minute that has come is free again: the line waits for a hand from then on, and what it gave back
 *  goes to others who wait. Returns how many orders. */
export async function releaseExpired(deps: Deps): Promise<number> {
  const now = stamp(deps.clock());
  const orders = await readSnapshot(deps.pool, (tx) => findExpired(tx, now));
  for (const id of orders)
    await write<void, never>(deps.pool, async (tx) => {
      await releaseOne(tx, id, { now, today: todayOf(deps, await readCompany(tx)) });
      return ok(undefined);
    });
  return orders.length;
}

async function releaseOne(tx: Tx, id: number, { now, today }: { now: string; today: string }): Promise<void> {
  const order = await lockCustomerOrder(tx, id);
  if (!order) return;
  const at = { userId: null, now, today };
  const over = (await readCustomerLines(tx, [id])).filter((l) => l.holdUntil !== null && l.holdUntil <= now);
  const demands = groupBy(
    await readDemands(
      tx,
      over.map((l) => l.id),
    ),
    (d) => d.lineId,
  );
  const pairs = over.flatMap((l) =>
    (demands.get(l.id) ?? []).map((d) => ({ itemId: d.itemId, locationId: l.locationId })),
  );
  await lockLevels(tx, pairs);
  for (const l of over) {
    await holdSets(tx, at, order, l, demands.get(l.id) ?? [], 0);
    await setLineHold(tx, { id: l.id, holdUntil: null, byHand: true });
  }
  await recordChanges(tx, null, now, [
    {
      ...{ entity: 'customer_order', entityId: id, action: 'no longer put by: its time was over' },
      after: { lines: over.map((l) => l.lineNo) },
    },
  ]);
  await shareOut(tx, at, pairs);
}

/** Gives stock that has become free, or whose turn has come, to those who wait. Returns how many pairs were looked at. */
export async function giveWhatIsFree(deps: Deps): Promise<number> {
  const now = stamp(deps.clock());
  let [done, after] = [0, { itemId: 0, locationId: 0 }];
  // Page by page: what can't be given (a part of a kit is missing, the rest is kept back) holds up nobody behind it.
  for (;;) {
    const found = await readSnapshot(deps.pool, async (tx) => {
      const today = todayOf(deps, await readCompany(tx));
      const until = addDays(today, (await readPromiseRules(tx)).days);
      return { today, pairs: await readGivable(tx, until, after, AT_ONCE) };
    });
    const last = found.pairs.at(-1);
    if (!last) return done;
    await write<void, never>(deps.pool, async (tx) => {
      await shareOut(tx, { userId: null, now, today: found.today }, found.pairs);
      return ok(undefined);
    });
    done += found.pairs.length;
    after = last;
  }
}
