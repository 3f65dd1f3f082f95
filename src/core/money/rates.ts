import { decimalFraction, divideHalfUp, type Fraction, fraction, over, times } from '@/core/units';
import { decimalsOf } from './currencies';
import type { Minor } from './money';

/** A rate as it was quoted: how much base currency for one of the foreign one, or the other way round. */
export type RateDirection = 'base_per_foreign' | 'foreign_per_base';
export type Rate = {
  readonly currency: string;
  readonly direction: RateDirection;
  /** As quoted, a plain decimal above 0. */
  readonly rate: string;
  /** In force from this day until the next one quoted. */
  readonly validFrom: string;
};

/** The rate in force on a day: the latest that is not after it. Null when none is. */
export function rateOn<T extends Rate>(rates: readonly T[], currency: string, on: string): T | null {
  let best: T | null = null;
  for (const r of rates) {
    if (r.currency !== currency || r.validFrom > on) continue;
    if (best === null || r.validFrom > best.validFrom) best = r;
  }
  return best;
}

/** Base currency for one unit of the foreign one, as an exact fraction; never a rounded inverse.
 *  @example basePerForeign({ direction: 'foreign_per_base', rate: '1.25', … })  // 4/5 */
export function basePerForeign(r: Pick<Rate, 'direction' | 'rate'>): Fraction {
  const quoted = decimalFraction(r.rate);
  if (quoted.num <= 0n) throw new RangeError('a rate must be above 0');
  return r.direction === 'base_per_foreign' ? quoted : over(fraction(1), quoted);
}

/** Foreign money in base currency, rounded half up of the absolute value, once.
 *  @example convert(9000, 'USD', fraction(37, 40), 'EUR')  // 8325: 90.00 USD at 0.925 */
export function convert(amount: Minor, from: string, basePerUnit: Fraction, to: string): Minor {
  const scale = fraction(10n ** BigInt(decimalsOf(to)), 10n ** BigInt(decimalsOf(from)));
  const f = times(basePerUnit, scale);
  const value = Number(divideHalfUp(BigInt(amount) * f.num, f.den));
  if (!Number.isSafeInteger(value)) throw new RangeError('amount out of range');
  return value === 0 ? 0 : value;
}
