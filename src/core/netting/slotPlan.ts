import { type Beside, emptyNeedRunInput, type NeedRunInput, planRules } from './needRun';

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

/** The figures of `figures`, and behind them those of `beside` where the slot has them; quantities in millionths. */
export type SlotPlan = readonly number[];
const beside = ['byHand', 'aside', 'waited'] as const satisfies readonly (keyof Beside)[];

/** The stock of a slot and what is promised of it, in millionths. */
export type SlotStock = { readonly onHand: number; readonly blocked: number; readonly promised: number };

/** The plan of a slot, to be kept with its state: with it and the stock the slot can be run again by itself. `planned` is what
 *  the run found other places to ask for. Null for a slot that is looked at day by day: its receipts are more than a plan. */
export function slotPlan(input: NeedRunInput, planned: number, at: number): SlotPlan | null {
  if (input.dated.has(at)) return null;
  const own = input.beside.get(at);
  return [
    ...figures.map((f) => (f === 'asked' ? planned : (input[f][at] as number))),
    ...(own ? beside.map((f) => own[f]) : []),
  ];
}

/** The same slot with other stock: slot 0 of an input of its own. With a sender there is a second slot for it, which plans
 *  nothing and takes what is suggested. Errors: throws RangeError for a plan of another length. */
export function slotOfPlan(plan: SlotPlan, stock: SlotStock, sent: boolean): NeedRunInput {
  const more = plan.slice(figures.length);
  if (plan.length < figures.length || (more.length > 0 && more.length !== beside.length))
    throw new RangeError(`a plan of ${plan.length} figures`);
  const width = sent ? 2 : 1;
  const input = emptyNeedRunInput(width, width);
  for (const [i, f] of figures.entries()) input[f][0] = plan[i] as number;
  input.onHand[0] = stock.onHand;
  input.blocked[0] = stock.blocked;
  input.owed[0] = stock.promised + (input.backordered[0] as number);
  const [byHand, aside, waited] = more as [number, number, number];
  if (more.length > 0) input.beside.set(0, { byHand, aside, waited });
  if (sent) input.suppliedBy[0] = 2;
  return input;
}

/** What raises a need by a kept plan. */
export const ruleOfPlan = (plan: SlotPlan): (typeof planRules)[number] =>
  planRules[plan[figures.indexOf('rule')] as number] as (typeof planRules)[number];

/** What a kept plan asks for by hand, in millionths. */
export const byHandOfPlan = (plan: SlotPlan): number => plan[figures.length] ?? 0;
