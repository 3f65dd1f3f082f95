import type { Quantity } from '@/core/quantity';
import type { EffectivePolicy } from './effective';
import type { PolicyKind, Refill, Trigger } from './setting';

/** What most rows say, and nothing else. */
export type PlainRow = {
  readonly kind: PolicyKind | null;
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  readonly trigger: Trigger | null;
  readonly refill: Refill | null;
};

/** Min, max and rules of a pair whose settings say nothing but those, over what category and company say (`wider`, in force
 *  without the item): the same as effectivePolicy, for hundreds of thousands of pairs. Null where the kind is not min/max. */
export function plainMinMax(own: PlainRow | null, item: PlainRow | null, wider: EffectivePolicy) {
  const kind = own?.kind ?? item?.kind ?? wider.kind;
  if (kind !== 'min_max') return null;
  const min = own?.min ?? item?.min ?? wider.min;
  const [ofMin, ofMax] = [nearest(own?.min, item?.min), nearest(own?.max, item?.max)];
  let max = own?.max ?? item?.max ?? (ofMin === 2 ? wider.max : wider.maxSaid);
  if (min !== null && max !== null && max < min && ofMax > ofMin) max = null;
  const refill = own?.refill ?? item?.refill ?? wider.refillSaid;
  return {
    min,
    max,
    trigger: own?.trigger ?? item?.trigger ?? wider.trigger,
    refill: max === null ? ('up_to_min' as const) : refill,
  };
}

/** Which of place, item and what is wider says a value. */
const nearest = (own: Quantity | null | undefined, item: Quantity | null | undefined): 0 | 1 | 2 =>
  (own ?? null) !== null ? 0 : (item ?? null) !== null ? 1 : 2;

/** Whether category and company leave min/max pairs as plain as their rows are. */
export const isPlain = (wider: EffectivePolicy): boolean =>
  wider.displayMin === 0 && wider.reserve === 0 && wider.rounding === null && wider.supply === 'supplier';
