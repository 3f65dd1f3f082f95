import { jStat } from 'jstat';

/** Standard normal: the z below which a share p of all values lies.
 *  Accuracy: 1e-9 against tests/reference/normal.json. Errors: throws RangeError unless 0 < p < 1.
 *  @example normalQuantile(0.95)  // 1.6448536… */
export function normalQuantile(p: number): number {
  if (!(p > 0 && p < 1)) throw new RangeError('a quantile needs 0 < p < 1');
  return jStat.normal.inv(p, 0, 1);
}

export const normalDensity = (z: number): number => jStat.normal.pdf(z, 0, 1);

/** Share of values below z, and above it; each computed by itself, so that a small tail keeps its digits. */
export const normalCdf = (z: number): number => jStat.normal.cdf(z, 0, 1);
export const normalTail = (z: number): number => jStat.normal.cdf(-z, 0, 1);

/** Unit normal loss G(z) = E[(Z − z)+] = φ(z) − z·(1 − Φ(z)): expected shortage in standard deviations.
 *  Never below zero. Source: Silver, Pyke & Thomas, "Inventory and Production Management in Supply Chains", appendix (from
 *  memory); values in tests/reference/normal.json by numerical integration.
 *  @example unitLoss(0)  // 0.3989… */
export const unitLoss = (z: number): number => Math.max(0, normalDensity(z) - z * normalTail(z));

/** The z at which the unit normal loss is `loss`, by bisection to 1e-12; G falls steadily, from −z for very small z to 0.
 *  Errors: throws RangeError for a loss of 0 or less. */
export function inverseLoss(loss: number): number {
  if (!(loss > 0)) throw new RangeError('a loss must be positive');
  // G(z) ≥ −z, so the root is above −loss − 1; beyond 38 the density is 0.
  let [low, high] = [-loss - 1, 38];
  for (let n = 0; n < 200 && high - low > 1e-12; n += 1) {
    const middle = (low + high) / 2;
    if (unitLoss(middle) > loss) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
