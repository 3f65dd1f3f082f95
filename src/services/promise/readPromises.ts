import { type BusinessDate, daysBetween } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { backorderedOf, type LineState, lineStateOf, openOf, promiseOf } from '@/core/promise';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { readItemsByIds } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { type CustomerWay, readDemands } from '@/data/repositories/customerOrders';
import {
  findCustomerLines,
  type LineShow,
  type LineSort,
  type LineWithOrder,
  lineSorts,
  readLinesWithOrders,
} from '@/data/repositories/promises';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { type AskedRows, keepList, type Page, readRows } from '../lists/keptList';
import { type Covering, readCovering, type Source } from './covering';
import { figuresOf, readyOf } from './shareOut';

/** What covers a part of what is backordered. */
export type CoveredBy = Pick<Source, 'kind' | 'ref' | 'href' | 'date' | 'ordered' | 'received' | 'lateDays'> & {
  readonly quantity: Quantity;
};

/** A customer's line as it stands now. Quantities in base units of the item, of a kit in sets. */
export type PromiseLine = {
  readonly lineId: number;
  readonly orderId: number;
  readonly lineNo: number;
  readonly order: string;
  readonly reference: string | null;
  readonly customer: string;
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unit: string;
  readonly locationId: number;
  readonly location: string;
  readonly way: CustomerWay;
  readonly packs: Quantity;
  readonly packName: string;
  readonly ordered: Quantity;
  readonly handedOver: Quantity;
  readonly cancelled: Quantity;
  readonly open: Quantity;
  readonly ready: Quantity;
  readonly backordered: Quantity;
  /** Backordered and not there either: what lies there free is put by once it is nearer the day. */
  readonly short: Quantity;
  readonly state: LineState;
  readonly wanted: BusinessDate;
  readonly shipBy: BusinessDate;
  /** What covers the rest, by the part of a kit that comes last; and what nothing covers, in the unit of that part. */
  readonly covers: readonly CoveredBy[];
  readonly missing: Quantity;
  /** The part of a kit that this is about; null for the item itself. */
  readonly about: string | null;
  /** When all of it is there, and the day to count on when its supplier is late; null while something is not covered. */
  readonly promise: { readonly date: BusinessDate; readonly cautious: BusinessDate } | null;
  /** Days between the promise and the wanted date, below 0 when it is late; null without a promise. */
  readonly slackDays: number | null;
  /** When what nothing covers could be there if it was ordered today. */
  readonly ifOrdered: BusinessDate | null;
  readonly holdUntil: string | null;
  readonly byHand: boolean;
  readonly told: { readonly date: BusinessDate | null; readonly at: string } | null;
  /** The customer was told another date than is promised now. */
  readonly moved: boolean;
};

export type PromisesHead = {
  readonly list: string;
  readonly count: number;
  /** Orders of these lines. */
  readonly orders: number;
  readonly today: BusinessDate;
};
export const promiseShows = ['open', 'waiting', 'late', 'moved', 'ready', 'ended'] as const;
export const promiseSorts = lineSorts;
export type PromiseShow = (typeof promiseShows)[number];
export type PromisesAsked = {
  readonly show: PromiseShow;
  readonly sort: LineSort;
  readonly search: string;
  readonly locationId: number | null;
  readonly itemId: number | null;
};

/** Lines that are looked through at most. */
const MOST = 20_000;

/** Opens the list of customers' lines at the person's places. Errors: forbidden. */
export async function openPromises(
  deps: Deps,
  actor: Actor,
  asked: PromisesAsked,
): Promise<Result<PromisesHead, Failure>> {
  const { locationId, show } = asked;
  const allowed = may(actor, 'promises.read', locationId === null ? {} : { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const today = todayOf(deps, await readCompany(tx));
    const locationIds = locationId === null ? actor.locations : [locationId];
    const stored: LineShow = show === 'late' || show === 'moved' ? 'open' : show;
    const ids = await findCustomerLines(tx, { ...asked, show: stored, locationIds }, MOST);
    // Whether a line is late is reckoned, so all of them are.
    const looked = show === stored ? null : await promiseLinesOf(deps, tx, ids);
    const kept = looked?.filter((l) => (show === 'late' ? isLate(l) : l.moved)).map((l) => l.lineId) ?? ids;
    const orders = new Set((await readLinesWithOrders(tx, kept)).map((l) => l.orderId)).size;
    return { kept, orders, today };
  });
  const list = await keepList(deps, actor, 'promises', { ids: found.kept, about: null });
  return ok({ list, count: found.kept.length, orders: found.orders, today: found.today });
}

/** Comes after it is wanted, or nothing says when. */
export const isLate = (l: Pick<PromiseLine, 'short' | 'slackDays'>): boolean =>
  l.short > 0 && (l.slackDays === null || l.slackDays < 0);

/** Up to 200 lines of an open list, as they are now. Errors: forbidden, list_gone. */
export async function readPromiseRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<PromiseLine>, Failure>> {
  const allowed = may(actor, 'promises.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'promises', asked, (tx, { entries }) => promiseLinesOf(deps, tx, [...entries]));
}

/** These lines with what lies ready and what covers the rest, in the order asked for. */
export async function promiseLinesOf(deps: Deps, tx: Tx, lineIds: readonly number[]): Promise<PromiseLine[]> {
  const company = await readCompany(tx);
  const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
  const lines = new Map((await readLinesWithOrders(tx, lineIds)).map((l) => [l.id, l]));
  const demands = groupBy(await readDemands(tx, [...lines.keys()]), (d) => d.lineId);
  const partIds = [...new Set([...demands.values()].flat().map((d) => d.itemId))];
  const items = await readItemsByIds(tx, [...new Set([...partIds, ...[...lines.values()].map((l) => l.itemId)])]);
  const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  const covering = await readCovering(tx, at, partIds);
  return lineIds.flatMap((id) => {
    const line = lines.get(id);
    if (!line) return [];
    const own = demands.get(id) ?? [];
    const item = items.get(line.itemId);
    const figures = { ...figuresOf(line), ready: readyOf(line, own) };
    const open = openOf(figures);
    const last = lastOf(own, covering, at.today);
    const promise = open === 0 ? null : last.promise;
    const told = line.toldAt === null ? null : { date: line.toldDate, at: line.toldAt };
    return [
      {
        ...headOf(line),
        ...{ number: item?.number ?? '', name: item?.name ?? '', unit: item?.unitName ?? '' },
        location: places.get(line.locationId) ?? '',
        ...{ packs: fromDecimal(line.packQuantity), packName: line.packName },
        ...{ ...figures, open, backordered: backorderedOf(figures), state: lineStateOf(figures) },
        ...{ covers: last.covers, missing: last.missing },
        short: shortOf(backorderedOf(figures), last, line.itemId),
        about: last.itemId === null || last.itemId === line.itemId ? null : (items.get(last.itemId)?.name ?? null),
        promise,
        slackDays: promise && daysBetween(promise.date, line.wantedDate),
        ifOrdered: last.missing > 0 && last.itemId !== null ? covering.ifOrdered(last.itemId, line.locationId) : null,
        told,
        moved: told !== null && open > 0 && told.date !== (promise?.date ?? null),
      },
    ];
  });
}

const headOf = (l: LineWithOrder) => ({
  ...{ lineId: l.id, orderId: l.orderId, lineNo: l.lineNo, order: l.number, reference: l.reference },
  ...{ customer: l.customer, itemId: l.itemId, locationId: l.locationId, way: l.way },
  ...{ wanted: l.wantedDate, shipBy: l.shipBy, holdUntil: l.holdUntil, byHand: l.byHand === 1 },
});

type Last = Pick<PromiseLine, 'covers' | 'missing' | 'promise'> & { readonly itemId: number | null };

/** What of a line is not there: of an item itself less what free stock covers, of a kit all unless every part is there. */
function shortOf(backordered: Quantity, last: Last, itemId: number): Quantity {
  const there = last.covers.reduce((a, c) => a + (c.kind === 'stock' ? c.quantity : 0), 0);
  if (last.itemId === itemId) return Math.max(0, backordered - there);
  return last.missing === 0 && last.covers.every((c) => c.kind === 'stock') ? 0 : backordered;
}

/** Of the parts of a line that which comes last, or not at all; an item itself is its only part. */
function lastOf(
  demands: readonly { readonly id: number; readonly itemId: number }[],
  covering: Covering,
  today: BusinessDate,
): Last {
  const all = demands.map((d): Last => {
    const covered = covering.of(d.id) ?? { covers: [], missing: 0 };
    const covers = covered.covers.map(({ from, quantity }): CoveredBy => {
      const { kind, ref, href, date, ordered, received, lateDays } = from;
      return { kind, ref, href, date, ordered, received, lateDays, quantity };
    });
    return { itemId: d.itemId, covers, missing: covered.missing, promise: promiseOf(covered, today) };
  });
  const worse = (a: Last, b: Last) => {
    if (a.promise === null || b.promise === null) return a.promise === null ? a : b;
    return b.promise.date > a.promise.date ? b : a;
  };
  return all.reduce(
    worse,
    all[0] ?? { itemId: null, covers: [], missing: 0, promise: { date: today, cautious: today } },
  );
}
