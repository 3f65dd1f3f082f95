import type { Quantity } from '@/core/quantity';
import { type Beside, emptyNeedRunInput, type NeedRunInput, planRules, roundings } from './needRun';
import { forThoseWhoWait, type LevelPlan } from './plan';
import type { PositionParts } from './position';
import { type Reckoning, reckon, reckonByHand } from './reckoning';
import type { OrderRule } from './roundOrder';
import { termsDigest } from './stateFingerprint';

/** What is asked of a slot besides its stock, in this order: as long as only goods move, none of it changes. */
const figures = [
  'asked',
  'backordered',
  'onTheWay',
  'inTrays',
  'perDay',
  'level',
  'refillTo',
  'max',
  'fixed',
  'orderMinimum',
  'packMicro',
  'multiplePacks',
  'decidedShortage',
  'decidedOpen',
  'rule',
  'atOrBelow',
  'rounding',
  'decidedInWindow',
] as const satisfies readonly (keyof NeedRunInput)[];
type Figure = (typeof figures)[number];

/** What a slot was computed by, besides its stock: `figures` as above, quantities in millionths; what is said beside its policy;
 *  what its level is made of, where a policy has one. */
export type SlotPlan = {
  readonly figures: readonly number[];
  readonly beside?: Beside;
  readonly made?: LevelMade;
};

/** What a level is made of: by which kind of policy, of what. */
export type LevelMade = Pick<LevelPlan, 'kind' | 'terms'>;

/** The stock of a slot and what is promised of it, in millionths. */
export type SlotStock = { readonly onHand: number; readonly blocked: number; readonly promised: number };

/** The plan of a slot, to be kept with its state: with it and the stock the slot can be run again by itself. `planned` is what
 *  the run found other places to ask for. Null for a slot that is looked at day by day: its receipts are more than a plan. */
export function slotPlan(input: NeedRunInput, planned: number, at: number, made: LevelMade | null): SlotPlan | null {
  if (input.dated.has(at)) return null;
  const beside = input.beside.get(at);
  return {
    figures: figures.map((f) => (f === 'asked' ? planned : (input[f][at] as number))),
    ...(beside ? { beside } : {}),
    ...(made ? { made: { kind: made.kind, terms: made.terms } } : {}),
  };
}

/** The same slot with other stock: slot 0 of an input of its own. With a sender there is a second slot for it, which plans
 *  nothing and takes what is suggested. Errors: throws RangeError for a plan of another length. */
export function slotOfPlan(plan: SlotPlan, stock: SlotStock, sent: boolean): NeedRunInput {
  if (plan.figures.length !== figures.length) throw new RangeError(`a plan of ${plan.figures.length} figures`);
  const width = sent ? 2 : 1;
  const input = emptyNeedRunInput(width, width);
  for (const [i, f] of figures.entries()) input[f][0] = plan.figures[i] as number;
  input.onHand[0] = stock.onHand;
  input.blocked[0] = stock.blocked;
  input.owed[0] = stock.promised + (input.backordered[0] as number);
  if (plan.made) input.madeOf[0] = termsDigest(plan.made.kind, plan.made.terms);
  if (plan.beside) input.beside.set(0, plan.beside);
  if (sent) input.suppliedBy[0] = 2;
  return input;
}

const figureOf = (plan: SlotPlan, f: Figure): number => plan.figures[figures.indexOf(f)] as number;

/** What raises a need by a kept plan. */
export const ruleOfPlan = (plan: SlotPlan): (typeof planRules)[number] =>
  planRules[figureOf(plan, 'rule')] as (typeof planRules)[number];

/** What a kept plan asks for by hand, in millionths. */
export const byHandOfPlan = (plan: SlotPlan): number => plan.beside?.byHand ?? 0;

/** The sum behind the need of a slot by its kept plan, `parts` as its state has them; null where nothing raises one. */
export function reckoningOfPlan(plan: SlotPlan, parts: PositionParts): Reckoning | null {
  const of = (f: Figure) => figureOf(plan, f);
  const rule: OrderRule = {
    minimum: of('orderMinimum'),
    packMicro: of('packMicro'),
    multiplePacks: of('multiplePacks'),
    mode: roundings[of('rounding')] as OrderRule['mode'],
  };
  const byHand = byHandOfPlan(plan);
  const raises = ruleOfPlan(plan);
  if (raises === 'waiting') return reckon(parts, forThoseWhoWait, rule, byHand);
  if (raises !== 'level' || !plan.made) return byHand > 0 ? reckonByHand(byHand, rule) : null;
  const level: LevelPlan = {
    ...{ rule: 'level', level: of('level'), refillTo: of('refillTo'), max: of('max') < 0 ? null : of('max') },
    ...{ trigger: of('atOrBelow') === 1 ? 'at_or_below' : 'strictly_below', fixed: of('fixed') },
    ...plan.made,
  };
  return reckon(parts, level, rule, byHand);
}

/** What accepting a need puts into trays, all of it and by its last decision; the shortage that was decided on, and what customers
 *  waited for then. Millionths. */
export type AcceptedIntoTrays = {
  readonly all: Quantity;
  readonly last: Quantity;
  readonly shortage: Quantity;
  readonly waited: Quantity;
};

/** The kept plan of a slot once its need was accepted into trays. Null where more than that changes with it: what was put aside until
 *  a day, and a periodic policy, which orders nothing more until its next order day. */
export function planWithAccepted(plan: SlotPlan, accepted: AcceptedIntoTrays): SlotPlan | null {
  if ((plan.beside?.aside ?? -1) >= 0 || plan.made?.kind === 'periodic') return null;
  const changed: Partial<Record<Figure, number>> = {
    inTrays: figureOf(plan, 'inTrays') + accepted.all,
    decidedShortage: accepted.shortage,
    decidedOpen: accepted.last,
  };
  // In the order in which a plan is made: it is compared as text.
  return {
    figures: figures.map((f, i) => changed[f] ?? (plan.figures[i] as number)),
    beside: { byHand: 0, aside: -1, waited: accepted.waited },
    ...(plan.made ? { made: plan.made } : {}),
  };
}
