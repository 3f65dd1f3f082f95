import { addDays, type BusinessDate } from '@/core/calendar';
import { MEASURED_DAYS, meanDailyUse } from '@/core/demand';
import { closings } from '@/core/ledger';
import { fromDecimal, toDecimal } from '@/core/quantity';
import { ok } from '@/core/result';
import { readItemIdsAfter } from '@/data/repositories/catalogue';
import { readCompany, setDemandAsOf } from '@/data/repositories/company';
import { deleteRate, type RateRow, readDays, readRates, upsertRates } from '@/data/repositories/demand';
import { readLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/planning';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import { groupBy, pairKey, pairMap } from '../grouping';

const ITEMS_A_STEP = 1000;

/** Measures the mean use per day of all pairs of these items over the 91 days before today, stores what has changed and
 *  marks its pairs. Returns how many changed. */
export async function measureDemand(deps: Deps, itemIds: readonly number[], today: BusinessDate): Promise<number> {
  const [first, yesterday] = [addDays(today, -MEASURED_DAYS), addDays(today, -1)];
  const { changed, gone } = await readSnapshot(deps.pool, async (tx) => {
    const levels = pairMap(await readLevels(tx, itemIds));
    const stored = pairMap(await readRates(tx, itemIds));
    const byPair = groupBy(await readDays(tx, itemIds, addDays(first, -1)), (d) => pairKey(d.itemId, d.locationId));
    const changed: RateRow[] = [];
    for (const [key, days] of byPair) {
      const [pair] = days;
      if (!pair || days.every((d) => fromDecimal(d.sold) === 0)) continue;
      const changes = new Map(days.map((d) => [d.date, fromDecimal(d.change)]));
      const sold = new Map(days.map((d) => [d.date, fromDecimal(d.sold)]));
      // A day opens with what the day before closed with.
      const onHand = fromDecimal(levels.get(key)?.onHand ?? '0');
      const openings = closings(onHand, changes, addDays(first, -1), addDays(yesterday, -1));
      const use = meanDailyUse(openings.map((opening, i) => ({ opening, sold: sold.get(addDays(first, i)) ?? 0 })));
      if (use === 0) continue;
      const had = stored.get(key);
      stored.delete(key);
      const { itemId, locationId } = pair;
      if (!had || fromDecimal(had.perDay) !== use) changed.push({ itemId, locationId, perDay: toDecimal(use) });
    }
    // What is left has sold nothing in that time.
    return { changed, gone: [...stored.values()] };
  });
  if (changed.length + gone.length > 0) {
    await write<void, never>(deps.pool, async (tx) => {
      await upsertRates(tx, changed, today);
      for (const r of gone) await deleteRate(tx, r);
      markDirty(tx, [...changed, ...gone]);
      return ok(undefined);
    });
  }
  return changed.length + gone.length;
}

/** Measures everything, once a business day, some items at a time. */
export async function measureAllDemand(deps: Deps): Promise<void> {
  const company = await readSnapshot(deps.pool, readCompany);
  const today = todayOf(deps, company);
  if (company.demandAsOf === today) return;
  for (let after = 0; ; ) {
    const { ids } = await readSnapshot(deps.pool, (tx) => readItemIdsAfter(tx, after, ITEMS_A_STEP));
    if (ids.length === 0) break;
    await measureDemand(deps, ids, today);
    after = ids.at(-1) as number;
  }
  await write<void, never>(deps.pool, async (tx) => {
    await setDemandAsOf(tx, today);
    return ok(undefined);
  });
}
