import type { LotForLot } from '@/core/projection';
import type { Quantity } from '@/core/quantity';
import { balancePeg, type PeggedDemand } from './peg';
import type { DatedPlan, LevelPlan, PlanTermLabel } from './plan';
import { type PositionParts, position } from './position';
import { type OrderRule, roundOrder, silences } from './roundOrder';
import { shortageOf } from './shortage';

export type TermLabel =
  | PlanTermLabel
  | 'on_hand'
  | 'blocked'
  | 'on_the_way'
  | 'in_trays'
  | 'owed'
  | 'planned'
  | 'asked_in_window'
  | 'asked_one_to_one'
  | 'lies_ready'
  | 'bought_for_it'
  | 'safety_floor'
  | 'by_hand';

/** One line of the sum, as on paper. `quantity` is printed unsigned beside its operator. */
export type Term = {
  readonly label: TermLabel;
  readonly operator: '+' | '-';
  readonly quantity: Quantity;
  readonly over?: { readonly perDay: Quantity; readonly days: number };
};

export type StepLabel = 'fixed_multiples' | 'supplier_minimum' | 'whole_packs';
export type Step = {
  readonly label: StepLabel;
  readonly quantity: Quantity;
  readonly added: Quantity;
  /** So many times the fixed quantity. */
  readonly times?: number;
};

/** How a suggested quantity came about: the terms add up to `toBuy`; each step then says what rounding made of it. */
export type Reckoning = {
  readonly kind: LevelPlan['kind'];
  readonly terms: readonly Term[];
  readonly position: Quantity;
  /** The trigger level. */
  readonly level: Quantity;
  readonly trigger: LevelPlan['trigger'];
  /** Whether the trigger fires. */
  readonly raised: boolean;
  /** Lot-for-lot: the first day that falls below, counted from today; null without a need, and for other kinds. */
  readonly day: number | null;
  readonly toBuy: Quantity;
  readonly steps: readonly Step[];
  readonly quantity: Quantity;
  readonly packMicro: Quantity;
  readonly multiplePacks: number;
};

const term = (label: TermLabel, sign: 1 | -1, quantity: Quantity, over?: Term['over']): Term => ({
  label,
  operator: sign * Math.sign(quantity || 1) > 0 ? '+' : '-',
  quantity: Math.abs(quantity),
  ...(over ? { over } : {}),
});

const stockTerms = (parts: PositionParts): Term[] => [
  term('on_hand', -1, parts.onHand),
  term('blocked', 1, parts.blocked),
  term('on_the_way', -1, parts.onTheWay),
  term('in_trays', -1, parts.inTrays),
  term('owed', 1, parts.owed),
  term('planned', 1, parts.planned),
];

/** The reckoning of a need. The same functions as in the need run, so sum and stored figure cannot differ.
 *  Every term is there also when it is zero; what the interface leaves out is its own affair. With a fixed order quantity the
 *  terms add up to what is missing to the reorder point, and the first step to whole multiples of it. What is asked for by hand
 *  (`byHand`) comes on top; where the policy itself is silent, it is all there is to the sum. */
export function reckon(parts: PositionParts, plan: LevelPlan, rule: OrderRule, byHand: Quantity = 0): Reckoning {
  const here = position(parts);
  const own = shortageOf(here, plan);
  const raised = own > 0;
  if (!raised && byHand > 0) return { ...reckonByHand(byHand, rule), position: here, level: plan.level };
  const shortage = own + byHand;
  const aim = plan.fixed > 0 ? plan.level : plan.refillTo;
  const toBuy = raised ? Math.max(0, aim - here) + byHand : 0;
  const steps: Step[] = [];
  if (raised && plan.fixed > 0)
    steps.push({ label: 'fixed_multiples', quantity: shortage, added: shortage - toBuy, times: own / plan.fixed });
  return {
    kind: plan.kind,
    terms: [
      ...plan.terms.map((t) => term(t.label, 1, t.quantity, t.over)),
      ...stockTerms(parts),
      ...(byHand > 0 ? [term('by_hand', 1, byHand)] : []),
    ],
    position: here,
    level: plan.level,
    trigger: plan.trigger,
    raised,
    day: null,
    toBuy,
    ...roundingSteps(
      steps,
      shortage,
      rule,
      byHand > 0 ? shortage : silences(here, plan.level, plan.trigger === 'at_or_below'),
    ),
  };
}

/** The same for lot-for-lot: safety stock + all that is asked for until the deepest point of the window − stock and what comes
 *  until then. */
export function reckonLot(
  parts: PositionParts,
  plan: DatedPlan,
  found: LotForLot,
  rule: OrderRule,
  byHand: Quantity = 0,
): Reckoning {
  const floor = plan.keepSafety ? plan.safety : 0;
  const { day, days } = found;
  if (found.quantity <= 0 && byHand > 0) return { ...reckonByHand(byHand, rule), position: position(parts) };
  const toBuy = found.quantity + byHand;
  const until = day === null ? 0 : deepest(found, plan.windowDays);
  const sum = (of: 'receipts' | 'orders' | 'dependent' | 'forecast') =>
    days.slice(0, until + 1).reduce((a, d) => a + d[of], 0);
  const stock = plan.useStock ? parts.onHand - parts.blocked : Math.min(0, parts.onHand - parts.blocked);
  return {
    kind: 'lot_for_lot',
    terms: [
      term('safety_floor', 1, floor),
      { ...term('asked_in_window', 1, sum('orders') + sum('forecast')), over: { perDay: 0, days: until + 1 } },
      term('planned', 1, sum('dependent')),
      term('owed', 1, parts.owed),
      term('on_hand', -1, stock),
      term('on_the_way', -1, sum('receipts')),
      ...(byHand > 0 ? [term('by_hand', 1, byHand)] : []),
    ],
    position: position(parts),
    level: floor,
    trigger: 'strictly_below',
    raised: day !== null,
    day,
    toBuy,
    ...roundingSteps([], toBuy, rule, toBuy),
  };
}

/** The same for what is asked for by hand where nothing else asks. */
export function reckonByHand(byHand: Quantity, rule: OrderRule): Reckoning {
  return {
    ...{ kind: 'no_policy', terms: [term('by_hand', 1, byHand)], position: 0, level: 0, trigger: 'strictly_below' },
    ...{ raised: true, day: null, toBuy: byHand },
    ...roundingSteps([], byHand, rule, byHand),
  };
}

/** The same for a line that is bought for one to one: what is asked for − what lies ready for it − what was bought for it
 *  and is not here yet. Stock, policy levels and other demand have no part in it. */
export function reckonPeg(line: PeggedDemand, rule: OrderRule): Reckoning {
  const { unfilled, pegged, rest } = balancePeg(line);
  return {
    kind: 'per_demand',
    terms: [
      term('asked_one_to_one', 1, line.asked),
      term('lies_ready', -1, line.asked - unfilled),
      term('bought_for_it', -1, pegged),
    ],
    position: 0,
    level: 0,
    trigger: 'strictly_below',
    raised: rest > 0,
    day: null,
    toBuy: rest,
    ...roundingSteps([], rest, rule, rest),
  };
}

/** The day of the window on which most is missing. */
function deepest({ day, days }: LotForLot, windowDays: number): number {
  const from = day ?? 0;
  let at = from;
  for (let d = from; d < Math.min(days.length, from + windowDays); d += 1)
    if ((days[d]?.closing ?? 0) < (days[at]?.closing ?? 0)) at = d;
  return at;
}

function roundingSteps(steps: Step[], shortage: Quantity, rule: OrderRule, silent: Quantity) {
  const quantity = roundOrder(shortage, rule, silent);
  const lifted = Math.max(shortage, rule.minimum);
  if (shortage > 0 && lifted > shortage)
    steps.push({ label: 'supplier_minimum', quantity: lifted, added: lifted - shortage });
  if (shortage > 0 && rule.mode !== 'none') steps.push({ label: 'whole_packs', quantity, added: quantity - lifted });
  return { steps, quantity, packMicro: rule.packMicro, multiplePacks: rule.multiplePacks };
}
