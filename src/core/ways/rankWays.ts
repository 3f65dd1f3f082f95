import { type OrderRule, roundOrder } from '@/core/netting';
import { roundToStep } from '@/core/packs';
import type { Quantity } from '@/core/quantity';
import { type Delivery, figuresOf, type NeedForWays, type WayCost, type WayFigures } from './figures';

/** Where goods can come from. A supplier sells by its rule at prices that depend on the quantity; another place sends what it
 *  can spare. */
export type WaySource = {
  readonly key: string;
  readonly arrivesDay: number;
  /** The lower, the more preferred; decides between ways that cost the same. */
  readonly preference: number;
  /** What so much costs; null where no price is known. */
  readonly costOf: (quantity: Quantity) => WayCost | null;
} & (
  | {
      readonly kind: 'supplier';
      readonly rule: OrderRule;
      /** Base quantities from which another price holds. */
      readonly breaks: readonly Quantity[];
      /** Base units of a full layer; 0 where there are none. */
      readonly layer: Quantity;
    }
  | { readonly kind: 'place'; readonly surplus: Quantity; readonly step: Quantity }
);

export type Way = {
  readonly deliveries: readonly Delivery<WaySource>[];
  readonly figures: WayFigures;
};

/** So many ways are shown at most, of at most so many sources each. */
export const MOST_WAYS = 9;
/** A break or a layer further away than so many times what is missing is no way to cover it. */
const MOST_TIMES = 4;

/** The ways to cover a need, the cheapest first: each source at each useful quantity (what is missing, each break, full layers),
 *  another place where it can spare enough, and two together where one comes first for what is needed until the other does, or
 *  can't do all. Each covers what is missing. Ways without a price are left out; whoever shows them says so.
 *  Source: calculations 6. */
export function rankWays(need: NeedForWays, sources: readonly WaySource[], together: 1 | 2 = 2): Way[] {
  if (need.missing <= 0) return [];
  const alone = sources.flatMap((s) => quantitiesOf(need.missing, s).map((q) => [[s, q] as const]));
  const both = together === 1 ? [] : sources.flatMap((a) => sources.flatMap((b) => pairOf(need, a, b)));
  const ways = [...alone, ...both].flatMap((parts): Way[] => {
    const deliveries = parts.flatMap(([from, quantity]): Delivery<WaySource>[] => {
      const cost = from.costOf(quantity);
      return cost ? [{ from, quantity, arrivesDay: from.arrivesDay, cost }] : [];
    });
    return deliveries.length === parts.length ? [{ deliveries, figures: figuresOf(need, deliveries) }] : [];
  });
  // Two together never push what one does alone out of the list, unless they are the cheapest of all.
  const ranked = ways.sort(byCost);
  const single = ranked.filter((w) => w.deliveries.length === 1).length;
  let room = Math.max(ranked[0]?.deliveries.length === 1 ? 0 : 1, MOST_WAYS - single);
  return ranked.filter((w) => w.deliveries.length === 1 || room-- > 0).slice(0, MOST_WAYS);
}

const byCost = (a: Way, b: Way): number =>
  a.figures.total - b.figures.total ||
  a.deliveries.length - b.deliveries.length ||
  (a.deliveries[0]?.from.preference ?? 0) - (b.deliveries[0]?.from.preference ?? 0) ||
  (a.deliveries[0]?.arrivesDay ?? 0) - (b.deliveries[0]?.arrivesDay ?? 0) ||
  a.figures.quantity - b.figures.quantity;

/** Quantities at which a source covers all that is missing. */
function quantitiesOf(missing: Quantity, s: WaySource): Quantity[] {
  if (s.kind === 'place') {
    const whole = roundToStep(missing, s.step, 'up');
    return whole <= s.surplus ? [whole] : [];
  }
  return usefulQuantities(missing, s);
}

/** Quantities at which a supplier's way of selling covers what is missing: the least, each break, full layers; none further away than
 *  four times what is missing. */
export function usefulQuantities(
  missing: Quantity,
  s: { readonly rule: OrderRule; readonly breaks: readonly Quantity[]; readonly layer: Quantity },
): Quantity[] {
  const least = roundOrder(missing, s.rule, missing);
  const more = [...s.breaks, ...(s.layer > 0 ? [roundToStep(least, s.layer, 'up')] : [])]
    .map((q) => roundOrder(Math.max(q, missing), s.rule, missing))
    .filter((q) => q > least && q <= MOST_TIMES * Math.max(missing, least));
  return [...new Set([least, ...more])];
}

/** Two sources together: the first comes sooner and brings what is used until the second does, or all that it can spare. */
function pairOf(need: NeedForWays, a: WaySource, b: WaySource): (readonly [WaySource, Quantity])[][] {
  if (a.key === b.key) return [];
  const first = firstPart(need, a, b);
  if (first <= 0 || first >= need.missing) return [];
  const rest = need.missing - first;
  const second = b.kind === 'place' ? roundToStep(rest, b.step, 'up') : roundOrder(rest, b.rule, rest);
  if (b.kind === 'place' && second > b.surplus) return [];
  return [[[a, first] as const, [b, second] as const]];
}

function firstPart(need: NeedForWays, a: WaySource, b: WaySource): Quantity {
  if (a.kind === 'place') {
    // What a place can spare goes as far as it does; another order of the two would be the same way again.
    const spare = roundToStep(Math.min(a.surplus, need.missing), a.step, 'down');
    return b.kind === 'place' && (a.surplus < b.surplus || (a.surplus === b.surplus && a.key > b.key)) ? 0 : spare;
  }
  if (b.kind === 'place' || need.runOutDay === null || a.arrivesDay >= b.arrivesDay) return 0;
  const gap = Math.max(0, b.arrivesDay - Math.max(need.runOutDay, a.arrivesDay));
  const used = Math.ceil(gap * need.perDay);
  return used > 0 ? roundOrder(used, a.rule, used) : 0;
}
