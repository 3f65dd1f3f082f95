import { err, ok, type Result } from '@/core/result';
import { type Fraction, over } from './fraction';
import { unitsByCode } from './units';

export type UnitFault =
  | { readonly kind: 'unknown_unit'; readonly code: string }
  | { readonly kind: 'no_conversion'; readonly from: string; readonly to: string };

/** How many `to` one `from` holds, as an exact fraction.
 *  Errors: unknown_unit; no_conversion between different dimensions (a kilogram is no litre).
 *  Source: international yard and pound agreement (1959); codes of UN/ECE Recommendation 20, from memory.
 *  @example conversionFactor('YRD', 'MTR')  // 1143/1250 */
export function conversionFactor(from: string, to: string): Result<Fraction, UnitFault> {
  const [a, b] = [unitsByCode.get(from), unitsByCode.get(to)];
  if (!a) return err({ kind: 'unknown_unit', code: from });
  if (!b) return err({ kind: 'unknown_unit', code: to });
  if (a.dimension !== b.dimension) return err({ kind: 'no_conversion', from, to });
  return ok(over(a.factor, b.factor));
}
