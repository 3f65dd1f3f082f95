import { addDays, type BusinessDate, daysBetween } from '@/core/calendar';
import { decimalsOf, type Minor } from '@/core/money';
import { packsIn } from '@/core/packs';
import { type Actor, may } from '@/core/people';
import { fromDecimal, MICRO, type Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { withoutTax } from '@/core/selling';
import { type Fraction, fraction } from '@/core/units';
import { rankWays, type WaySource } from '@/core/ways';
import { readItemsByIds, readSaleTerms } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readCustomerOfDemands } from '@/data/repositories/customerOrders';
import { findNeed } from '@/data/repositories/planning';
import { countLinesToCome, readWeighing } from '@/data/repositories/ways';
import type { Tx } from '@/data/sql';
import { readSnapshot } from '@/data/transaction';
import { arrivalFrom, type Buying, type BuyingBook, breaksAt, orderRuleOf, readBuying } from '../catalogue/buying';
import { estimateLanded, readLandedBook } from '../cost/estimateLanded';
import { readExchange } from '../cost/exchange';
import { type Deps, timeOf, todayOf } from '../deps';
import type { Failure } from '../failure';
import { stockLinesOf } from '../stock/readStock';
import { readPairPlans } from './pairPlans';
import { readUrgency } from './urgency';

/** What one supplier or place brings; the other of the two is null. */
export type WayDelivery = {
  readonly sourceId: number | null;
  readonly locationId: number | null;
  /** Supplier or place. */
  readonly name: string;
  readonly packs: Quantity;
  readonly packName: string;
  readonly base: Quantity;
  readonly arrives: BusinessDate;
};

/** A way to cover a need: from one supplier or another place, or from two together, with everything that was weighed. Amounts in
 *  minor units of the company's currency, rounded. */
export type WayView = {
  readonly deliveries: readonly [WayDelivery, ...WayDelivery[]];
  readonly slackDays: number | null;
  readonly cash: Minor;
  /** Landed cost of a base unit in minor units, with two decimals. */
  readonly each: number;
  readonly overshoot: Quantity;
  readonly goodsAndCharges: Minor;
  readonly order: Minor;
  readonly carrying: Minor;
  /** Base units that can't be sold because it comes too late. */
  readonly short: number;
  readonly shortCost: Minor;
  readonly total: Minor;
  /** Among how many lines sums for a whole order were shared. */
  readonly sharedBy: number;
  /** What the row shows: the supplier chosen, at the quantity suggested. */
  readonly shown: boolean;
};

export type WaysView = {
  readonly ways: readonly WayView[];
  readonly missing: Quantity;
  readonly unit: string;
  readonly currency: string;
  readonly runOut: BusinessDate | null;
  /** Sources that are no way, and why. */
  readonly left: readonly { readonly name: string; readonly why: 'no_price' | 'blocked' }[];
};

type Named = {
  readonly way: WaySource;
  readonly name: string;
  readonly packName: string;
  readonly content: Fraction;
  readonly sharedBy: number;
};

/** The ways to cover a need as it is now, the cheapest first: every supplier of the item at each useful quantity, and places
 *  that could send. Sums for a whole order (freight, fixed charges, placing it) are shared among the lines that would stand on it:
 *  those in the supplier's tray and its open needs. Errors: forbidden, not_found. */
export async function readWays(deps: Deps, actor: Actor, needId: number): Promise<Result<WaysView, Failure>> {
  const allowed = may(actor, 'needs.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<WaysView, Failure>>(deps.pool, async (tx) => {
    const need = await findNeed(tx, needId);
    if (!need || (actor.locations !== null && !actor.locations.includes(need.locationId)))
      return err({ kind: 'not_found', what: 'need' });
    const { itemId, locationId } = need;
    const company = await readCompany(tx);
    const at = { today: todayOf(deps, company), time: timeOf(deps, company) };
    const item = (await readItemsByIds(tx, [itemId])).get(itemId);
    if (!item) return err({ kind: 'not_found', what: 'item' });
    const weighing = await readWeighing(tx);
    const plans = await readPairPlans(tx, [itemId], at.today);
    const perDay = plans.at(itemId, locationId)?.figures.perDay ?? 0;
    const book = await readBuying(tx, [itemId]);
    const { runOutDay } = (await readUrgency(tx, at, [need], { book, calendars: plans.calendars }))(need);
    const suppliers = await suppliersOf(
      tx,
      at,
      company.currency,
      weighing.order,
      { book, calendars: plans.calendars },
      need,
    );
    const customer =
      need.pegOf === 'customer_demand' ? (await readCustomerOfDemands(tx, [need.peg])).get(need.peg) : undefined;
    // What goes straight to a customer is sent by nobody but a supplier.
    const places =
      customer?.straight === 1 ? [] : await placesOf(deps, tx, at.today, weighing.transport, need, item.unitName);
    const named = [...suppliers.named, ...places];
    const first = suppliers.named.find((n) => n.way.key === `s${need.sourceId}`) ?? named[0];
    const missing = fromDecimal(need.shortage);
    const cost = first?.way.costOf(missing);
    const landed = cost && missing > 0 ? (cost.goods + cost.charges) / (missing / MICRO) : 0;
    const ways = rankWays(
      {
        ...{ missing, perDay, runOutDay, carryingRate: weighing.carrying / 1000 },
        lostMargin: Math.max(0, (await sellsAt(tx, itemId, company.currency)) - landed),
      },
      named.map((n) => n.way),
    );
    const byKey = new Map(named.map((n) => [n.way.key, n]));
    return ok({
      ways: ways.flatMap(({ deliveries, figures: f }): WayView[] => {
        const parts = deliveries.flatMap((d): (WayDelivery & { sharedBy: number })[] => {
          const n = byKey.get(d.from.key);
          if (!n) return [];
          return [
            {
              ...{ ...idsOf(d.from.key), name: n.name, packs: packsIn(d.quantity, n.content), packName: n.packName },
              ...{ base: d.quantity, arrives: addDays(at.today, d.arrivesDay), sharedBy: n.sharedBy },
            },
          ];
        });
        const [first, ...rest] = parts;
        if (!first || parts.length < deliveries.length) return [];
        return [
          {
            deliveries: [first, ...rest],
            ...{ slackDays: f.slackDays, cash: Math.round(f.cash), each: Math.round(f.landedEach * 100) / 100 },
            ...{ overshoot: f.overshoot, order: Math.round(f.order), goodsAndCharges: Math.round(f.goodsAndCharges) },
            ...{ carrying: Math.round(f.carrying), short: Math.round(f.short), shortCost: Math.round(f.shortCost) },
            ...{ total: Math.round(f.total), sharedBy: Math.max(...parts.map((p) => p.sharedBy)) },
            shown: rest.length === 0 && first.sourceId === need.sourceId && first.base === fromDecimal(need.suggested),
          },
        ];
      }),
      ...{ missing, unit: item.unitName, currency: company.currency, left: suppliers.left },
      runOut: runOutDay === null ? null : addDays(at.today, runOutDay),
    });
  });
}

const idsOf = (key: string) => ({
  sourceId: key.startsWith('s') ? Number(key.slice(1)) : null,
  locationId: key.startsWith('p') ? Number(key.slice(1)) : null,
});

/** What a base unit sells at without tax, in minor units; 0 where it is not on file. */
async function sellsAt(tx: Tx, itemId: number, currency: string): Promise<number> {
  const [terms] = await readSaleTerms(tx, [itemId]);
  const price = terms && withoutTax({ ...terms, withTax: Boolean(terms.withTax) }, 6);
  return price ? Number(price) * 10 ** decimalsOf(currency) : 0;
}

type At = { readonly today: BusinessDate; readonly time: string };
type Pair = { readonly itemId: number; readonly locationId: number };

/** Suppliers of an item as ways to a place; those that are blocked or have no price are named. */
async function suppliersOf(
  tx: Tx,
  at: At,
  currency: string,
  orderCost: Minor,
  { book: bought, calendars }: { readonly book: BuyingBook; readonly calendars: Parameters<typeof arrivalFrom>[0] },
  { locationId }: Pair,
): Promise<{ named: Named[]; left: WaysView['left'] }> {
  const buyings = [...bought.bySource.values()];
  const book = await readLandedBook(tx, buyings);
  const exchange = await readExchange(tx, currency, at.today);
  const lines = new Map(
    (
      await countLinesToCome(
        tx,
        buyings.map((b) => b.source.supplierId),
      )
    ).map((l) => [l.supplierId, l.lines]),
  );
  const costOf = (b: Buying, sharedBy: number) => (quantity: Quantity) => {
    const landed = estimateLanded(book, b, quantity, packsIn(quantity, b.content), exchange, at.today);
    if (!landed) return null;
    const charges = landed.shares
      .filter((s) => s.into !== 'recoverable')
      .reduce((a, s) => a + (s.perOrder ? s.minor / sharedBy : s.minor), 0);
    return { goods: landed.goods, charges, order: orderCost / sharedBy };
  };
  const named: Named[] = [];
  const left: { name: string; why: 'no_price' | 'blocked' }[] = [];
  for (const b of buyings) {
    const { source } = b;
    const sharedBy = Math.max(1, lines.get(source.supplierId) ?? 1);
    const cost = costOf(b, sharedBy);
    const rule = orderRuleOf(b);
    if (!source.supplierActive) left.push({ name: source.supplierName, why: 'blocked' });
    else if (cost(Math.max(rule.packMicro, rule.minimum)) === null)
      left.push({ name: source.supplierName, why: 'no_price' });
    else
      named.push({
        ...{ name: source.supplierName, packName: b.packName ?? '', content: b.content, sharedBy },
        way: {
          ...{ key: `s${source.id}`, kind: 'supplier', preference: source.preference, costOf: cost, rule },
          arrivesDay: daysBetween(at.today, arrivalFrom(calendars, b, locationId, at)),
          breaks: breaksAt(b, at.today),
          layer: 0,
        },
      });
  }
  return { named, left };
}

/** Other places as ways: what each can spare, at what it cost, plus sending it. */
async function placesOf(
  deps: Deps,
  tx: Tx,
  today: BusinessDate,
  transport: Minor,
  { itemId, locationId }: Pair,
  unit: string,
): Promise<Named[]> {
  const open = (await readLocations(tx)).filter((l) => l.closed === 0);
  const [stock] = await stockLinesOf(
    deps,
    tx,
    [itemId],
    open.map((l) => l.id),
  );
  const arrives = stock?.sentArrives.find((a) => a.locationId === locationId)?.date ?? today;
  return (stock?.places ?? [])
    .filter((p) => p.locationId !== locationId && p.surplus > 0 && p.onHand > 0)
    .map((p) => ({
      ...{ name: p.location, packName: unit, content: fraction(1n), sharedBy: 1 },
      way: {
        ...{ key: `p${p.locationId}`, kind: 'place', preference: 99, surplus: p.surplus, step: MICRO },
        arrivesDay: daysBetween(today, arrives),
        costOf: (q: Quantity) => ({ goods: Math.round((p.value * q) / p.onHand), charges: transport, order: 0 }),
      },
    }));
}
