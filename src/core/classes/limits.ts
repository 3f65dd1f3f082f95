import { err, ok, type Result } from '@/core/result';

/** Limits as they are typed: shares in percent, variation as a plain figure. */
export type TypedLimits = { readonly a: string; readonly b: string; readonly x: string; readonly y: string };
export type Limits = { readonly abcA: number; readonly abcB: number; readonly xyzX: number; readonly xyzY: number };
export type LimitFault =
  | { readonly kind: 'not_a_share'; readonly text: string }
  | { readonly kind: 'not_a_variation'; readonly text: string }
  | { readonly kind: 'limits_reversed' };

/** A share in percent with at most one decimal, as thousandths. @example thousandthsOf('99.5')  // 995 */
export function thousandthsOf(text: string): number | null {
  const t = text.trim().replace(',', '.').replace(/\s*%$/, '');
  return /^\d{1,3}(\.\d)?$/.test(t) ? Math.round(Number(t) * 10) : null;
}

/** Limits of the classes: A up to a share of all value, B up to a larger one, at most 100 %; X up to a coefficient of
 *  variation, Y up to a larger one, at most 9.99. In thousandths.
 *  Errors by field: not_a_share, not_a_variation, limits_reversed (at the larger one). */
export function readLimits(
  typed: TypedLimits,
): Result<Limits, { readonly field: keyof TypedLimits; readonly fault: LimitFault }> {
  const out: Record<keyof TypedLimits, number> = { a: 0, b: 0, x: 0, y: 0 };
  for (const field of ['a', 'b'] as const) {
    const share = thousandthsOf(typed[field]);
    if (share === null || share < 1 || share > 1000)
      return err({ field, fault: { kind: 'not_a_share', text: typed[field] } });
    out[field] = share;
  }
  for (const field of ['x', 'y'] as const) {
    const t = typed[field].trim().replace(',', '.');
    if (!/^\d(\.\d{1,3})?$/.test(t) || Number(t) <= 0)
      return err({ field, fault: { kind: 'not_a_variation', text: typed[field] } });
    out[field] = Math.round(Number(t) * 1000);
  }
  if (out.b < out.a) return err({ field: 'b', fault: { kind: 'limits_reversed' } });
  if (out.y < out.x) return err({ field: 'y', fault: { kind: 'limits_reversed' } });
  return ok({ abcA: out.a, abcB: out.b, xyzX: out.x, xyzY: out.y });
}
