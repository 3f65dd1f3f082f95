import type { SampleStatistics } from './statistics';

/** What was measured of a supplier, with the latest times as they were. */
export type MeasuredLeadTime = SampleStatistics & { readonly observed: readonly number[] };

/** Which lead time counts: measured ones from so many on, each as it was from so many on; else what the supplier states. */
export type LeadTimeRule = {
  readonly use: 'measured' | 'stated';
  readonly least: number;
  readonly empirical: number;
};

/** The lead time that is planned with, in calendar days. */
export type LeadTimeInUse = {
  readonly mean: number;
  readonly sd: number;
  readonly observed: readonly number[] | null;
  readonly from: 'measured' | 'stated';
  readonly n: number;
};

/** Measured where there are enough to be believed, else as stated: five working days are seven by the calendar, and nothing
 *  is known of how they vary. Source: common practice.
 *  @example stated 5 working days, nothing measured → mean 7, sd 0 */
export function leadTimeInUse(
  stated: { readonly days: number; readonly kind: 'working' | 'calendar' },
  measured: MeasuredLeadTime | null,
  rule: LeadTimeRule,
): LeadTimeInUse {
  const n = measured?.n ?? 0;
  if (measured === null || rule.use === 'stated' || n < Math.max(1, rule.least)) {
    const mean = stated.kind === 'working' ? (stated.days * 7) / 5 : stated.days;
    return { mean, sd: 0, observed: null, from: 'stated', n };
  }
  return {
    mean: measured.mean,
    sd: measured.sd ?? 0,
    observed: n >= rule.empirical ? measured.observed : null,
    from: 'measured',
    n,
  };
}
