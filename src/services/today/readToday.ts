import { addDays, arrivesIfOrdered, type BusinessDate, nextSlot } from '@/core/calendar';
import { type Actor, may, type Right } from '@/core/people';
import { weekStarts, weekSums } from '@/core/projection';
import { isDrafted, netOfLine } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readCalendars } from '@/data/repositories/calendars';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { countAside } from '@/data/repositories/decisions';
import { readOpenNeeds } from '@/data/repositories/planning';
import { findCustomerLines } from '@/data/repositories/promises';
import {
  countToComplete,
  countUnseenAlerts,
  type OpenPartRow,
  readBeyondMax,
  readHidden,
  readNextBack,
  readOpenParts,
  readReceivedSince,
  readRunningShort,
} from '@/data/repositories/today';
import { readTrayLines } from '@/data/repositories/trays';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readBuying } from '../catalogue/buying';
import { type Exchange, readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { netOfNeeds } from '../planning/needList';
import { bringUpToDate } from '../planning/recompute';
import { comingLines, trayTotals } from '../planning/trayTotals';
import { readUrgency } from '../planning/urgency';
import { isLate, promiseLinesOf } from '../promise/readPromises';
import { someOf } from '../purchase/pricing';
import { concernedOrders, type OrderSummary } from '../purchase/readOrders';

/** The lines of Today, in their order, each with the right to see its place. */
export const todayMatters = {
  needs: 'needs.read',
  late_needs: 'needs.read',
  put_off: 'needs.read',
  trays: 'orders.read',
  to_approve: 'orders.approve',
  unconfirmed: 'orders.send',
  late_orders: 'orders.read',
  arriving: 'goods.receive',
  at_risk: 'promises.read',
  alerts: 'stock.read',
  to_complete: 'stock.read',
  over_max: 'stock.read',
} as const satisfies Record<string, Right>;
export type TodayMatter = keyof typeof todayMatters;
export const isTodayMatter = (name: string): name is TodayMatter => Object.hasOwn(todayMatters, name);

export type TodayLine = {
  readonly matter: TodayMatter;
  readonly count: number;
  /** In the company's currency; null where money is not what it is about, or not known. */
  readonly money: number | null;
  /** The next date of it; what that is is said by the matter. */
  readonly next: BusinessDate | null;
  /** The person does not want to see it. */
  readonly hidden: boolean;
};

export type TodayView = {
  readonly today: BusinessDate;
  readonly currency: string;
  readonly lines: readonly TodayLine[];
  /** Six weeks from today: what is to be paid, and how many items run short at a place. Null where the person may not see orders. */
  readonly weeks:
    | readonly {
        readonly from: BusinessDate;
        /** Ordered goods by their payment date, without tax; and what drafts and trays would add. */
        readonly ordered: number;
        readonly planned: number;
        /** Items whose stock at a place lasts into this week and no further: something is coming, or nothing is. */
        readonly shortComing: number;
        readonly shortNothing: number;
      }[]
    | null;
};

const WEEKS = 6;
/** So long after it came, goods may still have to be paid. */
const LONGEST_TERMS_DAYS = 120;
/** So many customers' lines are looked at. */
const MOST_LINES = 20_000;

/** What must be done now, for the person: counts, money and the next date of each list, and six weeks ahead. */
export async function readToday(
  deps: Deps,
  actor: Actor,
  { locationId }: { readonly locationId: number | null },
): Promise<Result<TodayView, Failure>> {
  const allowed = may(actor, 'stock.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  await bringUpToDate(deps);
  return readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
    const exchange = await readExchange(tx, company.currency, at.today);
    const hidden = new Set(await readHidden(tx, actor.userId));
    const locationIds = locationId === null ? actor.locations : [locationId];
    const ground: Ground = { deps, tx, actor, at, exchange, locationIds };
    const sees = (right: Right) => may(actor, right).ok;
    const lines: Omit<TodayLine, 'hidden'>[] = [
      ...(sees('needs.read') ? await needsLines(ground) : []),
      ...(sees('orders.read') ? [await traysLine(ground)] : []),
      ...(await concernLines(ground, sees)),
      ...(await partsLines(ground, sees)),
      ...(sees('promises.read') ? [await atRiskLine(ground)] : []),
      ...(await stockLines(ground)),
    ];
    const rank = Object.keys(todayMatters);
    lines.sort((a, b) => rank.indexOf(a.matter) - rank.indexOf(b.matter));
    return ok({
      today: at.today,
      currency: company.currency,
      lines: lines.map((l) => ({ ...l, hidden: hidden.has(l.matter) })),
      weeks: sees('orders.read') ? await weeksOf(ground) : null,
    });
  });
}

type Ground = {
  readonly deps: Deps;
  readonly tx: Tx;
  readonly actor: Actor;
  readonly at: { readonly today: BusinessDate; readonly time: string };
  readonly exchange: Exchange;
  readonly locationIds: readonly number[] | null;
};
type Line = Omit<TodayLine, 'hidden'>;
const earliest = (days: readonly (string | null)[]): string | null =>
  days.filter((d): d is string => d !== null).sort()[0] ?? null;

/** Needs with the next day on which an order for one can go out; those that come too late; those that come back. */
async function needsLines({ tx, at, exchange, locationIds }: Ground): Promise<Line[]> {
  const open = await readOpenNeeds(tx, locationIds);
  const book = await readBuying(
    tx,
    open.map((n) => n.itemId),
  );
  const calendars = await readCalendars(tx, at.today);
  const urgency = await readUrgency(tx, at, open, { book, calendars });
  const late = open.map(urgency).filter((u) => u.slackDays !== null && u.slackDays < 0);
  const { putOff, leftOut } = await countAside(tx, locationIds);
  return [
    {
      ...{ matter: 'needs', count: open.length, money: netOfNeeds(open, book, exchange, at.today).net },
      next: earliest(await slotsOf(tx, at, new Set(open.flatMap((n) => n.supplierId ?? [])))),
    },
    { matter: 'late_needs', count: late.length, money: null, next: earliest(late.map((u) => u.runOut)) },
    { matter: 'put_off', count: putOff + leftOut, money: null, next: await readNextBack(tx, locationIds) },
  ];
}

async function slotsOf(tx: Tx, at: Ground['at'], supplierIds: ReadonlySet<number>): Promise<BusinessDate[]> {
  const calendars = await readCalendars(tx, at.today);
  return (await readSuppliers(tx))
    .filter((s) => supplierIds.has(s.id))
    .map((s) =>
      nextSlot(calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null), at.today, at.time),
    );
}

async function trayNets({ tx, at }: Ground) {
  const lines = await readTrayLines(tx);
  const suppliers = await readSuppliers(tx);
  const book = await readBuying(
    tx,
    lines.map((l) => l.itemId),
  );
  const totals = trayTotals(comingLines(lines, book, suppliers, at.today));
  return suppliers.filter((s) => totals.has(s.id)).map((s) => ({ supplier: s, net: totals.get(s.id) ?? 0 }));
}

async function traysLine(g: Ground): Promise<Line> {
  const trays = await trayNets(g);
  return {
    ...{ matter: 'trays', count: trays.length },
    money: trays.reduce((a, t) => a + (g.exchange.toBase(t.net, t.supplier.currency) ?? 0), 0),
    next: earliest(await slotsOf(g.tx, g.at, new Set(trays.map((t) => t.supplier.id)))),
  };
}

/** What a part comes to in the company's currency; 0 where no price or no rate is on file. */
function worthOf(p: OpenPartRow, exchange: Exchange): number {
  return exchange.toBase(netOfLine(someOf(p, fromDecimal(p.base)), p.currency), p.currency) ?? 0;
}

/** Orders that wait for approval, and those that their supplier has not confirmed. */
async function concernLines(g: Ground, sees: (right: Right) => boolean): Promise<Line[]> {
  const concerned = await concernedOrders(g.tx, g.at.today);
  const line = (matter: TodayMatter, own: readonly OrderSummary[]): Line => ({
    ...{ matter, count: own.length },
    money: own.reduce((a, o) => a + (g.exchange.toBase(o.net, o.currency) ?? 0), 0),
    next: earliest(own.flatMap((o) => o.nextDate ?? [])),
  });
  return [
    ...(sees('orders.approve') ? [line('to_approve', concerned.get('approve') ?? [])] : []),
    ...(sees('orders.send') ? [line('unconfirmed', concerned.get('unconfirmed') ?? [])] : []),
  ];
}

/** Orders that are late, and what comes within a week. */
async function partsLines(g: Ground, sees: (right: Right) => boolean): Promise<Line[]> {
  const { today } = g.at;
  const parts = (await readOpenParts(g.tx, g.locationIds)).filter((p) => !isDrafted(p.state));
  const line = (matter: TodayMatter, own: readonly OpenPartRow[]): Line => ({
    ...{ matter, count: new Set(own.map((p) => p.orderId)).size },
    money: own.reduce((a, p) => a + worthOf(p, g.exchange), 0),
    next: earliest(own.map((p) => p.date)),
  });
  const week = addDays(today, 7);
  return [
    ...(sees('orders.read')
      ? [
          line(
            'late_orders',
            parts.filter((p) => p.date !== null && p.date < today),
          ),
        ]
      : []),
    ...(sees('goods.receive')
      ? [
          line(
            'arriving',
            parts.filter((p) => p.date !== null && p.date >= today && p.date < week),
          ),
        ]
      : []),
  ];
}

/** Customers' lines that are promised later than wanted, or not at all. */
async function atRiskLine({ deps, tx, locationIds }: Ground): Promise<Line> {
  const ids = await findCustomerLines(
    tx,
    { show: 'open', sort: 'ship_by', search: '', itemId: null, locationIds },
    MOST_LINES,
  );
  const late = (await promiseLinesOf(deps, tx, ids)).filter(isLate);
  return { matter: 'at_risk', count: late.length, money: null, next: earliest(late.map((l) => l.wanted)) };
}

async function stockLines({ tx, actor, locationIds }: Ground): Promise<Line[]> {
  const over = await readBeyondMax(tx, locationIds);
  const worth = over.reduce((a, o) => {
    const onHand = fromDecimal(o.onHand);
    return a + (onHand > 0 ? Math.round((o.value * Math.min(fromDecimal(o.excess), onHand)) / onHand) : 0);
  }, 0);
  return [
    { matter: 'alerts', count: await countUnseenAlerts(tx, actor.userId), money: null, next: null },
    { matter: 'to_complete', count: await countToComplete(tx), money: null, next: null },
    { matter: 'over_max', count: over.length, money: worth, next: null },
  ];
}

/** Six weeks of money out, on the day it is to be paid, and of items that run short. What is in a tray is paid as if it went out on
 *  its next slot. Source: calculations 10 (money out on its payment date). */
async function weeksOf(g: Ground): Promise<NonNullable<TodayView['weeks']>> {
  const { tx, at, exchange, locationIds } = g;
  const { today } = at;
  const open = await readOpenParts(tx, locationIds);
  const came = await readReceivedSince(tx, addDays(today, -LONGEST_TERMS_DAYS), locationIds);
  const paid = (p: OpenPartRow, from: BusinessDate) => addDays(from, p.paymentDays ?? 0);
  const due = (p: OpenPartRow) => ({
    date: paid(p, p.date !== null && p.date > today ? p.date : today),
    amount: worthOf(p, exchange),
  });
  const ordered = [
    ...open.filter((p) => !isDrafted(p.state)).map(due),
    // What came and was due before today is taken as paid.
    ...came.map((p) => ({ date: paid(p, p.date), amount: worthOf(p, exchange) })).filter((p) => p.date >= today),
  ];
  const planned = [...open.filter((p) => isDrafted(p.state)).map(due), ...(await dueOfTrays(g))];
  const short = new Map((await readRunningShort(tx, WEEKS, locationIds)).map((s) => [Math.max(0, s.week), s]));
  const [sums, more] = [weekSums(today, WEEKS, ordered), weekSums(today, WEEKS, planned)];
  return weekStarts(today, WEEKS).map((from, w) => ({
    ...{ from, ordered: sums[w] as number, planned: more[w] as number },
    ...{ shortComing: short.get(w)?.coming ?? 0, shortNothing: short.get(w)?.nothing ?? 0 },
  }));
}

async function dueOfTrays(g: Ground): Promise<{ date: BusinessDate; amount: number }[]> {
  const { tx, at, exchange } = g;
  const calendars = await readCalendars(tx, at.today);
  return (await trayNets(g)).map(({ supplier: s, net }) => {
    const calendar = calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null);
    const here = arrivesIfOrdered(calendar, at.today, at.time);
    return { date: addDays(here, s.paymentDays ?? 0), amount: exchange.toBase(net, s.currency) ?? 0 };
  });
}
