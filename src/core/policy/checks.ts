import type { Quantity } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import type { PolicySetting } from './setting';

export type PolicyFault =
  | { readonly kind: 'min_above_max'; readonly min: Quantity; readonly max: Quantity }
  | { readonly kind: 'not_positive'; readonly field: 'fixed' | 'coverDays' | 'windowDays' }
  | { readonly kind: 'season_reversed'; readonly from: string; readonly to: string };

/** What must not be kept: a minimum above the maximum at the same level, also within a season; a quantity or a number of days
 *  that has to be more than 0; a dated season that ends before it begins. */
export function checkSetting(s: PolicySetting): Result<void, PolicyFault> {
  for (const { min, max } of [s, ...s.seasons])
    if (min !== null && max !== null && min > max) return err({ kind: 'min_above_max', min, max });
  for (const field of ['fixed', 'coverDays', 'windowDays'] as const) {
    const value = s[field];
    if (value !== null && value <= 0) return err({ kind: 'not_positive', field });
  }
  const reversed = s.seasons.find((x) => !x.everyYear && x.from > x.to);
  return reversed ? err({ kind: 'season_reversed', from: reversed.from, to: reversed.to }) : ok(undefined);
}

export type PolicyHint =
  /** Less than one pack lies between minimum and maximum: every order overshoots it. */
  | { readonly kind: 'less_than_a_pack'; readonly between: Quantity; readonly pack: Quantity }
  /** On average more is sold before the goods arrive than the minimum holds. */
  | { readonly kind: 'below_lead_time_demand'; readonly demand: Quantity }
  | { readonly kind: 'max_below_min' };

/** What may be so but is worth a word. Units: millionths of the base unit. */
export function policyHints(
  min: Quantity | null,
  max: Quantity | null,
  figures: { readonly packMicro: Quantity; readonly leadTimeDemand: Quantity | null },
): PolicyHint[] {
  const hints: PolicyHint[] = [];
  if (min === null) return hints;
  if (max !== null && max < min) hints.push({ kind: 'max_below_min' });
  else if (max !== null && max > min && max - min < figures.packMicro)
    hints.push({ kind: 'less_than_a_pack', between: max - min, pack: figures.packMicro });
  if (figures.leadTimeDemand !== null && min < figures.leadTimeDemand)
    hints.push({ kind: 'below_lead_time_demand', demand: figures.leadTimeDemand });
  return hints;
}
