import type { BusinessDate } from '@/core/calendar';
import type { Quantity } from '@/core/quantity';

/** When a need is raised: position at or below the minimum, or strictly below it. */
export type Trigger = 'at_or_below' | 'strictly_below';
/** How far a need refills: up to the maximum, or only up to the minimum. */
export type Refill = 'up_to_max' | 'up_to_min';

/** The ways to refill, by their trade names; see the table in calculations 3. */
export const policyKinds = [
  'min_max',
  'fixed_quantity',
  'periodic',
  'days_of_cover',
  'lot_for_lot',
  'per_demand',
  'phase_out',
  'not_carried',
] as const;
export type PolicyKind = (typeof policyKinds)[number];

/** Their names in words, on screens and in spreadsheets. */
export const kindWords: Readonly<Record<PolicyKind, string>> = {
  min_max: 'min/max',
  fixed_quantity: 'fixed quantity',
  periodic: 'periodic',
  days_of_cover: 'days of cover',
  lot_for_lot: 'lot-for-lot',
  per_demand: 'per demand',
  phase_out: 'phase-out',
  not_carried: 'not carried',
};

/** What a kind cannot do without. */
export const neededFields: Readonly<Partial<Record<PolicyKind, readonly ('min' | 'fixed' | 'coverDays')[]>>> = {
  min_max: ['min'],
  fixed_quantity: ['min', 'fixed'],
  days_of_cover: ['coverDays'],
};

/** Min and max of a part of the year or of a span of days. Both days belong to it. */
export type Season = {
  readonly from: BusinessDate;
  readonly to: BusinessDate;
  /** Comes back every year; the year of its days then does not matter, and it may run over New Year. */
  readonly everyYear: boolean;
  readonly min: Quantity | null;
  readonly max: Quantity | null;
};

/** What is said of a policy at one level: for the company, a category, an item everywhere, an item at one place. Null follows
 *  the next wider level. Quantities in millionths of the base unit. */
export type PolicySetting = {
  readonly kind: PolicyKind | null;
  /** Minimum; the reorder point of a fixed order quantity. */
  readonly min: Quantity | null;
  /** Maximum; the level a periodic policy orders up to (else it is reckoned from demand). */
  readonly max: Quantity | null;
  /** Q of a fixed order quantity. */
  readonly fixed: Quantity | null;
  /** Days that a days-of-cover policy keeps beyond its minimum. */
  readonly coverDays: number | null;
  /** Safety stock said by hand (lot-for-lot, periodic); else it is reckoned from the target. */
  readonly safety: Quantity | null;
  /** Days of demand that a lot-for-lot order takes together. */
  readonly windowDays: number | null;
  /** Lot-for-lot: whether stock that is there is used up, and whether safety stock is kept. */
  readonly useStock: boolean | null;
  readonly keepSafety: boolean | null;
  /** What has to lie on the shelf: a floor under every minimum. */
  readonly displayMin: Quantity | null;
  /** Never promised to anybody. */
  readonly reserve: Quantity | null;
  readonly trigger: Trigger | null;
  readonly refill: Refill | null;
  /** Overrides how the source rounds. */
  readonly rounding: 'up' | 'nearest' | 'none' | null;
  /** Bought from suppliers, or sent by the place that supplies this one. */
  readonly supply: 'supplier' | 'place' | null;
  /** Another place than the usual one that sends it here. */
  readonly supplyPlace: number | null;
  readonly targetKind: 'cycle_service' | 'fill_rate' | null;
  /** Share of the service target, in thousandths. */
  readonly targetThousandths: number | null;
  readonly seasons: readonly Season[];
};

export const emptySetting: PolicySetting = {
  kind: null,
  min: null,
  max: null,
  fixed: null,
  coverDays: null,
  safety: null,
  windowDays: null,
  useStock: null,
  keepSafety: null,
  displayMin: null,
  reserve: null,
  trigger: null,
  refill: null,
  rounding: null,
  supply: null,
  supplyPlace: null,
  targetKind: null,
  targetThousandths: null,
  seasons: [],
};

/** A value of a setting, by its name. */
export type PolicyField = Exclude<keyof PolicySetting, 'seasons'>;
export const policyFields = Object.keys(emptySetting).filter((k) => k !== 'seasons') as PolicyField[];

/** Which values a kind of policy uses, besides those that all may have; a form shows no others. */
export const fieldsOf: Readonly<Record<PolicyKind, readonly PolicyField[]>> = {
  min_max: ['min', 'max', 'trigger', 'refill', 'rounding', 'displayMin', 'targetKind', 'targetThousandths'],
  fixed_quantity: ['min', 'fixed', 'trigger', 'rounding', 'displayMin', 'targetKind', 'targetThousandths'],
  periodic: ['max', 'safety', 'rounding', 'displayMin', 'targetKind', 'targetThousandths'],
  days_of_cover: ['coverDays', 'trigger', 'rounding', 'displayMin', 'targetKind', 'targetThousandths'],
  lot_for_lot: ['safety', 'windowDays', 'useStock', 'keepSafety', 'rounding', 'targetKind', 'targetThousandths'],
  per_demand: ['rounding'],
  phase_out: [],
  not_carried: [],
};

/** Kinds that refill when stock is low, and so need a minimum or something to reckon it from. */
export const refills = (kind: PolicyKind | 'none'): boolean =>
  kind !== 'none' && kind !== 'phase_out' && kind !== 'not_carried';

export const isPolicyField = (name: string): name is PolicyField => (policyFields as readonly string[]).includes(name);
