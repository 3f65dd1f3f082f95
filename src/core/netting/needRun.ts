import { coverTenths } from '@/core/demand';
import { checked } from '@/core/quantity';
import { netRequirement } from './netRequirement';
import { position } from './position';
import { roundOrder, silences } from './roundOrder';
import { returns } from './suggest';

/** Inputs of a need run, one slot per item and location, in millionths of the base unit (safe integers). */
export type NeedRunInput = {
  readonly count: number;
  readonly onHand: Float64Array;
  readonly blocked: Float64Array;
  readonly onTheWay: Float64Array;
  readonly inTrays: Float64Array;
  readonly owed: Float64Array;
  /** Mean use per day; 0 without one. */
  readonly perDay: Float64Array;
  /** 1 where a min/max policy is in force, else 0. */
  readonly planned: Uint8Array;
  readonly min: Float64Array;
  readonly refillTo: Float64Array;
  /** 1 = at or below, 0 = strictly below. */
  readonly atOrBelow: Uint8Array;
  readonly orderMinimum: Float64Array;
  readonly packMicro: Float64Array;
  readonly multiplePacks: Float64Array;
  /** Index into `roundings`. */
  readonly rounding: Uint8Array;
  /** Shortage when last decided and what is still open of that decision; 0 without one. */
  readonly decidedShortage: Float64Array;
  readonly decidedOpen: Float64Array;
};

export const roundings = ['up', 'nearest', 'none'] as const;
export const needStates = ['none', 'open', 'decided'] as const;
export type NeedState = (typeof needStates)[number];

export type NeedRunOutput = {
  readonly position: Float64Array;
  readonly shortage: Float64Array;
  readonly quantity: Float64Array;
  /** Days that the stock lasts, in tenths; -1 without use. */
  readonly cover: Float64Array;
  /** Index into `needStates`. */
  readonly state: Uint8Array;
};

export function emptyNeedRunInput(count: number): NeedRunInput {
  const f = () => new Float64Array(count);
  const b = () => new Uint8Array(count);
  return {
    count,
    onHand: f(),
    blocked: f(),
    onTheWay: f(),
    inTrays: f(),
    owed: f(),
    perDay: f(),
    planned: b(),
    min: f(),
    refillTo: f(),
    atOrBelow: b(),
    orderMinimum: f(),
    packMicro: f(),
    multiplePacks: f(),
    rounding: b(),
    decidedShortage: f(),
    decidedOpen: f(),
  };
}

/** Needs of all given pairs in one pass.
 *  Errors: throws RangeError when a position leaves the range of quantities (a defect in the data). */
export function needRun(input: NeedRunInput): NeedRunOutput {
  const { count } = input;
  const out: NeedRunOutput = {
    position: new Float64Array(count),
    shortage: new Float64Array(count),
    quantity: new Float64Array(count),
    cover: new Float64Array(count),
    state: new Uint8Array(count),
  };
  const at = (array: Float64Array, i: number) => array[i] as number;
  for (let i = 0; i < count; i += 1) {
    const here = position({
      onHand: at(input.onHand, i),
      blocked: at(input.blocked, i),
      onTheWay: at(input.onTheWay, i),
      inTrays: at(input.inTrays, i),
      owed: at(input.owed, i),
    });
    out.position[i] = here;
    out.cover[i] = coverTenths(at(input.onHand, i) - at(input.blocked, i), at(input.perDay, i)) ?? -1;
    if (input.planned[i] !== 1) continue;
    const atOrBelow = input.atOrBelow[i] === 1;
    const trigger = atOrBelow ? 'at_or_below' : 'strictly_below';
    const [min, refillTo] = [at(input.min, i), at(input.refillTo, i)];
    const shortage = netRequirement(here, min, refillTo, trigger);
    if (shortage <= 0) continue;
    const packMicro = at(input.packMicro, i);
    const rule = {
      minimum: at(input.orderMinimum, i),
      packMicro,
      multiplePacks: at(input.multiplePacks, i),
      mode: roundings[input.rounding[i] as number] as (typeof roundings)[number],
    };
    out.shortage[i] = shortage;
    out.quantity[i] = checked(roundOrder(shortage, rule, silences(here, min, atOrBelow)));
    const open = at(input.decidedOpen, i);
    if (open > 0) {
      const aside = netRequirement(here - open, min, refillTo, trigger);
      out.state[i] = returns(aside, at(input.decidedShortage, i), packMicro) ? 1 : 2;
    } else out.state[i] = 1;
  }
  return out;
}
