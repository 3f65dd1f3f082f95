/** An exact fraction in lowest terms; the denominator is positive. */
export type Fraction = { readonly num: bigint; readonly den: bigint };

function gcd(a: bigint, b: bigint): bigint {
  let [x, y] = [a < 0n ? -a : a, b];
  while (y !== 0n) [x, y] = [y, x % y];
  return x;
}

/** num/den in lowest terms. Errors: throws RangeError for a zero denominator. */
export function fraction(num: bigint | number, den: bigint | number = 1n): Fraction {
  const [n, d] = [BigInt(num), BigInt(den)];
  if (d === 0n) throw new RangeError('zero denominator');
  const g = gcd(n, d < 0n ? -d : d) || 1n;
  const s = d < 0n ? -1n : 1n;
  return { num: (s * n) / g, den: (s * d) / g };
}

export const times = (a: Fraction, b: Fraction): Fraction => fraction(a.num * b.num, a.den * b.den);
export const over = (a: Fraction, b: Fraction): Fraction => fraction(a.num * b.den, a.den * b.num);
export const sameFraction = (a: Fraction, b: Fraction): boolean => a.num === b.num && a.den === b.den;

/** A plain decimal such as "0.9144" as an exact fraction. Errors: throws RangeError when it is none. */
export function decimalFraction(text: string): Fraction {
  const m = /^(-?\d+)(?:\.(\d+))?$/.exec(text);
  if (!m) throw new RangeError(`not a decimal: ${text}`);
  const decimals = m[2] ?? '';
  return fraction(BigInt(`${m[1]}${decimals}`), 10n ** BigInt(decimals.length));
}

/** Whole quotient rounded half away from zero, on integers of any size.
 *  @example divideHalfUp(5n, 2n)   // 3n
 *  @example divideHalfUp(-5n, 2n)  // -3n */
export function divideHalfUp(num: bigint, den: bigint): bigint {
  const negative = num < 0n !== den < 0n;
  const [n, d] = [num < 0n ? -num : num, den < 0n ? -den : den];
  const q = (2n * n + d) / (2n * d);
  return negative ? -q : q;
}
