import { type BusinessDate, nextSlot } from '@/core/calendar';
import { minorOf } from '@/core/landed';
import { eachText, lineNet } from '@/core/money';
import type { NeedCause } from '@/core/netting';
import { baseQuantity, packsIn } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import type { OpenDraft, TrayChoice } from '@/core/purchase';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { ok, type Result } from '@/core/result';
import { type BreakHint, breakHint } from '@/core/ways';
import { readCalendars } from '@/data/repositories/calendars';
import { readItemCategories, readItemsByIds, readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCausesOf } from '@/data/repositories/decisions';
import { readRates } from '@/data/repositories/demand';
import { type GoodsRow, readFreightTerms, readGoods } from '@/data/repositories/landed';
import { readOpenNeeds } from '@/data/repositories/planning';
import { readTrayLines, type TrayLineRow } from '@/data/repositories/trays';
import { readWeighing } from '@/data/repositories/ways';
import { readSnapshot } from '@/data/transaction';
import { type Buying, breaksAt, readBuying } from '../catalogue/buying';
import { readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { groupBy, pairKey, pairMap } from '../grouping';
import { type AskedRows, GROUP, keepList, type Page, readRows } from '../lists/keptList';
import { type ComingLine, comingLines, trayTotals } from '../planning/trayTotals';
import { type Spending, spendingOf } from './spending';
import { type ComingOrder, readTrayPlans } from './trayOrders';

export type TrayLineView = {
  readonly id: number;
  readonly itemId: number;
  readonly itemName: string;
  readonly itemNumber: string;
  readonly location: string;
  readonly packs: Quantity;
  readonly packName: string;
  readonly base: Quantity;
  readonly unit: string;
  readonly net: number | null;
  readonly each: string | null;
  /** Of net and each. */
  readonly currency: string;
  /** Why it was decided; none: brought forward. */
  readonly causes: readonly NeedCause[];
  /** What the next break of its price would do, in the supplier's currency; null where nothing is gained. */
  readonly hint: (BreakHint & { readonly packs: Quantity }) | null;
};

/** A draft, or an order that its supplier knows by its number. */
export type Joined = { readonly id: number; readonly begun: BusinessDate; readonly told: string | null };

/** One order that a tray will become. */
export type TrayOrder = {
  readonly places: readonly string[];
  readonly lines: number;
  readonly net: number;
  readonly arrives: BusinessDate;
  /** The draft it joins; null = a new order. */
  readonly joins: Joined | null;
};

export type TrayView = {
  readonly supplierId: number;
  readonly supplier: string;
  readonly blocked: boolean;
  readonly arrives: string;
  /** The next day on which orders go out, and until when on it (HH:MM); null = all day. */
  readonly slot: BusinessDate;
  readonly cutOff: string | null;
  /** In the currency of the supplier; and in the company's, null where no rate is on file. */
  readonly net: number;
  readonly netInBase: number | null;
  /** The same with all open needs of the supplier. */
  readonly withNeeds: number;
  readonly needs: number;
  readonly currency: string;
  readonly orderMinimum: number;
  /** Goods value from which freight is free; null where it never is, or costs nothing. */
  readonly freeFreight: number | null;
  readonly freight: number;
  /** Kilograms and litres, two decimals; `unweighed` lines have none on file and are not in them. */
  readonly weightKg: number;
  readonly volumeL: number;
  readonly unweighed: number;
  readonly paymentTerms: string;
  readonly deliveryTerms: string;
  readonly held: boolean;
  readonly choice: TrayChoice;
  readonly orders: readonly TrayOrder[];
  /** Drafts of the supplier that it could join. */
  readonly drafts: readonly Joined[];
  /** Where in the list its head stands; its lines follow. */
  readonly start: number;
  readonly lines: number;
};

export type TrayEntry =
  | { readonly kind: 'tray'; readonly tray: TrayView }
  | ({ readonly kind: 'line' } & TrayLineView)
  /** A line that was ordered or taken back since. */
  | { readonly kind: 'gone'; readonly id: number };
export type TraysHead = {
  readonly list: string;
  /** Entries: lines and heads of trays. */
  readonly count: number;
  readonly trays: readonly TrayView[];
  readonly currency: string;
  /** Budgets of this month that these trays count in. */
  readonly spending: readonly Spending[];
  readonly today: BusinessDate;
};
type About = { readonly trays: readonly TrayView[] };

/** Opens the trays: one per supplier that has something in it, with its total against the supplier's minimum and free freight, what
 *  it weighs, when it can go out, and what it will become. Errors: forbidden. */
export async function openTrays(deps: Deps, actor: Actor): Promise<Result<TraysHead, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  const { trays, lines, ...head } = await readSnapshot(deps.pool, async (tx) => {
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company), timeZone: company.timeZone };
    const { today } = at;
    const lines = await readTrayLines(tx);
    const needs = (await readOpenNeeds(tx, actor.locations)).filter((n) => n.supplierId !== null);
    const book = await readBuying(
      tx,
      [...lines, ...needs].map((l) => l.itemId),
    );
    const suppliers = await readSuppliers(tx);
    const calendars = await readCalendars(tx, today);
    const exchange = await readExchange(tx, company.currency, today);
    const coming = comingLines(lines, book, suppliers, today);
    const totals = trayTotals(coming);
    const netOf = new Map(coming.flatMap((c) => c.lines.map((l) => [l.id, c] as const)));
    const goods = new Map((await readGoods(tx, [...new Set(lines.map((l) => l.itemId))])).map((g) => [g.id, g]));
    const freight = new Map(
      (await readFreightTerms(tx, [...new Set(lines.map((l) => l.supplierId))])).map((f) => [f.id, f]),
    );
    const plans = await readTrayPlans(tx, at, { book, calendars });
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const linesOf = groupBy(lines, (l) => l.supplierId);
    const needsOf = groupBy(needs, (n) => n.supplierId as number);
    const categories = await readItemCategories(tx);
    let start = 0;
    const trays = suppliers.flatMap((s): TrayView[] => {
      const own = linesOf.get(s.id) ?? [];
      if (own.length === 0) return [];
      const terms = freight.get(s.id);
      const net = totals.get(s.id) ?? 0;
      const weight = weightOf(own, goods);
      const calendar = calendars.supply(s.id, { days: s.leadTimeDays, kind: s.leadTimeKind }, null);
      const plan = plans(s.id);
      const orders = plan.orders(s, own);
      const open = needsOf.get(s.id) ?? [];
      const slot = nextSlot(calendar, today, at.time);
      const fixed = terms?.fixed ? minorOf(terms.fixed, s.currency) : 0;
      const byWeight = terms?.perKg ? Math.round(Number(minorOf(terms.perKg, s.currency)) * weight.kg) : 0;
      const tray: TrayView = {
        ...{ supplierId: s.id, supplier: s.name, blocked: s.status === 'blocked' },
        arrives:
          orders
            .map((o) => o.arrives)
            .sort()
            .at(-1) ?? today,
        ...{ slot, cutOff: calendar.cutOff, net, netInBase: exchange.toBase(net, s.currency) },
        withNeeds:
          net + open.reduce((a, n) => a + netOfNeed(book.bySource.get(n.sourceId ?? 0), n.suggested, today), 0),
        ...{ needs: open.length, currency: s.currency, orderMinimum: s.orderMinimum },
        freeFreight: terms?.freeFrom && fixed + byWeight > 0 ? minorOf(terms.freeFrom, s.currency) : null,
        ...{ freight: fixed + byWeight, weightKg: weight.kg, volumeL: weight.litres, unweighed: weight.unknown },
        ...{ paymentTerms: s.paymentTerms, deliveryTerms: s.deliveryTerms, held: plan.held, choice: plan.choice },
        orders: orders.map((o) => orderView(o, places, netOf)),
        drafts: [...new Map(orders.flatMap((o) => o.fitting).map((d) => [d.id, joinedView(d)])).values()],
        ...{ start, lines: own.length },
      };
      start += 1 + own.length;
      return [tray];
    });
    const inTrays = coming.flatMap((c) => {
      const [first] = c.lines;
      const currency = book.bySource.get(first?.sourceId ?? 0)?.source.currency ?? company.currency;
      return first
        ? [{ categoryId: categories.get(first.itemId) ?? 0, net: exchange.toBase(c.net, currency) ?? 0 }]
        : [];
    });
    const spending = await spendingOf(tx, today, company.currency, exchange, inTrays);
    return { trays, lines: linesOf, currency: company.currency, spending, today };
  });
  const ids = trays.flatMap((t) => [GROUP, ...(lines.get(t.supplierId) ?? []).map((l) => l.id)]);
  const about: About = { trays };
  const list = await keepList(deps, actor, 'trays', { ids, about });
  return ok({ list, count: ids.length, trays, ...head });
}

function netOfNeed(buying: Buying | undefined, suggested: string, today: string): number {
  const base = fromDecimal(suggested);
  const price = buying?.priceAt(packsIn(base, buying.content), today);
  return buying && price ? lineNet(base, price, buying.source.currency) : 0;
}

/** What lines weigh and how large they are, and how many say neither. */
function weightOf(lines: readonly TrayLineRow[], goods: ReadonlyMap<number, GoodsRow>) {
  let [kg, litres, unknown] = [0, 0, 0];
  for (const l of lines) {
    const g = goods.get(l.itemId);
    const units = fromDecimal(l.baseQuantity) / MICRO;
    if (g?.weightKg == null) unknown += 1;
    kg += Number(g?.weightKg ?? 0) * units;
    litres += Number(g?.volumeL ?? 0) * units;
  }
  return { kg: Math.round(kg * 100) / 100, litres: Math.round(litres * 100) / 100, unknown };
}

const joinedView = ({ id, begun, told }: OpenDraft): Joined => ({ id, begun, told: told ?? null });

function orderView(
  { lines, joins, arrives }: ComingOrder,
  places: ReadonlyMap<number, string>,
  netOf: ReadonlyMap<number, { readonly net: number }>,
): TrayOrder {
  const own = new Set(lines.flatMap((l) => netOf.get(l.id) ?? []));
  return {
    places: [...new Set(lines.map((l) => places.get(l.locationId) ?? ''))],
    lines: own.size,
    net: [...own].reduce((a, c) => a + c.net, 0),
    arrives,
    joins: joins && joinedView(joins),
  };
}

/** A break that would last longer than so many days is no hint. */
const HINT_DAYS = 180;

/** Up to 200 entries of the opened trays, as they are now. A line is priced with all that goes on one order line with it.
 *  Errors: forbidden, list_gone. */
export async function readTrayRows(
  deps: Deps,
  actor: Actor,
  asked: AskedRows,
): Promise<Result<Page<TrayEntry>, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readRows(deps, actor, 'trays', asked, async (tx, { entries, about }) => {
    const { trays } = about as About;
    const company = await readCompany(tx);
    const today = todayOf(deps, company);
    const all = await readTrayLines(tx);
    const wanted = new Set(entries);
    const own = all.filter((l) => wanted.has(l.id));
    const itemIds = [...new Set(own.map((l) => l.itemId))];
    // All that goes to these suppliers: breaks may be counted over the whole order.
    const theirs = new Set(own.map((l) => l.supplierId));
    const together = all.filter((l) => theirs.has(l.supplierId));
    const book = await readBuying(
      tx,
      together.map((l) => l.itemId),
    );
    const coming = comingLines(together, book, await readSuppliers(tx), today);
    const comes = new Map(coming.flatMap((c) => c.lines.map((l) => [l.id, c])));
    const items = await readItemsByIds(tx, itemIds);
    const places = new Map((await readLocations(tx)).map((l) => [l.id, l.name]));
    const causes = await readCausesOf(
      tx,
      own.map((l) => l.decisionId),
    );
    const rates = pairMap(await readRates(tx, itemIds));
    const { carrying } = await readWeighing(tx);
    const lines = new Map(
      own.map((l): [number, TrayEntry] => {
        const item = items.get(l.itemId);
        const buying = book.bySource.get(l.sourceId);
        const price = comes.get(l.id)?.price ?? null;
        const base = fromDecimal(l.baseQuantity);
        const perDay = fromDecimal(rates.get(pairKey(l.itemId, l.locationId))?.perDay ?? '0');
        const line = {
          id: l.id,
          itemId: l.itemId,
          itemName: item?.name ?? '',
          itemNumber: item?.number ?? '',
          location: places.get(l.locationId) ?? '',
          packs: fromDecimal(l.packQuantity),
          packName: buying?.packName ?? item?.unitName ?? '',
          base,
          unit: item?.unitName ?? '',
          net: buying && price ? lineNet(base, price, buying.source.currency) : null,
          each: price && eachText(price, buying?.source.currency ?? company.currency),
          currency: buying?.source.currency ?? company.currency,
          causes: causes.get(l.decisionId) ?? [],
          hint: buying ? hintOf(buying, base, comes.get(l.id), { perDay, today, rate: carrying / 1000 }) : null,
        };
        return [l.id, { kind: 'line', ...line }];
      }),
    );
    return [...entries].map((id, i): TrayEntry => {
      const tray = trays.find((t) => t.start === asked.from + i);
      if (id === GROUP && tray) return { kind: 'tray', tray };
      return lines.get(id) ?? { kind: 'gone', id };
    });
  });
}

/** The next break of a line, with what counts together with it: the same goods for other places, and other lines of the order where
 *  breaks count over an item or a price group. */
function hintOf(
  buying: Buying,
  quantity: Quantity,
  coming: ComingLine | undefined,
  { perDay, today, rate }: { readonly perDay: Quantity; readonly today: string; readonly rate: number },
): TrayLineView['hint'] {
  const { currency } = buying.source;
  const own = packsIn(quantity, buying.content);
  const all = coming?.lines.reduce((sum, l) => sum + fromDecimal(l.packQuantity), 0) ?? own;
  const counted = Math.max(own, coming?.over ?? own) - own;
  const beside = [{ buying, packs: all - own }, ...(coming?.beside ?? [])].filter((b) => b.packs > 0);
  const netOf = (b: Buying, base: Quantity, over: Quantity) => {
    const price = b.priceAt(over, today);
    return price && lineNet(base, price, currency);
  };
  const over = (q: Quantity) => packsIn(q, buying.content) + counted;
  const hint = breakHint({
    ...{ quantity, perDay, rate, mostDays: HINT_DAYS },
    breaks: breaksAt(buying, today).map((at) => at - baseQuantity(counted, buying.content)),
    priceOf: (q) => netOf(buying, q, over(q)),
    othersAt: (q) =>
      beside.reduce((sum, b) => sum + (netOf(b.buying, baseQuantity(b.packs, b.buying.content), over(q)) ?? 0), 0),
  });
  return hint && { ...hint, packs: packsIn(hint.at, buying.content) };
}
