export type XyzClass = 'X' | 'Y' | 'Z';

/** Coefficient of variation: standard deviation (divisor n) over mean; null without a positive mean.
 *  Source: common practice; tests/reference/abc.json. */
export function variation(values: readonly number[]): number | null {
  const n = values.length;
  const mean = values.reduce((a, b) => a + b, 0) / n;
  if (n === 0 || !(mean > 0)) return null;
  return Math.sqrt(values.reduce((a, b) => a + (b - mean) ** 2, 0) / n) / mean;
}

/** How evenly something sells: X up to the first limit, Y up to the second, else Z; Z as well without demand. */
export const xyzClass = (cv: number | null, x: number, y: number): XyzClass =>
  cv === null ? 'Z' : cv <= x ? 'X' : cv <= y ? 'Y' : 'Z';
