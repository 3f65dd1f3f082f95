/** Figures of a sample of lead times, in days; sd is null for one observation. */
export type SampleStatistics = {
  readonly n: number;
  readonly mean: number;
  readonly sd: number | null;
  readonly median: number;
  readonly p90: number;
};

/** Quantile of a sample by linear interpolation at position (n − 1)·p, type 7 of Hyndman & Fan.
 *  Errors: throws RangeError for an empty sample or p outside 0…1 (a defect).
 *  Source: Hyndman & Fan, "Sample Quantiles in Statistical Packages", The American Statistician 50 (1996).
 *  @example quantile7([5, 5, 23], 0.9)  // 19.4 */
export function quantile7(values: readonly number[], p: number): number {
  const v = sorted(values, p);
  const at = (v.length - 1) * p;
  const low = Math.floor(at);
  const [a, b] = [v[low] as number, v[Math.min(low + 1, v.length - 1)] as number];
  return a + (b - a) * (at - low);
}

/** Quantile of a sample as the inverse of its distribution: the value at position ⌈n·p⌉, type 1 of Hyndman & Fan.
 *  Errors and source: as quantile7. */
export function quantile1(values: readonly number[], p: number): number {
  const v = sorted(values, p);
  // n·p of decimals such as 0.95 may come out a hair above a whole number.
  const at = Math.ceil(v.length * p - 1e-9);
  return v[Math.max(1, Math.min(at, v.length)) - 1] as number;
}

function sorted(values: readonly number[], p: number): number[] {
  if (values.length === 0 || !(p >= 0 && p <= 1)) throw new RangeError('a quantile needs values and 0 ≤ p ≤ 1');
  return [...values].sort((a, b) => a - b);
}

/** Mean, sample standard deviation (divisor n − 1), median and p90 (type 7) of lead times. Null for none.
 *  Units: days in, days out, unrounded; a promise rounds up to whole days. */
export function sampleStatistics(values: readonly number[]): SampleStatistics | null {
  const n = values.length;
  if (n === 0) return null;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  const squares = values.reduce((a, b) => a + (b - mean) ** 2, 0);
  const sd = n > 1 ? Math.sqrt(squares / (n - 1)) : null;
  return { n, mean, sd, median: quantile7(values, 0.5), p90: quantile7(values, 0.9) };
}
