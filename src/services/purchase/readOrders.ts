import { decimalsOf } from '@/core/money';
import { openQuantity } from '@/core/netting';
import { type Actor, may } from '@/core/people';
import {
  concernsOf,
  isDrafted,
  isOrdered,
  netOfLine,
  type OrderConcern,
  type OrderState,
  orderConcerns,
  type Progress,
  progress,
} from '@/core/purchase';
import { fromDecimal, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { type ColumnFilterFault, type Columns, type ColumnValues, fitsColumns, parseColumnFilter } from '@/core/search';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readOrderRules } from '@/data/repositories/orderLife';
import {
  type OrderLineRow,
  type PartRow,
  readOrderHeads,
  readOrderIds,
  readOrderLines,
  readParts,
} from '@/data/repositories/orders';
import { readLastReceipts } from '@/data/repositories/receipts';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { readExchange } from '../cost/exchange';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy } from '../grouping';
import { type AskedRows, keepList, type Page, readRows } from '../lists/keptList';
import { expectedOn, goods, movedByConfirmation, quantities } from './orderParts';
import { someOf, totalLineOf } from './pricing';

export type OrderSummary = {
  readonly id: number;
  readonly version: number;
  readonly number: string | null;
  readonly supplier: string;
  readonly state: OrderState;
  readonly before: OrderState | null;
  readonly came: Progress;
  /** What was confirmed is another date or price than was asked for. */
  readonly differs: boolean;
  readonly orderDate: string;
  readonly sentOn: string | null;
  readonly nextContact: string | null;
  readonly nextDate: string | null;
  /** When goods of it came last. */
  readonly lastCame: string | null;
  readonly places: string;
  readonly lines: number;
  readonly net: number;
  /** What of the net is confirmed, came, and is still to come. */
  readonly confirmed: number;
  readonly received: number;
  readonly open: number;
  readonly currency: string;
  readonly buyer: string;
};

export const orderSorts = ['newest', 'supplier', 'number'] as const;
export type OrderSort = (typeof orderSorts)[number];
/** Columns that the list of orders can be narrowed by. */
export const orderColumns = {
  ...{ order: 'text', supplier: 'text', place: 'text', buyer: 'text', state: 'text', currency: 'text' },
  ...{ net: 'number', confirmed: 'number', received: 'number', open: 'number', lines: 'number' },
  ...{ ordered: 'date', sent: 'date', expected: 'date', came: 'date' },
} as const satisfies Columns;

const columnsOf = (o: OrderSummary): ColumnValues => {
  const amount = (minor: number) => minor / 10 ** decimalsOf(o.currency);
  return {
    ...{ order: o.number ?? 'draft', supplier: o.supplier, place: o.places, buyer: o.buyer, currency: o.currency },
    state: stateText(o),
    ...{ net: amount(o.net), confirmed: amount(o.confirmed), received: amount(o.received), open: amount(o.open) },
    ...{ lines: o.lines, ordered: o.orderDate, sent: o.sentOn, expected: o.nextDate, came: o.lastCame },
  };
};
const stateText = (o: OrderSummary): string =>
  isOrdered(o.state) && o.came !== 'nothing'
    ? o.came === 'all'
      ? 'received'
      : 'part received'
    : o.state.replaceAll('_', ' ');

export type OrderListHead = {
  /** What of the search is not understood; the list is not narrowed then. */
  readonly fault: ColumnFilterFault | null;
  readonly columns: readonly string[];
  readonly list: string;
  readonly count: number;
  readonly net: number;
  readonly currency: string;
  readonly today: string;
};

/** Which orders are shown: those still to be worked on, those that something has to be done about, those that are done, or all. */
export const orderShows = ['open', ...orderConcerns, 'done', 'all'] as const;
export type OrderShow = (typeof orderShows)[number];
export type OrderFilter = { readonly show: OrderShow; readonly sort: OrderSort; readonly search: string };

/** Opens the list of orders, narrowed by what is to be done and by words or terms over any column. Errors: forbidden. */
export async function openOrders(
  deps: Deps,
  actor: Actor,
  filter: OrderFilter,
): Promise<Result<OrderListHead, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  const found = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const { confirmDays } = await readOrderRules(tx);
    const every = filter.show === 'all' || filter.show === 'done';
    const orders = await summariesOf(tx, await readOrderIds(tx, every, filter.sort));
    // What is still to come is the core's to say.
    const live = (o: OrderSummary) => isDrafted(o.state) || (isOrdered(o.state) && o.came !== 'all');
    const isShown = (o: OrderSummary): boolean => {
      if (filter.show === 'all') return true;
      if (filter.show === 'open') return live(o);
      if (filter.show === 'done') return !live(o);
      return concernsOf({ ...o, next: o.nextDate }, today, confirmDays).includes(filter.show);
    };
    const narrowed = parseColumnFilter(filter.search, orderColumns, today);
    const fits = (o: OrderSummary) => !narrowed.ok || fitsColumns(narrowed.value, orderColumns, columnsOf(o));
    const shown = orders.filter((o) => isShown(o) && fits(o));
    const exchange = await readExchange(tx, company.currency, todayOf(deps, company));
    const net = shown.reduce((sum, o) => sum + (exchange.toBase(o.net, o.currency) ?? 0), 0);
    const fault = narrowed.ok ? null : narrowed.error;
    return {
      ids: shown.map((o) => o.id),
      net,
      today,
      currency: company.currency,
      fault,
      columns: Object.keys(orderColumns),
    };
  });
  const { ids, ...head } = found;
  const list = await keepList(deps, actor, 'orders', { ids, about: {} });
  return ok({ list, count: ids.length, ...head });
}

/** Orders that something has to be done about, by what. */
export async function concernedOrders(
  tx: Tx,
  today: string,
): Promise<ReadonlyMap<OrderConcern, readonly OrderSummary[]>> {
  const { confirmDays } = await readOrderRules(tx);
  const found = new Map<OrderConcern, OrderSummary[]>();
  for (const o of await summariesOf(tx, await readOrderIds(tx, false, 'newest')))
    for (const c of concernsOf({ ...o, next: o.nextDate }, today, confirmDays))
      found.set(c, [...(found.get(c) ?? []), o]);
  return found;
}

/** Up to 200 orders of an open list, as they are now. Errors: forbidden, list_gone. */
export async function readOrderRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<OrderSummary>, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'orders', asked, (tx, { entries }) => summariesOf(tx, [...entries]));
}

/** Orders with what they come to and what is still to come, in the order of their ids. */
async function summariesOf(tx: Tx, ids: readonly number[]): Promise<OrderSummary[]> {
  const heads = new Map((await readOrderHeads(tx, ids)).map((h) => [h.id, h]));
  const lines = groupBy(await readOrderLines(tx, ids), (l) => l.orderId);
  const partsOfLine = groupBy(await readParts(tx, ids), (p) => p.lineId);
  const names = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
  const came = await readLastReceipts(tx, ids);
  return ids.flatMap((id): OrderSummary[] => {
    const h = heads.get(id);
    if (!h) return [];
    const own = lines.get(id) ?? [];
    const parts = own.flatMap((l) => partsOfLine.get(l.id) ?? []);
    const dates = parts.filter((p) => openQuantity(quantities(p)) > 0).flatMap((p) => expectedOn(p) ?? []);
    const places = [...new Set(goods(parts).map((p) => names.get(p.locationId ?? 0) ?? '–'))];
    const summary = {
      ...{ id, version: h.version },
      number: h.number,
      supplier: h.supplierName,
      ...{ state: h.state, before: h.before },
      came: progress(goods(parts).map(quantities)),
      differs: parts.some(movedByConfirmation) || own.some((l) => l.priceReason === 'confirmed'),
      ...{ orderDate: h.orderDate, nextContact: h.nextContact, sentOn: h.sentAt?.slice(0, 10) ?? null },
      lastCame: came.get(id) ?? null,
      nextDate: dates.sort()[0] ?? null,
      places: places.join(', '),
      lines: own.length,
      ...sumsOfParts(own, partsOfLine, h.currency, h.state === 'confirmed' || h.before === 'confirmed'),
      ...{ currency: h.currency, buyer: h.createdBy },
    };
    return [summary];
  });
}

/** The net of an order, and what of it is confirmed, came, and is still to come, each by its share of the line. */
function sumsOfParts(
  lines: readonly OrderLineRow[],
  partsOfLine: ReadonlyMap<number, readonly PartRow[]>,
  currency: string,
  isConfirmed: boolean,
) {
  const sums = { net: 0, confirmed: 0, received: 0, open: 0 };
  for (const l of lines) {
    const worth = (base: Quantity) => netOfLine(someOf(l, base), currency);
    const own = partsOfLine.get(l.id) ?? [];
    const total = (of: (p: PartRow) => Quantity) => worth(own.reduce((sum, p) => sum + of(p), 0));
    sums.net += netOfLine(totalLineOf(l), currency);
    sums.received += total((p) => Math.min(fromDecimal(p.received), fromDecimal(p.baseQuantity)));
    if (l.kind === 'charge' || l.kind === 'service') continue;
    sums.open += total((p) => openQuantity(quantities(p)));
    if (isConfirmed) sums.confirmed += total((p) => fromDecimal(p.baseQuantity) - fromDecimal(p.cancelled));
  }
  return sums;
}
