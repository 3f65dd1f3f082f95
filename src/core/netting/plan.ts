import { roundToStep } from '@/core/packs';
import type { EffectivePolicy, PolicyKind, Trigger } from '@/core/policy';
import { MICRO, type Quantity } from '@/core/quantity';
import { type Advice, type AdviceInput, adviseMinimum } from '@/core/safety';

export const planTermLabels = [
  'refill_to_max',
  'refill_to_min',
  'reorder_point',
  'display_min',
  'lead_time_demand',
  'safety_stock',
  'undershoot',
  'cover_demand',
  'to_whole',
] as const;
/** What a level is made of, each line with what it came from: the first part of a reckoning. */
export type PlanTermLabel = (typeof planTermLabels)[number];
export type PlanTerm = {
  readonly label: PlanTermLabel;
  readonly quantity: Quantity;
  /** Use a day and days that a demand was taken over. */
  readonly over?: { readonly perDay: Quantity; readonly days: number };
};

/** Refill to a level once the position has come to another: all kinds but lot-for-lot. */
export type LevelPlan = {
  readonly rule: 'level';
  readonly kind: PolicyKind | 'no_policy';
  /** The trigger level. */
  readonly level: Quantity;
  readonly refillTo: Quantity;
  /** Above this there is too much; null where nothing says so. */
  readonly max: Quantity | null;
  readonly trigger: Trigger;
  /** Q of a fixed order quantity; 0 = refill to the level. */
  readonly fixed: Quantity;
  /** They add up to `refillTo`, with a fixed quantity to `level`. */
  readonly terms: readonly PlanTerm[];
};

/** Look ahead day by day. */
export type DatedPlan = {
  readonly rule: 'dated';
  readonly kind: 'lot_for_lot';
  readonly safety: Quantity;
  readonly windowDays: number;
  readonly useStock: boolean;
  readonly keepSafety: boolean;
};

/** No need is ever raised by stock: no policy yet, values missing, per demand (its lines are needs of their own), phase-out,
 *  not carried. */
export type NoPlan = { readonly rule: 'none' };
export type Plan = LevelPlan | DatedPlan | NoPlan;

/** What a plan is reckoned from besides the policy. */
export type PlanFigures = {
  readonly perDay: Quantity;
  /** Standard deviation of a day's use, in base units. */
  readonly sdPerDay: number;
  readonly lead: AdviceInput['lead'];
  /** Days from one order slot to the next. */
  readonly reviewDays: number;
  readonly packMicro: Quantity;
  /** The finest step in which the item is sold: MICRO for whole pieces. */
  readonly unitMicro: Quantity;
};

const NONE: NoPlan = { rule: 'none' };

/** Without a policy nothing is raised by stock; what customers wait for is bought all the same, as far as nothing covers it. */
export const forThoseWhoWait: LevelPlan = {
  ...{ rule: 'level', kind: 'no_policy', level: 0, refillTo: 0, max: null, trigger: 'strictly_below', fixed: 0 },
  terms: [],
};

/** The advised minimum of a pair under its policy's target. `review` overrides the days between order slots. */
export function adviceFor(policy: EffectivePolicy, f: PlanFigures, review = f.reviewDays): Advice | null {
  const lot =
    policy.kind === 'fixed_quantity' && policy.fixed !== null
      ? policy.fixed
      : policy.max !== null && policy.min !== null && policy.max > policy.min
        ? policy.max - policy.min
        : policy.coverDays !== null
          ? f.perDay * policy.coverDays
          : f.packMicro;
  return adviseMinimum({
    demand: { mean: f.perDay / MICRO, sd: f.sdPerDay },
    lead: f.lead,
    target: { kind: policy.targetKind, share: policy.targetThousandths / 1000 },
    orderQuantity: Math.max(lot, f.packMicro) / MICRO,
    reviewDays: review,
    trigger: policy.trigger,
    pieces: f.unitMicro >= MICRO,
  });
}

/** The levels of a policy in figures.
 *  min/max: as set. Fixed quantity: the reorder point. Periodic: S as set, else demand over R + lead time + safety stock, and
 *  anything missing from it raises the need. Days of cover: minimum = demand in the lead time + safety stock (+ undershoot),
 *  maximum = minimum + demand of the cover days; both rounded up to what can be sold. What has to lie on the shelf is a floor
 *  under each. Source: calculations 3; common practice. */
export function planOf(policy: EffectivePolicy, f: PlanFigures): Plan {
  if (policy.missing.length > 0) return NONE;
  const floor = policy.displayMin;
  const level = (
    level: Quantity,
    refillTo: Quantity,
    rest: Pick<LevelPlan, 'max' | 'trigger' | 'fixed'>,
    terms: readonly PlanTerm[],
  ): LevelPlan => {
    const [low, high] = [Math.max(level, floor), Math.max(refillTo, level, floor)];
    const top = rest.fixed > 0 ? low : high;
    const own = rest.fixed > 0 ? level : refillTo;
    return {
      rule: 'level',
      kind: policy.kind as PolicyKind,
      level: low,
      refillTo: high,
      ...rest,
      max: rest.max === null ? null : Math.max(rest.max, low),
      terms: top > own ? [{ label: 'display_min', quantity: top }] : terms,
    };
  };
  const whole = (q: Quantity) => roundToStep(q, f.unitMicro, 'up');
  const demandTerms = (a: Advice): PlanTerm[] => [
    { label: 'lead_time_demand', quantity: a.leadTimeDemand, over: { perDay: f.perDay, days: a.days } },
    { label: 'safety_stock', quantity: a.safety },
    ...(a.undershoot > 0 ? [{ label: 'undershoot' as const, quantity: a.undershoot }] : []),
  ];
  const toWhole = (sum: Quantity): PlanTerm[] =>
    whole(sum) > sum ? [{ label: 'to_whole', quantity: whole(sum) - sum }] : [];
  switch (policy.kind) {
    case 'min_max': {
      const min = policy.min as Quantity;
      const toMin = policy.refill === 'up_to_min';
      const refillTo = toMin ? min : (policy.max ?? min);
      const label = toMin ? 'refill_to_min' : 'refill_to_max';
      return level(min, refillTo, { max: policy.max, trigger: policy.trigger, fixed: 0 }, [
        { label, quantity: refillTo },
      ]);
    }
    case 'fixed_quantity': {
      const [point, fixed] = [policy.min as Quantity, policy.fixed as Quantity];
      return level(point, point, { max: point + fixed, trigger: policy.trigger, fixed }, [
        { label: 'reorder_point', quantity: point },
      ]);
    }
    case 'periodic': {
      if (policy.max !== null)
        return level(policy.max, policy.max, { max: policy.max, trigger: 'strictly_below', fixed: 0 }, [
          { label: 'refill_to_max', quantity: policy.max },
        ]);
      const a = adviceFor(policy, f, Math.max(f.reviewDays, 1));
      if (a === null && floor === 0) return NONE;
      const kept = a && policy.safety !== null ? { ...a, safety: policy.safety, undershoot: 0 } : a;
      const terms = kept ? demandTerms(kept) : [];
      const sum = terms.reduce((q, t) => q + t.quantity, 0);
      return level(whole(sum), whole(sum), { max: whole(sum), trigger: 'strictly_below', fixed: 0 }, [
        ...terms,
        ...toWhole(sum),
      ]);
    }
    case 'days_of_cover': {
      const a = adviceFor(policy, f);
      if (a === null && floor === 0) return NONE;
      const min = whole(a?.minimum ?? 0);
      const cover = roundToStep(f.perDay * (policy.coverDays as number), MICRO / 10, 'nearest');
      const max = whole(min + cover);
      const sum = (a?.minimum ?? 0) + cover;
      const rest = max - sum;
      return level(min, max, { max, trigger: policy.trigger, fixed: 0 }, [
        ...(a ? demandTerms(a) : []),
        { label: 'cover_demand', quantity: cover, over: { perDay: f.perDay, days: policy.coverDays as number } },
        ...(rest > 0 ? [{ label: 'to_whole' as const, quantity: rest }] : []),
      ]);
    }
    case 'lot_for_lot':
      return {
        rule: 'dated',
        kind: 'lot_for_lot',
        safety: Math.max(floor, policy.safety ?? adviceFor(policy, f, 1)?.safety ?? 0),
        windowDays: policy.windowDays,
        useStock: policy.useStock,
        keepSafety: policy.keepSafety,
      };
    default:
      return NONE;
  }
}

/** The one term of a min and max that stand in a policy by themselves; the larger of both where they are the wrong way round. */
export function minMaxTerm(min: Quantity, max: Quantity | null, toMin: boolean): PlanTerm {
  const own = toMin ? min : (max ?? min);
  if (own < min) return { label: 'display_min', quantity: min };
  return { label: toMin ? 'refill_to_min' : 'refill_to_max', quantity: own };
}
