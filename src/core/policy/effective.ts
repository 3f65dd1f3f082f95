import type { BusinessDate } from '@/core/calendar';
import type { Quantity } from '@/core/quantity';
import { inSeason } from './season';
import {
  neededFields,
  type PolicyField,
  type PolicyKind,
  type PolicySetting,
  policyFields,
  type Refill,
  type Season,
  type Trigger,
} from './setting';

/** Where a value is said. */
export type PolicyOrigin = 'location' | 'item' | 'category' | 'company' | 'none';

/** The settings that may say something of an item at a place, nearest first. A category's own parents follow it. */
export type PolicyLevel = { readonly origin: Exclude<PolicyOrigin, 'none'>; readonly setting: PolicySetting };

/** The policy in force for an item at a place, and where each of its values comes from. Values that nobody says have the
 *  defaults of calculations 3; min, max, fixed and cover stay null. */
export type EffectivePolicy = {
  readonly kind: PolicyKind | 'none';
  /** Where the kind is said; with "none", nowhere. */
  readonly origin: PolicyOrigin;
  /** What the kind cannot do without and nobody says. Such a policy raises no need, and is marked. */
  readonly missing: readonly PolicyField[];
  readonly min: Quantity | null;
  readonly max: Quantity | null;
  /** The same also where it lies below a nearer minimum and is left out. */
  readonly maxSaid: Quantity | null;
  readonly fixed: Quantity | null;
  readonly coverDays: number | null;
  readonly safety: Quantity | null;
  readonly windowDays: number;
  readonly useStock: boolean;
  readonly keepSafety: boolean;
  readonly displayMin: Quantity;
  readonly reserve: Quantity;
  readonly trigger: Trigger;
  readonly refill: Refill;
  /** The same before a missing maximum makes it up to the minimum. */
  readonly refillSaid: Refill;
  readonly rounding: 'up' | 'nearest' | 'none' | null;
  readonly supply: 'supplier' | 'place';
  readonly supplyPlace: number | null;
  readonly targetKind: 'cycle_service' | 'fill_rate';
  readonly targetThousandths: number;
  readonly from: Readonly<Record<PolicyField, PolicyOrigin>>;
  /** The seasons that today's min and max come from. */
  readonly minSeason: Season | null;
  readonly maxSeason: Season | null;
};

/** Days of demand in one lot-for-lot order, and the cycle-service target, where nobody says them. */
export const DEFAULT_WINDOW_DAYS = 7;
export const DEFAULT_TARGET_THOUSANDTHS = 950;

/** Each value from the nearest level that says it; min and max from a season in force there first. A maximum that lies below
 *  a nearer minimum is of no use and is left out, so that a place that says only its minimum refills up to it. "Not carried
 *  here" is not the same as no policy yet.
 *  @example a place says min 30, the item 20 / 60 → 30 (location) / 60 (item) */
export function effectivePolicy(levels: readonly PolicyLevel[], today: BusinessDate): EffectivePolicy {
  const from = Object.fromEntries(policyFields.map((f) => [f, 'none'])) as Record<PolicyField, PolicyOrigin>;
  const say = <F extends PolicyField>(field: F): PolicySetting[F] | null => {
    for (const { origin, setting } of levels) {
      if (setting[field] === null) continue;
      from[field] = origin;
      return setting[field];
    }
    return null;
  };
  const seasons: Record<'min' | 'max', Season | null> = { min: null, max: null };
  const dated = (field: 'min' | 'max'): Quantity | null => {
    for (const { origin, setting } of levels) {
      const season = setting.seasons.find((s) => s[field] !== null && inSeason(s, today));
      const value = season ? season[field] : setting[field];
      if (value === null) continue;
      from[field] = origin;
      seasons[field] = season ?? null;
      return value;
    }
    return null;
  };
  const kind = say('kind') ?? 'none';
  const min = dated('min');
  const maxSaid = dated('max');
  let max = maxSaid;
  if (min !== null && max !== null && max < min && nearness[from.max] > nearness[from.min]) {
    max = null;
    from.max = 'none';
    seasons.max = null;
  }
  const [fixed, coverDays] = [say('fixed'), say('coverDays')];
  const refill = say('refill') ?? 'up_to_max';
  const have: Partial<Record<PolicyField, unknown>> = { min, fixed, coverDays };
  return {
    kind,
    origin: from.kind,
    missing: kind === 'none' ? [] : (neededFields[kind] ?? []).filter((f) => have[f] === null),
    min,
    max,
    maxSaid,
    fixed,
    coverDays,
    safety: say('safety'),
    windowDays: say('windowDays') ?? DEFAULT_WINDOW_DAYS,
    useStock: say('useStock') ?? true,
    keepSafety: say('keepSafety') ?? true,
    displayMin: say('displayMin') ?? 0,
    reserve: say('reserve') ?? 0,
    trigger: say('trigger') ?? 'at_or_below',
    refill: max === null ? 'up_to_min' : refill,
    refillSaid: refill,
    rounding: say('rounding'),
    supply: say('supply') ?? 'supplier',
    supplyPlace: say('supplyPlace'),
    targetKind: say('targetKind') ?? 'cycle_service',
    targetThousandths: say('targetThousandths') ?? DEFAULT_TARGET_THOUSANDTHS,
    from,
    minSeason: seasons.min,
    maxSeason: seasons.max,
  };
}

const nearness: Readonly<Record<PolicyOrigin, number>> = { location: 0, item: 1, category: 2, company: 3, none: 4 };
