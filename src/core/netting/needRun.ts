import { coverTenths } from '@/core/demand';
import { type Flow, lotForLot } from '@/core/projection';
import { checked } from '@/core/quantity';
import type { DatedPlan } from './plan';
import { type OrderRule, roundOrder, silences } from './roundOrder';
import { excessOf, shortageOf } from './shortage';
import { returns } from './suggest';

/** What is dated about a slot that is looked at day by day; days count from today. */
export type DatedSlot = {
  readonly plan: DatedPlan;
  /** Open supply, what lies in trays included. */
  readonly receipts: readonly Flow[];
  readonly orders: Flow[];
  readonly horizonDay: number;
};

/** What has been said about a slot besides its policy; few slots have it. Quantities in millionths. */
export type Beside = {
  /** Asked for by hand, on top of what its policy asks. */
  readonly byHand: number;
  /** Shortage at which its need was put off or left out; -1 where it was not. It comes back once that has grown by a pack. */
  readonly aside: number;
  /** What customers waited for when its need was decided, put off or left out last: when more of them wait, it comes back. */
  readonly waited: number;
};

/** Inputs of a need run, one slot per item and location, in millionths of the base unit (safe integers). Slots of one item
 *  stand together, one per location, always in the same order. */
export type NeedRunInput = {
  readonly count: number;
  /** Locations, that is slots per item. */
  readonly width: number;
  readonly onHand: Float64Array;
  readonly blocked: Float64Array;
  readonly onTheWay: Float64Array;
  readonly inTrays: Float64Array;
  /** Promised from stock, and waited for by customers. */
  readonly owed: Float64Array;
  /** Of what is owed, what customers wait for and nothing lies ready for. */
  readonly backordered: Float64Array;
  /** Asked for by other places and not decided yet. */
  readonly asked: Float64Array;
  /** Mean use per day; 0 without one. */
  readonly perDay: Float64Array;
  /** Index into `planRules`: what raises a need here. */
  readonly rule: Uint8Array;
  readonly level: Float64Array;
  readonly refillTo: Float64Array;
  /** -1 where nothing says a maximum. */
  readonly max: Float64Array;
  /** Q of a fixed order quantity; 0 else. */
  readonly fixed: Float64Array;
  /** 1 = at or below, 0 = strictly below. */
  readonly atOrBelow: Uint8Array;
  readonly orderMinimum: Float64Array;
  readonly packMicro: Float64Array;
  readonly multiplePacks: Float64Array;
  /** Index into `roundings`. */
  readonly rounding: Uint8Array;
  /** What the level is made of, as a digest (`termsDigest`); 0 = nothing. It changes no need, but its sum. */
  readonly madeOf: Uint32Array;
  /** Shortage when last decided and what is still open of that decision; 0 without one. */
  readonly decidedShortage: Float64Array;
  readonly decidedOpen: Float64Array;
  /** 1 = a periodic policy that was decided since its order day: nothing more until the next one. */
  readonly decidedInWindow: Uint8Array;
  /** Which place of the same item sends here, as its index plus one; 0 = bought from suppliers. */
  readonly suppliedBy: Uint16Array;
  readonly dated: Map<number, DatedSlot>;
  readonly beside: Map<number, Beside>;
};

/** waiting: no policy, but customers wait. */
export const planRules = ['none', 'level', 'dated', 'waiting'] as const;
export const roundings = ['up', 'nearest', 'none'] as const;
/** aside: put off or left out. */
export const needStates = ['none', 'open', 'decided', 'aside'] as const;
export type NeedState = (typeof needStates)[number];

export type NeedRunOutput = {
  /** Asked for by other places, and suggested to those supplied from here, as far as nobody has decided it. */
  readonly planned: Float64Array;
  readonly position: Float64Array;
  readonly shortage: Float64Array;
  readonly quantity: Float64Array;
  /** Days that the stock lasts, in tenths; -1 without use. */
  readonly cover: Float64Array;
  /** Beyond maximum and a pack. */
  readonly excess: Float64Array;
  /** 1 = what lies there unpromised has come to the trigger level. */
  readonly below: Uint8Array;
  /** Index into `needStates`. */
  readonly state: Uint8Array;
};

export function emptyNeedRunInput(count: number, width = 1): NeedRunInput {
  const f = () => new Float64Array(count);
  const b = () => new Uint8Array(count);
  return {
    count,
    width,
    onHand: f(),
    blocked: f(),
    onTheWay: f(),
    inTrays: f(),
    owed: f(),
    backordered: f(),
    asked: f(),
    perDay: f(),
    rule: b(),
    level: f(),
    refillTo: f(),
    max: f().fill(-1),
    fixed: f(),
    atOrBelow: b(),
    orderMinimum: f(),
    packMicro: f(),
    multiplePacks: f(),
    rounding: b(),
    madeOf: new Uint32Array(count),
    decidedShortage: f(),
    decidedOpen: f(),
    decidedInWindow: b(),
    suppliedBy: new Uint16Array(count),
    dated: new Map(),
    beside: new Map(),
  };
}

/** Needs of all given pairs in one pass: per item its places in the order of the network, those that are sent to first, so that
 *  their suggestions are planned demand where they are sent from. Places in a circle (refused when entered) are taken as they
 *  stand. Errors: throws RangeError when a position leaves the range of quantities (a defect in the data). */
export function needRun(input: NeedRunInput): NeedRunOutput {
  const { count, width } = input;
  const out: NeedRunOutput = {
    planned: Float64Array.from(input.asked),
    position: new Float64Array(count),
    shortage: new Float64Array(count),
    quantity: new Float64Array(count),
    cover: new Float64Array(count),
    excess: new Float64Array(count),
    below: new Uint8Array(count),
    state: new Uint8Array(count),
  };
  const order = new Uint16Array(width);
  for (let first = 0; first < count; first += width) {
    const sent = networkOrder(input.suppliedBy, first, width, order);
    for (let k = 0; k < width; k += 1) {
      const i = first + (sent ? (order[k] as number) : k);
      runSlot(input, out, i);
      const from = input.suppliedBy[i] as number;
      if (from > 0 && out.state[i] === 1) {
        const source = first + from - 1;
        out.planned[source] = (out.planned[source] as number) + (out.quantity[i] as number);
      }
    }
  }
  return out;
}

/** Puts the places of one item into the order in which they are planned; false when none is sent to by another. */
function networkOrder(suppliedBy: Uint16Array, first: number, width: number, order: Uint16Array): boolean {
  let any = false;
  for (let l = 0; l < width; l += 1) if ((suppliedBy[first + l] as number) > 0) any = true;
  if (!any) return false;
  // How many steps a place is away from where its goods come from: the furthest are planned first.
  const depth = (l: number) => {
    let steps = 0;
    for (let at = suppliedBy[first + l] as number; at > 0 && steps <= width; steps += 1)
      at = suppliedBy[first + at - 1] as number;
    return steps;
  };
  const places = Array.from({ length: width }, (_, l) => ({ l, depth: depth(l) }));
  places.sort((a, b) => b.depth - a.depth || a.l - b.l);
  for (const [k, p] of places.entries()) order[k] = p.l;
  return true;
}

/** One slot. Written without helpers of its own: it runs three quarters of a million times. */
function runSlot(input: NeedRunInput, out: NeedRunOutput, i: number): void {
  const available = (input.onHand[i] as number) - (input.blocked[i] as number);
  const owed = input.owed[i] as number;
  const here = checked(
    available + (input.onTheWay[i] as number) + (input.inTrays[i] as number) - owed - (out.planned[i] as number),
  );
  out.position[i] = here;
  out.cover[i] = coverTenths(available, input.perDay[i] as number) ?? -1;
  const rule = input.rule[i] as number;
  const beside = input.beside.size > 0 ? input.beside.get(i) : undefined;
  const byHand = beside?.byHand ?? 0;
  if (rule === 2) {
    runDated(input, out, i, available, beside);
    return;
  }
  if (rule === 0 || (rule === 3 && input.backordered[i] === 0)) {
    if (byHand > 0) raise(input, out, i, byHand, byHand, setAside(input, i, byHand, beside) ? 3 : 1);
    return;
  }
  const level = input.level[i] as number;
  const atOrBelow = input.atOrBelow[i] === 1;
  const unpromised = available - (owed - (input.backordered[i] as number));
  if (level > 0 && (atOrBelow ? unpromised <= level : unpromised < level)) out.below[i] = 1;
  const max = input.max[i] as number;
  const packMicro = input.packMicro[i] as number;
  if (max >= 0 && here > max) out.excess[i] = excessOf(here, max, packMicro);
  const silent = atOrBelow ? here > level : here >= level;
  if (silent && byHand === 0) return;
  const plan = {
    level,
    refillTo: input.refillTo[i] as number,
    trigger: atOrBelow ? ('at_or_below' as const) : ('strictly_below' as const),
    fixed: input.fixed[i] as number,
  };
  const own = silent ? 0 : shortageOf(here, plan);
  const shortage = own + byHand;
  if (shortage <= 0) return;
  const open = input.decidedOpen[i] as number;
  let state = 1;
  if (beside !== undefined && setAside(input, i, shortage, beside)) state = 3;
  else if (byHand > 0) state = 1;
  else if (input.decidedInWindow[i] === 1) state = 2;
  else if (open > 0 && (beside === undefined || (input.backordered[i] as number) <= beside.waited))
    state = returns(shortageOf(here - open, plan), input.decidedShortage[i] as number, packMicro) ? 1 : 2;
  raise(input, out, i, shortage, byHand > 0 ? shortage : silences(here, level, atOrBelow), state);
}

function raise(
  input: NeedRunInput,
  out: NeedRunOutput,
  i: number,
  shortage: number,
  silent: number,
  state: number,
): void {
  out.shortage[i] = shortage;
  out.quantity[i] = checked(roundOrder(shortage, orderRuleAt(input, i), silent));
  out.state[i] = state;
}

/** Whether a need stays where it was put: its shortage has not grown by a pack since, and no more customers wait. */
const setAside = (input: NeedRunInput, i: number, shortage: number, beside: Beside | undefined): boolean =>
  beside !== undefined &&
  beside.aside >= 0 &&
  !returns(shortage, beside.aside, input.packMicro[i] as number) &&
  (input.backordered[i] as number) <= beside.waited;

const orderRuleAt = (input: NeedRunInput, i: number): OrderRule => ({
  minimum: input.orderMinimum[i] as number,
  packMicro: input.packMicro[i] as number,
  multiplePacks: input.multiplePacks[i] as number,
  mode: roundings[input.rounding[i] as number] as (typeof roundings)[number],
});

/** A slot that is looked at day by day. */
function runDated(input: NeedRunInput, out: NeedRunOutput, i: number, stock: number, beside: Beside | undefined): void {
  const dated = input.dated.get(i) as DatedSlot;
  const planned = out.planned[i] as number;
  const { quantity } = lotForLot(
    {
      stock,
      owed: input.owed[i] as number,
      receipts: dated.receipts,
      orders: dated.orders,
      dependent: planned > 0 ? [{ day: 0, quantity: planned }] : [],
      perDay: input.perDay[i] as number,
    },
    { ...dated.plan, horizonDay: dated.horizonDay },
  );
  const shortage = Math.max(0, quantity) + (beside?.byHand ?? 0);
  if (shortage <= 0) return;
  // Its own supply is dated and counted, so what is still short has come on top of what was decided.
  raise(input, out, i, shortage, shortage, setAside(input, i, shortage, beside) ? 3 : 1);
}
