import { addDays, type BusinessDate, daysFrom } from '@/core/calendar';
import { figuresOfUse, MEASURED_DAYS, usedBetweenCounts } from '@/core/demand';
import { closings } from '@/core/ledger';
import { fromDecimal, MICRO, type Quantity, toDecimal } from '@/core/quantity';
import { ok } from '@/core/result';
import { readItemIdsAfter } from '@/data/repositories/catalogue';
import { readCompany, setDemandAsOf } from '@/data/repositories/company';
import { type CountDay, readCountDays } from '@/data/repositories/counts';
import {
  type DayOfMovements,
  deleteRate,
  type RateRow,
  readBroughtDays,
  readDays,
  readFirstDays,
  readPredecessors,
  readRates,
  upsertRates,
} from '@/data/repositories/demand';
import { readKitDays } from '@/data/repositories/kits';
import { readLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import type { Tx } from '@/data/sql';
import { readSnapshot, write } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import { groupBy, pairKey, pairMap } from '../grouping';
import { unitWorth } from '../planning/unitWorth';
import { classifyDemand } from './classifyDemand';
import { measureLeadTimes } from './measureLeadTimes';

const ITEMS_A_STEP = 1000;
const YEAR_DAYS = 365;

/** Measures the use per day of all pairs of these items over the 91 days before today, how much it varies and what a year of
 *  it costs; stores what has changed and marks its pairs. Returns how many changed. */
export async function measureDemand(deps: Deps, itemIds: readonly number[], today: BusinessDate): Promise<number> {
  const first = addDays(today, -MEASURED_DAYS);
  const measured = daysFrom(first, MEASURED_DAYS);
  const daysBefore = daysFrom(addDays(first, -1), MEASURED_DAYS);
  const { changed, gone } = await readSnapshot(deps.pool, async (tx) => {
    const levels = pairMap(await readLevels(tx, itemIds));
    const stored = pairMap(await readRates(tx, itemIds));
    const moved = await readDays(tx, itemIds, addDays(first, -1));
    const brought = groupBy(
      [
        ...(await readBroughtDays(tx, itemIds, addDays(first, -1))),
        ...(await readKitDays(tx, itemIds, addDays(first, -1))),
        ...(await inheritedDays(tx, itemIds, addDays(first, -1))),
      ].sort((a, b) => (a.date < b.date ? -1 : 1)),
      (d) => pairKey(d.itemId, d.locationId),
    );
    const counts = groupBy(await readCountDays(tx, itemIds), (c) => pairKey(c.itemId, c.locationId));
    const firstDays =
      brought.size + counts.size > 0 ? pairMap(await readFirstDays(tx, itemIds)) : new Map<string, { date: string }>();
    const used = [...counts].flatMap(([key, own]) => daysOfUse(own, firstDays.get(key)?.date ?? null, first));
    const byPair = groupBy([...moved, ...used, ...[...brought.values()].flat()], (d) =>
      pairKey(d.itemId, d.locationId),
    );
    const worth = await unitWorth(tx, itemIds, (await readCompany(tx)).currency, today);
    const changed: RateRow[] = [];
    for (const [key, days] of byPair) {
      const [pair] = days;
      if (!pair || days.every((d) => fromDecimal(d.sold) === 0)) continue;
      const changes = new Map<string, number>();
      for (const d of days) changes.set(d.date, (changes.get(d.date) ?? 0) + fromDecimal(d.change));
      const sold = new Map<string, number>();
      for (const d of days) sold.set(d.date, (sold.get(d.date) ?? 0) + fromDecimal(d.sold));
      // From the first day that a file tells of until stock was kept here, every day counts: what was on hand then is unknown.
      const from = brought.get(key)?.[0]?.date ?? null;
      const until = firstDays.get(key)?.date ?? today;
      const unknown = (day: string) => from !== null && day >= from && day < until;
      // A day opens with what the day before closed with.
      const onHand = fromDecimal(levels.get(key)?.onHand ?? '0');
      const openings = closings(onHand, changes, daysBefore);
      const use = figuresOfUse(
        measured.map((day, i) => ({
          opening: unknown(day) ? MICRO : (openings[i] as Quantity),
          sold: sold.get(day) ?? 0,
        })),
      );
      if (use.perDay === 0) continue;
      const had = stored.get(key);
      stored.delete(key);
      const { itemId, locationId } = pair;
      const year = worth(itemId, use.perDay * YEAR_DAYS);
      const row = {
        ...{ itemId, locationId, perDay: toDecimal(use.perDay), sdPerDay: use.sdPerDay.toFixed(6), days: use.days },
        annualMinor: year,
        variation: use.weeklyVariation === null ? null : Math.min(4_000_000, Math.round(use.weeklyVariation * 1000)),
      };
      const same =
        had &&
        fromDecimal(had.perDay) === use.perDay &&
        Number(had.sdPerDay) === Number(row.sdPerDay) &&
        had.days === row.days &&
        had.annualMinor === year &&
        had.variation === row.variation;
      if (!same) changed.push(row);
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

/** What counts of one pair found used, by day, from a day on. */
function daysOfUse(counts: readonly CountDay[], since: BusinessDate | null, from: BusinessDate): DayOfMovements[] {
  const [one] = counts;
  if (!one) return [];
  const { itemId, locationId, saleDecimals } = one;
  const figures = counts.map((c) => ({ date: c.date, used: fromDecimal(c.used) }));
  return [...usedBetweenCounts(figures, since, MICRO / 10 ** saleDecimals)]
    .filter(([date]) => date >= from)
    .map(([date, quantity]) => ({ itemId, locationId, date, change: '0', sold: toDecimal(quantity) }));
}

/** What was sold of the items that these take the place of, as if it had been theirs. What was on hand of them does not
 *  matter: like history that was brought, every day of it counts. */
async function inheritedDays(tx: Tx, itemIds: readonly number[], after: BusinessDate): Promise<DayOfMovements[]> {
  const before = await readPredecessors(tx, itemIds);
  if (before.length === 0) return [];
  const heirs = groupBy(before, (b) => b.itemId);
  const ids = [...heirs.keys()];
  const days = [...(await readDays(tx, ids, after)), ...(await readBroughtDays(tx, ids, after))];
  return days
    .filter((d) => fromDecimal(d.sold) !== 0)
    .flatMap((d) => (heirs.get(d.itemId) ?? []).map(({ heirId }) => ({ ...d, itemId: heirId, change: '0' })));
}

/** Measures everything, once a business day or when history was brought, some items at a time: use, how long suppliers take,
 *  classes. */
export async function measureAllDemand(deps: Deps, again = false): Promise<void> {
  const company = await readSnapshot(deps.pool, readCompany);
  const today = todayOf(deps, company);
  if (company.demandAsOf === today && !again) return;
  for (let after = 0; ; ) {
    const { ids } = await readSnapshot(deps.pool, (tx) => readItemIdsAfter(tx, after, ITEMS_A_STEP));
    if (ids.length === 0) break;
    await measureDemand(deps, ids, today);
    after = ids.at(-1) as number;
  }
  await measureLeadTimes(deps, today);
  await classifyDemand(deps);
  await write<void, never>(deps.pool, async (tx) => {
    await setDemandAsOf(tx, today);
    return ok(undefined);
  });
}
