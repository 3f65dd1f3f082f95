import { MICRO, parseQuantity, type Quantity, type QuantityFault } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { fraction } from '@/core/units';

export type LineQuantityFault =
  | QuantityFault
  | { readonly kind: 'zero_quantity' }
  | { readonly kind: 'absurd_quantity'; readonly text: string; readonly times: number };

/** More packs than this on one line is taken for a slip of the hand (a scanned barcode in the quantity field, say). */
export const MAX_PACKS_PER_LINE = 99_999;

/** The quantity a person typed for an order line, in millionths of the unit it was typed in: packs, or base units of a
 *  pack with this content.
 *  Errors: those of parseQuantity; zero_quantity; absurd_quantity for what makes more than 99,999 packs. */
export function checkLineQuantity(typed: string, content = fraction(1n)): Result<Quantity, LineQuantityFault> {
  const q = parseQuantity(typed);
  if (!q.ok)
    return q.error.kind === 'too_large' ? err({ kind: 'absurd_quantity', text: typed, times: MAX_PACKS_PER_LINE }) : q;
  if (q.value === 0) return err({ kind: 'zero_quantity' });
  if ((q.value / Number(content.num)) * Number(content.den) > MAX_PACKS_PER_LINE * MICRO)
    return err({ kind: 'absurd_quantity', text: typed, times: MAX_PACKS_PER_LINE });
  return ok(q.value);
}
