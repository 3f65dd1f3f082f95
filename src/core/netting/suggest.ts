import type { EffectivePolicy } from '@/core/policy';
import type { Quantity } from '@/core/quantity';
import { netRequirement } from './netRequirement';
import { type OrderRule, roundOrder, silences } from './roundOrder';

export type MinMax = Extract<EffectivePolicy, { kind: 'min_max' }>;

/** The level a policy refills to; without a maximum that is the minimum. */
export const refillLevel = (policy: MinMax): Quantity =>
  policy.refill === 'up_to_min' ? policy.min : (policy.max ?? policy.min);

export type Suggestion = { readonly raw: Quantity; readonly quantity: Quantity };

/** What to buy for one item at one location: requirement, then rounding to how the source sells.
 *  A minimum of 0 with nothing missing triggers without a quantity and so raises no need. */
export function suggest(position: Quantity, policy: MinMax, rule: OrderRule): Suggestion {
  const raw = netRequirement(position, policy.min, refillLevel(policy), policy.trigger);
  if (raw <= 0) return { raw: 0, quantity: 0 };
  return { raw, quantity: roundOrder(raw, rule, silences(position, policy.min, policy.trigger === 'at_or_below')) };
}

/** Whether a decided need comes back: its own tray line or order aside, the shortage has grown by a usual pack
 *  over what it was when decided. */
export const returns = (shortageAside: Quantity, shortageDecided: Quantity, usualPack: Quantity): boolean =>
  shortageAside >= shortageDecided + usualPack;
