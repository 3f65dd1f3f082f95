import type { Quantity } from '@/core/quantity';
import type { LevelPlan } from './plan';
import { type OrderRule, roundOrder, silences } from './roundOrder';
import { shortageOf } from './shortage';

export type Suggestion = { readonly raw: Quantity; readonly quantity: Quantity };

/** What to buy for one item at one location: requirement, then rounding to how the source sells.
 *  A minimum of 0 with nothing missing triggers without a quantity and so raises no need. */
export function suggest(position: Quantity, plan: LevelPlan, rule: OrderRule): Suggestion {
  const raw = shortageOf(position, plan);
  if (raw <= 0) return { raw: 0, quantity: 0 };
  return { raw, quantity: roundOrder(raw, rule, silences(position, plan.level, plan.trigger === 'at_or_below')) };
}

/** Whether a decided need comes back: its own tray line or order aside, the shortage has grown by a usual pack
 *  over what it was when decided. */
export const returns = (shortageAside: Quantity, shortageDecided: Quantity, usualPack: Quantity): boolean =>
  shortageAside >= shortageDecided + usualPack;
