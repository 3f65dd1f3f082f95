import { free } from '@/core/netting';
import { fromDecimal, type Quantity } from '@/core/quantity';
import type { LevelRow } from '@/data/repositories/levels';
import type { StateRow } from '@/data/repositories/planning';

/** What a level strip shows, in millionths of the base unit. */
export type Gauge = {
  readonly onHand: Quantity;
  readonly free: Quantity;
  readonly coming: Quantity;
  readonly inTrays: Quantity;
  readonly owed: Quantity;
  readonly min: Quantity | null;
  readonly max: Quantity | null;
};

const figuresOf = (level: LevelRow | undefined) => {
  const q = (text: string | undefined) => fromDecimal(text ?? '0');
  return {
    onHand: q(level?.onHand),
    allocated: q(level?.allocated),
    inspection: q(level?.inspection),
    blocked: q(level?.blocked),
  };
};

/** What is free of a level. */
export const freeOf = (level: LevelRow): Quantity => free(figuresOf(level));

/** Days that the stock of a pair lasts, as stored; null without use. */
export const coverDaysOf = (state: StateRow | undefined): number | null =>
  state?.coverDays == null ? null : Number(state.coverDays);

/** The levels of the plan in force are those stored with the state; a minimum of 0 is none to show. */
export function gaugeOf(level: LevelRow | undefined, state: StateRow | undefined): Gauge {
  const q = (text: string | undefined) => fromDecimal(text ?? '0');
  const l = figuresOf(level);
  return {
    onHand: l.onHand,
    free: free(l),
    coming: q(state?.onTheWay),
    inTrays: q(state?.inTrays),
    owed: q(state?.owed),
    min: state?.level == null ? null : fromDecimal(state.level),
    max: state?.max == null ? null : fromDecimal(state.max),
  };
}
