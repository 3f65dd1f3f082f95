import { err, ok, type Result } from '@/core/result';
import { MAX_QUANTITY, MICRO, type Quantity, toDecimal } from './quantity';

export type QuantityFault =
  | { readonly kind: 'not_a_number'; readonly text: string }
  | { readonly kind: 'ambiguous'; readonly text: string; readonly readings: readonly [string, string] }
  | { readonly kind: 'too_many_decimals'; readonly text: string }
  | { readonly kind: 'negative'; readonly text: string }
  | { readonly kind: 'too_large'; readonly text: string };

/** What a person typed as a quantity, in millionths of the unit it is counted in.
 *  Point and comma are both understood as decimal marks; one mark followed by exactly three digits could group
 *  thousands as well and is read back instead of guessed. Spaces group thousands.
 *  Errors: not_a_number, ambiguous ("1.250"), too_many_decimals (more than 6), negative, too_large (above 9×10⁹).
 *  @example parseQuantity('41,5')   // 41_500_000
 *  @example parseQuantity('1.250')  // ambiguous: 1250 or 1.25 */
export function parseQuantity(typed: string): Result<Quantity, QuantityFault> {
  const text = typed.trim();
  const compact = text.replace(/[\s\u00a0\u202f]/g, '').replace(/^\u2212/, '-');
  if (/^-\d/.test(compact)) return err({ kind: 'negative', text });
  const grouped = /^\d{1,3}(?:([.,])\d{3})(?:\1\d{3})+(?:[.,]\d+)?$/.exec(compact);
  const plain = grouped
    ? compact
        .split(grouped[1] as string)
        .join('')
        .replace(',', '.')
    : /^\d{1,3}(?:,\d{3})+\.\d+$/.test(compact)
      ? compact.replaceAll(',', '')
      : /^\d{1,3}(?:\.\d{3})+,\d+$/.test(compact)
        ? compact.replaceAll('.', '').replace(',', '.')
        : compact.replace(',', '.');
  const m = /^(\d*)(?:\.(\d*))?$/.exec(plain);
  if (!m || (m[1] === '' && !m[2])) return err({ kind: 'not_a_number', text });
  const whole = m[1] || '0';
  const decimals = m[2] ?? '';
  if (decimals.length > 6 && /[1-9]/.test(decimals.slice(6))) return err({ kind: 'too_many_decimals', text });
  if (/^[1-9]\d{0,2}[.,]\d{3}$/.test(compact)) {
    return err({
      kind: 'ambiguous',
      text,
      readings: [`${whole}${decimals}`, `${whole}.${decimals.replace(/0+$/, '') || '0'}`],
    });
  }
  if (whole.length > 10) return err({ kind: 'too_large', text });
  const q = Number(whole) * MICRO + Number(decimals.slice(0, 6).padEnd(6, '0'));
  return q > MAX_QUANTITY ? err({ kind: 'too_large', text }) : ok(q);
}

/** A quantity as it is put into a field: what parseQuantity reads back as exactly this, never as ambiguous.
 *  @example entryText(units(1.25))   // '1.25'
 *  @example entryText(units(6.505))  // '6.5050' */
export function entryText(q: Quantity): string {
  const text = toDecimal(q);
  return /^[1-9]\d{0,2}\.\d{3}$/.test(text) ? `${text}0` : text;
}
