import type { Distribution } from './distribution';

/** Probabilities from the ratio of each to the one before, begun at the most likely number, so that none is too small to
 *  be written; what is below 1e-20 of that one is left out. Then made to sum to 1 and looked up. */
function table(ratio: (k: number) => number, mode: number, mean: number, variance: number): Distribution {
  const up = [1];
  for (let k = mode; (up.at(-1) as number) > 1e-20; k += 1) up.push((up.at(-1) as number) * ratio(k));
  const down: number[] = [];
  for (let k = mode - 1, p = 1; k >= 0; k -= 1) {
    p /= ratio(k);
    if (p < 1e-20) break;
    down.push(p);
  }
  const first = mode - down.length;
  const weights = [...down.reverse(), ...up];
  const all = weights.reduce((a, b) => a + b, 0);
  const count = weights.length;
  const cdf = new Float64Array(count);
  // E[(X − x)+] = Σ over k ≥ x of P(X > k) for whole x; between whole numbers it runs straight. Summed from the far end, so
  // that small shortages keep their digits.
  const loss = new Float64Array(count + 1);
  let below = 0;
  for (let i = 0; i < count; i += 1) {
    below += (weights[i] as number) / all;
    cdf[i] = Math.min(1, below);
  }
  for (let i = count - 1, tail = 0; i >= 0; i -= 1) {
    loss[i] = (loss[i + 1] as number) + tail;
    tail += (weights[i] as number) / all;
  }
  const lossAt = (i: number) => (i < 0 ? (loss[0] as number) - i : (loss[Math.min(i, count)] as number));
  return {
    mean,
    variance,
    discrete: true,
    cdf: (x) => {
      const i = Math.floor(x) - first;
      return i < 0 ? 0 : (cdf[Math.min(i, count - 1)] as number);
    },
    shortage: (x) => {
      const whole = Math.floor(x);
      const [here, then] = [lossAt(whole - first), lossAt(whole + 1 - first)];
      return here + (then - here) * (x - whole);
    },
  };
}

const nothing: Distribution = {
  mean: 0,
  variance: 0,
  discrete: true,
  cdf: (x) => Number(x >= 0),
  shortage: (x) => Math.max(0, -x),
};

/** Poisson demand: single pieces at random times. Errors: throws RangeError unless 0 ≤ mean ≤ 100,000.
 *  Source: textbook; tests/reference/discrete.json. */
export function poisson(mean: number): Distribution {
  if (!(mean >= 0 && mean <= 100_000)) throw new RangeError('a Poisson mean lies between 0 and 100,000');
  return mean === 0 ? nothing : table((k) => mean / (k + 1), Math.floor(mean), mean, mean);
}

/** Negative binomial demand by mean m and variance v > m: size n = m²/(v − m), p = m/v; customers at random who take more
 *  than one piece. Errors: throws RangeError unless 100,000 ≥ v > m > 0.
 *  Source: textbook; tests/reference/discrete.json. */
export function negativeBinomial(mean: number, variance: number): Distribution {
  if (!(mean > 0 && variance > mean && variance <= 100_000))
    throw new RangeError('a negative binomial needs variance > mean > 0');
  const size = (mean * mean) / (variance - mean);
  const q = 1 - mean / variance;
  const mode = size > 1 ? Math.floor((q * (size - 1)) / (1 - q)) : 0;
  return table((k) => (q * (size + k)) / (k + 1), mode, mean, variance);
}
