import { err, ok, type Result } from '@/core/result';
import { type GtinFault, parseGtin, printedGtin } from './gtin';

/** What stands on a label: a GTIN in its 14-digit form, or a code of our own or the supplier's as it reads. */
export type Barcode = { readonly kind: 'gtin' | 'internal'; readonly code: string };

export type BarcodeFault =
  | GtinFault
  | { readonly kind: 'code_too_long'; readonly text: string }
  | { readonly kind: 'code_unprintable'; readonly text: string }
  | { readonly kind: 'code_missing' };

const MOST = 40;

/** A code that is claimed to be a GTIN, or has as many digits as one, must be one; an internal code is 1 to 40 printable
 *  ASCII characters. Without a claim everything that is not as long as a GTIN is internal.
 *  Errors: as parseGtin; code_missing, code_too_long, code_unprintable.
 *  @example parseBarcode('4006381333931')       // gtin 04006381333931
 *  @example parseBarcode('QY-0412', 'internal') // internal QY-0412 */
export function parseBarcode(typed: string, claim: 'gtin' | 'internal' | null = null): Result<Barcode, BarcodeFault> {
  const text = typed.trim();
  if (text === '') return err({ kind: 'code_missing' });
  const gtin = claim === 'internal' ? null : parseGtin(text);
  if (gtin?.ok) return ok({ kind: 'gtin', code: gtin.value });
  if (gtin && !gtin.ok && (claim === 'gtin' || gtin.error.kind === 'wrong_check_digit')) return err(gtin.error);
  if (text.length > MOST) return err({ kind: 'code_too_long', text });
  if (!/^[\x21-\x7e](?:[\x20-\x7e]*[\x21-\x7e])?$/.test(text)) return err({ kind: 'code_unprintable', text });
  return ok({ kind: 'internal', code: text });
}

/** A barcode as it is printed and typed. */
export const barcodeText = (b: Barcode): string => (b.kind === 'gtin' ? printedGtin(b.code) : b.code);
