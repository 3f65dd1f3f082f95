import type { Minor } from '@/core/money';
import { MICRO, type Quantity } from '@/core/quantity';

/** What a shortage costs and how stock goes on, for one need. Days count from today. */
export type NeedForWays = {
  /** What is missing, before any rounding. */
  readonly missing: Quantity;
  /** Mean use per day; 0 without one. */
  readonly perDay: Quantity;
  /** The day on which stock runs out; null when it does not in the time looked at. */
  readonly runOutDay: number | null;
  /** What a piece that can't be sold loses, in minor units of the base currency. */
  readonly lostMargin: Minor;
  /** Carrying cost of a year as a share of the value: 0.2 = 20 %. */
  readonly carryingRate: number;
};

/** What a quantity costs from one source, in minor units of the base currency: goods net, charges and duty that fall on it, and
 *  placing the order. Transport of a transfer is a charge. */
export type WayCost = { readonly goods: Minor; readonly charges: Minor; readonly order: Minor };

/** One delivery of a way. */
export type Delivery<S> = {
  readonly from: S;
  readonly quantity: Quantity;
  readonly arrivesDay: number;
  readonly cost: WayCost;
};

/** All that is weighed of a way, in minor units of the base currency; quantities in millionths. */
export type WayFigures = {
  readonly quantity: Quantity;
  /** Beyond what is missing. */
  readonly overshoot: Quantity;
  /** What is paid now. */
  readonly cash: Minor;
  /** Goods and charges per base unit. */
  readonly landedEach: number;
  /** Goods and charges of what is missing: what lies there afterwards is stock, not cost. */
  readonly goodsAndCharges: number;
  readonly order: Minor;
  readonly carrying: number;
  /** Pieces that can't be sold because it comes too late, and what that loses. */
  readonly short: number;
  readonly shortCost: number;
  /** goods and charges + order + carrying + short. */
  readonly total: number;
  /** Days between a delivery and the day on which there would be nothing without it, of the tightest one: below 0 it comes too late;
   *  null when stock does not run out. */
  readonly slackDays: number | null;
};

const DAYS_A_YEAR = 365;

/** The figures of a way: its deliveries in the order in which they come.
 *  carrying = value of the overshoot over the days until it is needed (use of what is missing, then half of its own), plus value of
 *  what comes before stock runs out over those days; without use the overshoot is carried for a year.
 *  short = use per day over the days without stock: until the first delivery, and between deliveries once it is used up.
 *  Source: calculations 6; common practice (total relevant cost: ordering, holding, shortage). */
export function figuresOf<S>(need: NeedForWays, deliveries: readonly Delivery<S>[]): WayFigures {
  const sum = (of: (d: Delivery<S>) => number) => deliveries.reduce((a, d) => a + of(d), 0);
  const quantity = sum((d) => d.quantity);
  const paid = sum((d) => d.cost.goods + d.cost.charges);
  const order = sum((d) => d.cost.order);
  const each = quantity > 0 ? paid / (quantity / MICRO) : 0;
  const overshoot = Math.max(0, quantity - need.missing);
  const perYear = (value: number, days: number) => (value * need.carryingRate * days) / DAYS_A_YEAR;
  const overDays = need.perDay > 0 ? need.missing / need.perDay + overshoot / (2 * need.perDay) : DAYS_A_YEAR;
  const early = sum((d) =>
    perYear(d.cost.goods + d.cost.charges, Math.max(0, (need.runOutDay ?? d.arrivesDay) - d.arrivesDay)),
  );
  const carrying = perYear(each * (overshoot / MICRO), overDays) + early;
  const short = shortUnits(need, deliveries);
  const goodsAndCharges = each * (Math.min(quantity, need.missing) / MICRO);
  const shortCost = short * need.lostMargin;
  return {
    ...{
      quantity,
      overshoot,
      cash: paid + order,
      landedEach: each,
      goodsAndCharges,
      order,
      carrying,
      short,
      shortCost,
    },
    total: goodsAndCharges + order + carrying + shortCost,
    slackDays: slackOf(need, deliveries),
  };
}

/** Days between running out and arriving, of whichever delivery is the tightest: a later one has as long as what came before it
 *  lasts. Null where nothing runs out. */
function slackOf<S>(need: NeedForWays, deliveries: readonly Delivery<S>[]): number | null {
  if (need.runOutDay === null) return null;
  let [until, slack] = [need.runOutDay, Number.POSITIVE_INFINITY];
  for (const d of [...deliveries].sort((a, b) => a.arrivesDay - b.arrivesDay)) {
    slack = Math.min(slack, Math.floor(until - d.arrivesDay));
    if (need.perDay > 0) until = Math.max(until, d.arrivesDay) + d.quantity / need.perDay;
  }
  return slack;
}

/** Pieces that are asked for while nothing is there, until the last delivery. */
function shortUnits<S>(need: NeedForWays, deliveries: readonly Delivery<S>[]): number {
  if (need.runOutDay === null || need.perDay <= 0) return 0;
  let [until, days] = [need.runOutDay, 0];
  for (const d of [...deliveries].sort((a, b) => a.arrivesDay - b.arrivesDay)) {
    days += Math.max(0, d.arrivesDay - until);
    until = Math.max(until, d.arrivesDay) + d.quantity / need.perDay;
  }
  return (days * need.perDay) / MICRO;
}
