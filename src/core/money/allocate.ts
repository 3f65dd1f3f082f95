import { type Fraction, fraction } from '@/core/units';
import type { Minor } from './money';

/** A sum of money split over lines by weights so that the parts add up to it to the last minor unit: quota = |amount| ×
 *  weight ÷ sum of weights, cut to whole minor units; what is left goes one each to the largest remainders, ties to the
 *  earlier line; a negative amount is the negated split. All weights zero: equal weights.
 *  Units: minor units; weights are exact fractions of any unit, none negative.
 *  Errors: throws RangeError for a negative weight (a defect).
 *  Source: largest-remainder method (Hamilton); common practice.
 *  @example allocate(10000, [fraction(1), fraction(1), fraction(1)])  // [3334, 3333, 3333] */
export function allocate(amount: Minor, weights: readonly Fraction[]): Minor[] {
  if (weights.length === 0) return [];
  if (weights.some((w) => w.num < 0n)) throw new RangeError('a weight can’t be negative');
  if (amount === 0) return weights.map(() => 0);
  const common = weights.reduce((den, w) => den * (w.den / gcd(den, w.den)), 1n);
  const scaled = weights.map((w) => (w.num * common) / w.den);
  const sum = scaled.reduce((a, b) => a + b, 0n);
  if (sum === 0n)
    return allocate(
      amount,
      weights.map(() => fraction(1)),
    );
  const parts = quotas(Math.abs(amount), scaled, sum);
  return amount < 0 ? parts.map((p) => (p === 0 ? 0 : -p)) : parts;
}

/** Whole minor units by weight, what is left to the largest remainders. In plain numbers where every product is exact in them. */
function quotas(total: number, scaled: readonly bigint[], sum: bigint): number[] {
  // No weight is beyond their sum.
  if (BigInt(total) * sum <= SAFE) {
    const of = Number(sum);
    const products = scaled.map((w) => total * Number(w));
    const rests = products.map((p) => p % of);
    const parts = products.map((p, i) => (p - (rests[i] as number)) / of);
    return handOut(total, parts, (a, b) => (rests[b] as number) - (rests[a] as number));
  }
  const products = scaled.map((w) => BigInt(total) * w);
  const rests = products.map((p) => p % sum);
  const parts = products.map((p) => Number(p / sum));
  return handOut(total, parts, (a, b) => compare(rests[b] as bigint, rests[a] as bigint));
}

const SAFE = BigInt(Number.MAX_SAFE_INTEGER);

function handOut(total: number, parts: number[], byRest: (a: number, b: number) => number): number[] {
  const left = total - parts.reduce((a, b) => a + b, 0);
  if (left === 0) return parts;
  const order = parts.map((_, i) => i).sort((a, b) => byRest(a, b) || a - b);
  for (const i of order.slice(0, left)) (parts[i] as number) += 1;
  return parts;
}

const compare = (a: bigint, b: bigint): number => (a > b ? 1 : a < b ? -1 : 0);

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a, b];
  while (y !== 0n) [x, y] = [y, x % y];
  return x;
}
