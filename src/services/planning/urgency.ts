import { addDays, arrivesIfOrdered, type BusinessDate, daysBetween, type SupplyCalendar } from '@/core/calendar';
import { runsBelow } from '@/core/projection';
import { fromDecimal } from '@/core/quantity';
import type { Calendars } from '@/data/repositories/calendars';
import { readCustomerOfDemands } from '@/data/repositories/customerOrders';
import { readUseAt } from '@/data/repositories/demand';
import type { Pair } from '@/data/repositories/levels';
import { readSupply } from '@/data/repositories/openSupply';
import { type Peg, readStatesAt } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import type { BuyingBook } from '../catalogue/buying';
import { groupBy, pairKey, pairMap } from '../grouping';
import { whenItComes } from './whenItComes';

/** Days looked ahead for the day on which stock runs out. */
const AHEAD = 120;

type At = { readonly today: BusinessDate; readonly time: string };
type Supplied = Pair & Partial<Peg> & { readonly sourceId: number | null; readonly supplyLocationId: number | null };

export type Urgency = {
  /** The first day that closes below zero, counted from today; null when none does in the days looked at. */
  readonly runOutDay: number | null;
  readonly runOut: BusinessDate | null;
  /** When it would be here if it was decided now; null without a supplier. */
  readonly arrives: BusinessDate | null;
  /** Days between the two, below 0 when it comes too late; null where nothing runs out. */
  readonly slackDays: number | null;
};

/** How urgent needs are: what lies there and is not blocked, less what is owed, what comes on its day, use of the last 91 days,
 *  against the day on which it could be there; where it is bought for one customer, against the day it is wanted. */
export async function readUrgency(
  tx: Tx,
  at: At,
  pairs: readonly Supplied[],
  { book, calendars }: { readonly book: BuyingBook; readonly calendars: Calendars },
): Promise<(pair: Supplied) => Urgency> {
  const itemIds = [...new Set(pairs.map((p) => p.itemId))];
  const states = pairMap(await readStatesAt(tx, pairs));
  const rates = pairMap(await readUseAt(tx, pairs));
  const supply = (await readSupply(tx, itemIds)).filter((s) => s.straight === 0);
  const coming = groupBy(supply, (s) => pairKey(s.itemId, s.locationId));
  const customers = await readCustomerOfDemands(
    tx,
    pairs.flatMap((p) => (p.pegOf === 'customer_demand' ? (p.peg ?? 0) : [])),
  );
  // Few suppliers serve few places: each is reckoned once.
  const arrivals = new Map<string, BusinessDate>();
  const arrivalOf = (key: string, calendar: SupplyCalendar, sent: boolean): BusinessDate => {
    const had = arrivals.get(key);
    if (had) return had;
    const found = arrivesIfOrdered(calendar, at.today, sent ? undefined : at.time);
    arrivals.set(key, found);
    return found;
  };
  const comings = new Map<string, ReturnType<typeof whenItComes>>();
  const comesTo = (key: string, calendar: SupplyCalendar | null, locationId: number) => {
    const name = `${key} ${locationId}`;
    const had = comings.get(name) ?? whenItComes(calendars, calendar, locationId, at);
    comings.set(name, had);
    return had;
  };
  const calendarOf = ({ locationId, sourceId, supplyLocationId }: Supplied) => {
    if (supplyLocationId !== null)
      return { key: `p${locationId}`, calendar: calendars.sending(locationId), sent: true };
    const buying = book.bySource.get(sourceId ?? 0);
    if (!buying) return null;
    const { supplierId, leadTimeDays: days, leadTimeKind: kind } = buying.source;
    const calendar = calendars.supply(supplierId, { days, kind }, locationId);
    return { key: `${supplierId}/${days}/${kind}/${locationId}`, calendar, sent: false };
  };
  return (pair) => {
    const key = pairKey(pair.itemId, pair.locationId);
    const state = states.get(key);
    const from = calendarOf(pair);
    const when = comesTo(from?.key ?? '', from?.calendar ?? null, pair.locationId);
    const stock = {
      stock: fromDecimal(state?.onHand ?? '0') - fromDecimal(state?.blocked ?? '0'),
      owed: fromDecimal(state?.owed ?? '0'),
      receipts: (coming.get(key) ?? []).map((s) => ({
        day: daysBetween(at.today, when(s).comes),
        quantity: fromDecimal(s.quantity),
      })),
      ...{ perDay: fromDecimal(rates.get(key)?.perDay ?? '0'), days: AHEAD },
    };
    // What is bought for one customer is in time by the day that customer wants it.
    const wanted = pair.pegOf === 'customer_demand' ? customers.get(pair.peg ?? 0)?.wanted : undefined;
    const runOutDay = wanted === undefined ? runsBelow(stock, 0) : Math.max(0, daysBetween(at.today, wanted));
    const runOut = runOutDay === null ? null : addDays(at.today, runOutDay);
    const arrives = from && arrivalOf(from.key, from.calendar, from.sent);
    return { runOutDay, runOut, arrives, slackDays: runOut && arrives ? daysBetween(arrives, runOut) : null };
  };
}
