/** Demand over some time as a distribution. All figures in the unit the mean is in; a discrete one counts whole units. */
export type Distribution = {
  readonly mean: number;
  readonly variance: number;
  /** Whole numbers only: its quantile is one too. */
  readonly discrete: boolean;
  /** Share of cases at or below x. */
  readonly cdf: (x: number) => number;
  /** Expected shortage E[(X − x)+] when x is there. */
  readonly shortage: (x: number) => number;
};

/** The smallest x with cdf(x) ≥ p: of a discrete distribution exactly, else by bisection to 1e-10 of its scale.
 *  Errors: throws RangeError unless 0 < p < 1. */
export function quantile(d: Distribution, p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError('a quantile needs 0 < p < 1');
  const sd = Math.sqrt(d.variance);
  if (d.discrete) {
    let high = Math.max(1, Math.ceil(d.mean + 4 * sd));
    while (d.cdf(high) < p) high *= 2;
    let low = -1;
    while (high - low > 1) {
      const middle = Math.floor((low + high) / 2);
      if (d.cdf(middle) >= p) high = middle;
      else low = middle;
    }
    return high;
  }
  if (sd === 0) return d.mean;
  let [low, high] = [d.mean - 10 * sd, d.mean + 10 * sd];
  while (d.cdf(high) < p) high += 10 * sd;
  while (d.cdf(low) > p) low -= 10 * sd;
  const enough = 1e-10 * Math.max(sd, Math.abs(d.mean));
  while (high - low > enough) {
    const middle = (low + high) / 2;
    if (middle <= low || middle >= high) break;
    if (d.cdf(middle) >= p) high = middle;
    else low = middle;
  }
  return high;
}

/** The least x at which the expected shortage is at most `most`; whole for a discrete distribution.
 *  Errors: throws RangeError for a negative `most`. */
export function shortageQuantile(d: Distribution, most: number): number {
  if (!(most >= 0)) throw new RangeError('an expected shortage is not negative');
  const sd = Math.sqrt(d.variance);
  if (sd === 0) return Math.max(0, d.mean - most);
  let [low, high] = [d.mean - most - 1, d.mean + 10 * sd + 1];
  while (d.shortage(high) > most && high < d.mean + 1000 * sd) high += 10 * sd;
  for (let n = 0; n < 200 && high - low > 1e-10 * Math.max(1, sd); n += 1) {
    const middle = (low + high) / 2;
    if (d.shortage(middle) > most) low = middle;
    else high = middle;
  }
  return d.discrete ? Math.max(0, Math.ceil(high - 1e-9)) : high;
}
