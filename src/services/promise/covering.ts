import { addDays, arrivesIfOrdered, type BusinessDate, offsetWorkingDays } from '@/core/calendar';
import { type Covered, coverWaiting, type Expected } from '@/core/promise';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { readLevels } from '@/data/repositories/levels';
import { readSupply, type Supply } from '@/data/repositories/openSupply';
import { readDemandsOfDecisions, readStates } from '@/data/repositories/planning';
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
  /** What a customer's line takes of an item, where it was bought one to one for it. */
  readonly demandId: number | null;
  readonly straight: boolean;
};

export type Covering = {
  /** What covers a demand of a customer's line that nothing lies ready for. */
  readonly of: (demandId: number) => Covered<Source> | null;
  /** When an order of today could be handed over there; null without a supplier and without a place that sends. */
  readonly ifOrdered: (itemId: number, locationId: number) => BusinessDate | null;
};

/** Which supply covers which customer of these items, at each place, as it is now. An arrival counts on the receiving day
 *  after it came, as for needs; the cautious day is that of nine of ten deliveries of its supplier, where that is later. What
 *  was bought one to one for a customer's line covers that line first; what is sent straight to a customer covers nobody else,
 *  and what was bought for another place's request covers nobody here. */
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
  const madeFor = await readDemandsOfDecisions(
    tx,
    supply.flatMap((s) => s.decisionId ?? []),
  );
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
      const demandId = s.decisionId === null ? undefined : madeFor.get(s.decisionId);
      return {
        ...{ straight: s.straight === 1, demandId: demandId ?? null },
        ...{ kind: s.kind, ref: s.number, date, cautious: laterOf(date, cautious), lateDays },
        href,
        ...{ quantity: fromDecimal(s.quantity), ordered: fromDecimal(s.ordered), received: fromDecimal(s.received) },
      };
    });
    const here: Source = {
      ...{ kind: 'stock', ref: null, href: `/items/${itemId}`, date: today, cautious: today, lateDays: 0 },
      ...{ quantity: free, ordered: 0, received: 0, demandId: null, straight: false },
    };
    found.set(key, [here, ...made]);
    return [here, ...made];
  };
  const covered = new Map<number, Covered<Source>>();
  for (const own of groupBy(waiting, (w) => pairKey(w.itemId, w.locationId)).values()) {
    const [first] = own;
    if (!first) continue;
    // One to one first; what that leaves is for everybody, in turn.
    let left = sources(first.itemId, first.locationId);
    let oneToOne = 0;
    const waits = own.map((w) => {
      const bought = left.filter((s) => s.demandId === w.demandId);
      const asked = { quantity: fromDecimal(w.waits), wanted: w.wanted, priority: w.priority, entry: w.demandId };
      const [its] = coverWaiting(bought, [asked]) as [Covered<Source>];
      left = left.map((s) => {
        const taken = its.covers.filter((c) => c.from === s).reduce((a, c) => a + c.quantity, 0);
        return taken === 0 ? s : { ...s, quantity: s.quantity - taken };
      });
      oneToOne += asked.quantity - its.missing;
      return { w, its, rest: { ...asked, quantity: w.straight === 1 ? 0 : its.missing } };
    });
    const pegged = fromDecimal(states.get(pairKey(first.itemId, first.locationId))?.pegged ?? '0');
    const open = withoutPegged(
      left.filter((s) => !s.straight),
      Math.max(0, pegged - oneToOne),
    );
    const cover = coverWaiting(
      open,
      waits.map((x) => x.rest),
    );
    for (const [i, { w, its }] of waits.entries()) {
      const more = cover[i] as Covered<Source>;
      const missing = w.straight === 1 ? its.missing : more.missing;
      covered.set(w.demandId, { covers: [...its.covers, ...more.covers], missing });
    }
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
