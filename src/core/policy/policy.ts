import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';

/** When a need is raised: position at or below the minimum, or strictly below it. */
export type Trigger = 'at_or_below' | 'strictly_below';
/** How far a need refills: up to the maximum, or only up to the minimum. */
export type Refill = 'up_to_max' | 'up_to_min';
export type PolicyKind = 'min_max' | 'not_carried';

/** A policy as set for an item everywhere or at one location. Empty trigger and refill follow the wider setting. */
export type PolicySetting = {
  readonly kind: PolicyKind;
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  readonly trigger: Trigger | null;
  readonly refill: Refill | null;
};

export type PolicyOrigin = 'location' | 'item' | 'none';

/** The policy in force for an item at a location, and where it comes from. */
export type EffectivePolicy =
  | { readonly kind: 'none'; readonly origin: 'none' }
  | { readonly kind: 'not_carried'; readonly origin: PolicyOrigin }
  | {
      readonly kind: 'min_max';
      readonly origin: PolicyOrigin;
      readonly min: Quantity;
      readonly max: Quantity | null;
      readonly trigger: Trigger;
      readonly refill: Refill;
    };

/** The setting at the location overrides the item's, as a whole; the company says trigger and refill where they are empty.
 *  A missing maximum refills up to the minimum. "Not carried here" is not the same as no policy yet. */
export function effectivePolicy(
  company: { readonly trigger: Trigger; readonly refill: Refill },
  item: PolicySetting | null,
  location: PolicySetting | null,
): EffectivePolicy {
  const set = location ?? item;
  if (!set) return { kind: 'none', origin: 'none' };
  const origin = location ? 'location' : 'item';
  if (set.kind === 'not_carried') return { kind: 'not_carried', origin };
  if (set.min === null) return { kind: 'none', origin: 'none' };
  return {
    kind: 'min_max',
    origin,
    min: set.min,
    max: set.max,
    trigger: set.trigger ?? item?.trigger ?? company.trigger,
    refill: set.max === null ? 'up_to_min' : (set.refill ?? item?.refill ?? company.refill),
  };
}

export type PolicyFault =
  | { readonly kind: 'min_above_max'; readonly min: Quantity; readonly max: Quantity }
  | { readonly kind: 'max_without_min' };

/** Errors: min_above_max; max_without_min. One of both empty is only allowed for the maximum. */
export function checkMinMax(min: Quantity | null, max: Quantity | null): Result<void, PolicyFault> {
  if (min === null) return max === null ? ok(undefined) : err({ kind: 'max_without_min' });
  if (max !== null && min > max) return err({ kind: 'min_above_max', min, max });
  return ok(undefined);
}
