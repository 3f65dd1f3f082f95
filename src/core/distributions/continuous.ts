import { jStat } from 'jstat';
import type { Distribution } from './distribution';
import { normalCdf, unitLoss } from './normal';

/** Normal demand by mean and standard deviation; sd 0 is a fixed quantity. Errors: throws RangeError for sd < 0. */
export function normal(mean: number, sd: number): Distribution {
  if (!(sd >= 0)) throw new RangeError('a standard deviation is not negative');
  return {
    mean,
    variance: sd * sd,
    discrete: false,
    cdf: (x) => (sd === 0 ? Number(x >= mean) : normalCdf((x - mean) / sd)),
    shortage: (x) => (sd === 0 ? Math.max(0, mean - x) : sd * unitLoss((x - mean) / sd)),
  };
}

/** Gamma demand by mean and sd: shape (m/sd)², scale sd²/m; never below zero, skewed to the right.
 *  Expected shortage E[(X − x)+] = m·(1 − F(x; shape + 1)) − x·(1 − F(x; shape)).
 *  Errors: throws RangeError unless both are positive. Source: textbook; tests/reference/discrete.json. */
export function gamma(mean: number, sd: number): Distribution {
  if (!(mean > 0 && sd > 0)) throw new RangeError('a gamma needs a positive mean and sd');
  const [shape, scale] = [(mean / sd) ** 2, (sd * sd) / mean];
  const F = (x: number, k: number) => (x <= 0 ? 0 : jStat.gamma.cdf(x, k, scale));
  return {
    mean,
    variance: sd * sd,
    discrete: false,
    cdf: (x) => F(x, shape),
    shortage: (x) => (x <= 0 ? mean - x : Math.max(0, mean * (1 - F(x, shape + 1)) - x * (1 - F(x, shape)))),
  };
}
