import type { SupplyCalendar } from '@/core/calendar';
import {
  forThoseWhoWait,
  type OrderRule,
  type Plan,
  type PlanFigures,
  type PositionParts,
  planRules,
  type Reckoning,
  reckon,
  reckonByHand,
  reckonLot,
  reckonPeg,
} from '@/core/netting';
import type { EffectivePolicy, PolicyLevel } from '@/core/policy';
import { lotForLot } from '@/core/projection';
import { fromDecimal } from '@/core/quantity';
import type { Calendars } from '@/data/repositories/calendars';
import type { Pair } from '@/data/repositories/levels';
import { type PegLine, type PegOf, pegKey, readNeedInputs } from '@/data/repositories/needInputs';
import type { NeedRow, StateRow } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import { pairKey } from '../grouping';

/** What is planned for a pair and what it is reckoned from. */
export type PairPlan = {
  readonly policy: EffectivePolicy;
  readonly levels: readonly PolicyLevel[];
  readonly plan: Plan;
  readonly figures: PlanFigures;
  readonly rule: OrderRule;
  readonly calendar: SupplyCalendar | null;
  /** The place that sends it here; null = bought. */
  readonly sentFrom: number | null;
  readonly sourceId: number | null;
};

export type PairPlans = {
  /** Null for a pair that is not planned (transit). */
  readonly at: (itemId: number, locationId: number) => PairPlan | null;
  /** The sum behind the stored need of a pair; null where no policy raises one from stock, or nothing has been computed yet. */
  readonly reckoning: (itemId: number, locationId: number, state: StateRow | undefined) => Reckoning | null;
  /** A line that is bought for one to one, and its sum; null when nobody asks for it any more. */
  readonly peg: (
    pair: Pair,
    of: PegOf,
    line: number,
  ) => { readonly line: PegLine; readonly reckoning: Reckoning } | null;
  readonly calendars: Calendars;
};

/** The sum behind a need as it is now: of the ordinary demand of its pair, or of the line it is bought for one to one. */
export const reckoningOf = (
  plans: PairPlans,
  states: ReadonlyMap<string, StateRow>,
  need: NeedRow,
): Reckoning | null => {
  const { itemId, locationId, pegOf, peg } = need;
  return pegOf === 'pair'
    ? plans.reckoning(itemId, locationId, states.get(pairKey(itemId, locationId)))
    : (plans.peg(need, pegOf, peg)?.reckoning ?? null);
};

/** What counts for a pair, from its stored state. */
export const partsOf = (
  state: Pick<StateRow, 'onHand' | 'blocked' | 'onTheWay' | 'inTrays' | 'owed' | 'planned'>,
): PositionParts => ({
  onHand: fromDecimal(state.onHand),
  blocked: fromDecimal(state.blocked),
  onTheWay: fromDecimal(state.onTheWay),
  inTrays: fromDecimal(state.inTrays),
  owed: fromDecimal(state.owed),
  planned: fromDecimal(state.planned),
});

/** The plans of all pairs of these items, from the very inputs a need run has. */
export async function readPairPlans(tx: Tx, itemIds: readonly number[], today: string): Promise<PairPlans> {
  const ids = [...new Set(itemIds)];
  const inputs = await readNeedInputs(tx, ids.length > 0 ? ids : [0], today);
  const { arrays } = inputs;
  const at = (itemId: number, locationId: number): PairPlan | null => {
    const slot = inputs.slotOf(itemId, locationId);
    if (slot === null) return null;
    return {
      policy: inputs.policy(slot),
      levels: inputs.levels(slot),
      plan: inputs.plan(slot),
      figures: inputs.figures(slot),
      rule: inputs.orderRule(slot),
      calendar: inputs.calendar(slot),
      sentFrom: inputs.locationIds[(arrays.suppliedBy[slot] as number) - 1] ?? null,
      sourceId: inputs.sourceIds[slot] || null,
    };
  };
  return {
    at,
    calendars: inputs.calendars,
    peg: ({ itemId, locationId }, of, line) => {
      const slot = inputs.slotOf(itemId, locationId);
      const own = slot === null ? undefined : inputs.pegs.get(slot)?.find((p) => p.key === pegKey(of, line));
      return own && slot !== null ? { line: own, reckoning: reckonPeg(own, inputs.orderRule(slot)) } : null;
    },
    reckoning: (itemId, locationId, state) => {
      const slot = inputs.slotOf(itemId, locationId);
      if (slot === null || !state) return null;
      const plan = inputs.plan(slot);
      const rule = inputs.orderRule(slot);
      const parts = partsOf(state);
      const byHand = arrays.beside.get(slot)?.byHand ?? 0;
      if (plan.rule === 'level') return reckon(parts, plan, rule, byHand);
      if (planRules[arrays.rule[slot] as number] === 'waiting') return reckon(parts, forThoseWhoWait, rule, byHand);
      const dated = arrays.dated.get(slot);
      if (plan.rule !== 'dated' || !dated) return byHand > 0 ? reckonByHand(byHand, rule) : null;
      const found = lotForLot(
        {
          stock: parts.onHand - parts.blocked,
          owed: parts.owed,
          receipts: dated.receipts,
          orders: dated.orders,
          dependent: parts.planned > 0 ? [{ day: 0, quantity: parts.planned }] : [],
          perDay: arrays.perDay[slot] as number,
        },
        { ...plan, horizonDay: dated.horizonDay },
      );
      return reckonLot(parts, plan, found, rule, byHand);
    },
  };
}
