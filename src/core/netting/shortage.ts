import type { Quantity } from '@/core/quantity';
import { fixedMultiple, netRequirement, triggers } from './netRequirement';
import type { LevelPlan } from './plan';

type Levels = Pick<LevelPlan, 'level' | 'refillTo' | 'trigger' | 'fixed'>;

/** What a level plan is short of at a position, before rounding to how the source sells; 0 when the trigger is silent or
 *  nothing is missing. With a fixed order quantity the fewest multiples that silence it. */
export const shortageOf = (position: Quantity, plan: Levels): Quantity =>
  plan.fixed > 0
    ? fixedMultiple(position, plan.level, plan.fixed, plan.trigger)
    : netRequirement(position, plan.level, plan.refillTo, plan.trigger);

/** Whether what lies there and is not promised has come to the trigger level, whatever is on the way. */
export const isBelow = (available: Quantity, plan: Pick<LevelPlan, 'level' | 'trigger'>): boolean =>
  plan.level > 0 && triggers(available, plan.level, plan.trigger);

/** What a position has beyond its maximum, once that is more than a pack: 0 else, and where nothing says a maximum.
 *  @example excessOf(units(130), units(115), units(10))  // units(15) */
export const excessOf = (position: Quantity, max: Quantity | null, packMicro: Quantity): Quantity =>
  max !== null && position > max + packMicro ? position - max : 0;

/** What a place can send away: free stock less its minimum and what will be asked for until it can refill; never below 0.
 *  Its reserve stays as well. Source: common practice (surplus for a stock transfer). */
export const surplusOf = (f: {
  readonly free: Quantity;
  readonly min: Quantity;
  readonly reserve: Quantity;
  readonly perDay: Quantity;
  readonly daysToRefill: number;
}): Quantity => Math.max(0, Math.floor(f.free - Math.max(f.min, f.reserve) - f.perDay * f.daysToRefill));
