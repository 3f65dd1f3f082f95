import { type planRules, roundOrder } from '@/core/netting';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import type { Pair } from '@/data/repositories/levels';
import { type NeedInputs, type PegLine, type PegOf, pegKey } from '@/data/repositories/needInputs';
import type { FreshNeed, NeedChange, NeedRow, StateRow } from '@/data/repositories/planning';

/** What makes two sightings of a need the same: quantity, causes, who supplies it, last decision. */
export const fingerprintOf = (n: {
  suggested: string;
  state: string;
  cause: string;
  sourceId: number | null;
  supplyLocationId: number | null;
  lastDecisionId: number | null;
}): string =>
  [
    n.suggested,
    n.state === 'none' ? '' : n.cause,
    n.supplyLocationId === null ? (n.sourceId ?? 0) : `p${n.supplyLocationId}`,
    n.lastDecisionId ?? 0,
  ].join('|');

/** As the database writes a DECIMAL(18,6) back, so stored and computed figures compare as text. */
export const sixDecimals = (q: number): string => {
  const [whole, fraction = ''] = toDecimal(q).split('.');
  return `${whole}.${fraction.padEnd(6, '0')}`;
};

/** The need of the ordinary demand of a pair. Why: below its minimum, or a shortage on the way where it is looked at day by
 *  day (nothing of the kind without a policy); other places that ask; customers who wait; what is asked for by hand. */
export function ordinaryNeed(s: StateRow, rule: (typeof planRules)[number], byHand: Quantity): FreshNeed {
  const own = fromDecimal(s.shortage) > byHand;
  const causes = [
    ...(!own || rule === 'waiting' || rule === 'none' ? [] : rule === 'dated' ? ['dated_demand'] : ['below_min']),
    ...(own && fromDecimal(s.planned) > 0 ? ['shop_asks'] : []),
    ...(own && fromDecimal(s.backordered) > 0 ? ['customer_waits'] : []),
    ...(byHand > 0 ? ['by_hand'] : []),
  ];
  const cause = s.needState === 'none' ? '' : causes.join(',');
  return {
    ...{ itemId: s.itemId, locationId: s.locationId, pegOf: 'pair', peg: 0, state: s.needState, shortage: s.shortage },
    ...{ suggested: s.suggested, sourceId: s.sourceId, supplyLocationId: s.supplyLocationId, cause },
  };
}

/** One need for each line that is bought for one to one, of exactly what nothing covers of it; those whose line is no longer
 *  asked for are needs no more. */
export function peggedNeeds(inputs: NeedInputs, pairs: readonly Pair[], had: readonly NeedRow[]): FreshNeed[] {
  const fresh = pairs.flatMap(({ itemId, locationId }): FreshNeed[] => {
    const at = inputs.slotOf(itemId, locationId);
    return (at === null ? [] : (inputs.pegs.get(at) ?? [])).map((p) => ({
      ...{ itemId, locationId, pegOf: p.of, peg: p.line },
      state: p.rest > 0 ? 'open' : p.pegged > 0 ? 'decided' : 'none',
      shortage: sixDecimals(p.rest),
      suggested: sixDecimals(p.rest > 0 ? roundOrder(p.rest, inputs.orderRule(at as number), p.rest) : 0),
      sourceId: inputs.sourceIds[at as number] || null,
      supplyLocationId: p.straight
        ? null
        : (inputs.locationIds[(inputs.arrays.suppliedBy[at as number] as number) - 1] ?? null),
      cause: p.rest === 0 ? '' : pegCause(p),
    }));
  });
  const asked = new Set(fresh.map((n) => pegKey(n.pegOf as PegOf, n.peg)));
  const marked = new Set(pairs.map((p) => `${p.itemId}/${p.locationId}`));
  const gone = had.filter(
    (n) => n.pegOf !== 'pair' && !asked.has(pegKey(n.pegOf, n.peg)) && marked.has(`${n.itemId}/${n.locationId}`),
  );
  const nothing = { state: 'none' as const, shortage: sixDecimals(0), suggested: sixDecimals(0), cause: '' };
  return [...fresh, ...gone.map((n): FreshNeed => ({ ...n, ...nothing }))];
}

/** Its causes, in their fixed order. */
const pegCause = ({ of, cut }: PegLine): string => {
  if (of === 'transfer_line') return cut ? 'shop_asks,supply_cut' : 'shop_asks';
  return cut ? 'supply_cut,customer_waits' : 'customer_waits';
};

const needKey = (n: Pick<NeedRow, 'itemId' | 'locationId' | 'pegOf' | 'peg'>) =>
  `${n.itemId}/${n.locationId}/${n.pegOf}${n.peg}`;

/** Needs that are not as they are stored. */
export function changedNeeds(fresh: readonly FreshNeed[], stored: readonly NeedRow[], now: string): NeedChange[] {
  const needs = new Map(stored.map((n) => [needKey(n), n]));
  return fresh.flatMap((n): NeedChange[] => {
    const had = needs.get(needKey(n));
    if (!had && n.state === 'none') return [];
    const fingerprint = fingerprintOf({ ...n, lastDecisionId: had?.lastDecisionId ?? null });
    if (had?.fingerprint === fingerprint && had.state === n.state && had.shortage === n.shortage) return [];
    const firstSeen = had && had.state !== 'none' ? had.firstSeen : now;
    const { itemId, locationId, pegOf, peg, state, shortage, suggested, sourceId, supplyLocationId, cause } = n;
    const where = { itemId, locationId, pegOf, peg };
    return [
      { ...where, state, shortage, suggested, sourceId, supplyLocationId, cause, fingerprint, firstSeen, at: now },
    ];
  });
}
