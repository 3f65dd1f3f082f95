import { addDays, arrivesIfOrdered, type BusinessDate, offsetWorkingDays } from '@/core/calendar';
import { type Covered, coverWaiting, type Expected } from '@/core/promise';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { readLevels } from '@/data/repositories/levels';
import { readSupply, type Supply } from '@/data/repositories/openSupply';
import { readStates } from '@/data/repositories/planning';
import { readWaiting } from '@/data/repositories/promises';
import type { Tx } from '@/data/sql';
import { groupBy, pairKey, pairMap } from '../grouping';
import { readPairPlans } from '../planning/pairPlans';
import { whenItComes } from '../planning/whenItComes';
import { freeOf } from '../stock/gauge';

/** What comes to a place, with the document it stands on; `stock`: what lies there and nobody was promised. */
export type Source = Expected & {
  readonly kind: 'stock' | Supply['kind'];
  /** Number of the document; null where it has none yet. */
  readonly ref: string | null;
  readonly href: string | null;
  readonly ordered: Quantity;
  readonly received: Quantity;
  /** Days that it is late already; it is then counted on the next receiving day. */
  readonly lateDays: number;
};

export type Covering = {
  /** What covers a demand of a customer's line that nothing lies ready for. */
  readonly of: (demandId: number) => Covered<Source> | null;
  /** When an order of today could be handed over there; null without a supplier and without a place that sends. */
  readonly ifOrdered: (itemId: number, locationId: number) => BusinessDate | null;
};

/** Which supply covers which customer of these items, at each place, as it is now. An arrival counts on the receiving day
 *  after it came, as for needs; the cautious day is that of nine of ten deliveries of its supplier, where that is later. What
 *  was bought one to one for another place's request covers nobody here. */
export async function readCovering(
  tx: Tx,
  { today, time }: { readonly today: BusinessDate; readonly time: string },
  itemIds: readonly number[],
): Promise<Covering> {
  const plans = await readPairPlans(tx, itemIds, today);
  const [supply, waiting] = [await readSupply(tx, itemIds), await readWaiting(tx, itemIds)];
  const [levels, states] = [pairMap(await readLevels(tx, itemIds)), pairMap(await readStates(tx, itemIds))];
  const bySlot = groupBy(supply, (s) => pairKey(s.itemId, s.locationId));
  const found = new Map<string, Source[]>();
  const sources = (itemId: number, locationId: number): Source[] => {
    const key = pairKey(itemId, locationId);
    const had = found.get(key);
    if (had) return had;
    const calendar = plans.at(itemId, locationId)?.calendar ?? plans.calendars.sending(locationId);
    const level = levels.get(key);
    const free = level ? Math.max(0, freeOf(level) - (plans.at(itemId, locationId)?.policy.reserve ?? 0)) : 0;
    const settled = (day: BusinessDate) => offsetWorkingDays(calendar.receiving, day, 1, 'forward');
    const when = whenItComes(plans.calendars, plans.at(itemId, locationId)?.calendar ?? null, locationId, {
      today,
      time,
    });
    const made = (bySlot.get(key) ?? []).map((s): Source => {
      const { due, lateDays, href } = when(s);
      const date = settled(lateDays > 0 ? today : due);
      const nine = s.supplierId === null ? null : plans.calendars.nineOfTenDays(s.supplierId);
      const cautious = nine === null ? date : settled(addDays(s.orderedOn ?? today, nine));
      return {
        ...{ kind: s.kind, ref: s.number, date, cautious: laterOf(date, cautious), lateDays },
        href,
        ...{ quantity: fromDecimal(s.quantity), ordered: fromDecimal(s.ordered), received: fromDecimal(s.received) },
      };
    });
    const here: Source = {
      ...{ kind: 'stock', ref: null, href: `/items/${itemId}`, date: today, cautious: today, lateDays: 0 },
      ...{ quantity: free, ordered: 0, received: 0 },
    };
    const all = withoutPegged([here, ...made], fromDecimal(states.get(key)?.pegged ?? '0'));
    found.set(key, all);
    return all;
  };
  const covered = new Map<number, Covered<Source>>();
  for (const own of groupBy(waiting, (w) => pairKey(w.itemId, w.locationId)).values()) {
    const [first] = own;
    if (!first) continue;
    const cover = coverWaiting(
      sources(first.itemId, first.locationId),
      own.map((w) => ({ quantity: fromDecimal(w.waits), wanted: w.wanted, priority: w.priority, entry: w.demandId })),
    );
    for (const [i, w] of own.entries()) covered.set(w.demandId, cover[i] as Covered<Source>);
  }
  return {
    of: (demandId) => covered.get(demandId) ?? null,
    ifOrdered: (itemId, locationId) => {
      const calendar = plans.at(itemId, locationId)?.calendar;
      return calendar
        ? offsetWorkingDays(calendar.receiving, arrivesIfOrdered(calendar, today, time), 1, 'forward')
        : null;
    },
  };
}

/** What comes is less what was bought one to one; that comes first. */
function withoutPegged(sources: readonly Source[], pegged: Quantity): Source[] {
  let left = pegged;
  return [...sources]
    .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : 0))
    .map((s) => {
      if (s.kind === 'stock' || left === 0) return s;
      const taken = Math.min(left, s.quantity);
      left -= taken;
      return { ...s, quantity: s.quantity - taken };
    });
}

const laterOf = (...days: readonly BusinessDate[]): BusinessDate => [...days].sort().at(-1) as BusinessDate;
