import type { Distribution } from './distribution';

/** One of several distributions at random, by weight: demand over a lead time that is itself uncertain.
 *  Variance = Σ w·(v + m²) − mean². Errors: throws RangeError without parts or with weights that sum to 0 or less.
 *  @example mixture([{ weight: 0.6, of: poisson(5) }, { weight: 0.4, of: poisson(35) }]) */
export function mixture(parts: readonly { readonly weight: number; readonly of: Distribution }[]): Distribution {
  const all = parts.reduce((a, p) => a + p.weight, 0);
  if (!(all > 0)) throw new RangeError('a mixture needs parts with weight');
  const over = (f: (d: Distribution) => number) => parts.reduce((a, p) => a + (p.weight / all) * f(p.of), 0);
  const mean = over((d) => d.mean);
  return {
    mean,
    variance: Math.max(0, over((d) => d.variance + d.mean * d.mean) - mean * mean),
    discrete: parts.every((p) => p.of.discrete),
    cdf: (x) => over((d) => d.cdf(x)),
    shortage: (x) => over((d) => d.shortage(x)),
  };
}
