import { err, ok, type Result } from '@/core/result';

export type GtinFault =
  | { readonly kind: 'not_digits'; readonly text: string }
  | { readonly kind: 'wrong_length'; readonly text: string }
  | { readonly kind: 'wrong_check_digit'; readonly text: string; readonly right: string };

/** Digits of a GS1 key: GTIN-8, GTIN-12, GTIN-13, GTIN-14 and the SSCC of 18. */
export const gtinLengths = [8, 12, 13, 14] as const;

/** Check digit of a GS1 key: weights 3, 1, 3, 1 … from the digit next to it leftwards, complement of the sum to ten.
 *  Takes the digits without the check digit.
 *  Source: GS1 General Specifications, "Standard check digit calculations".
 *  @example checkDigit('400638133393')  // '1' */
export function checkDigit(body: string): string {
  let sum = 0;
  for (let i = body.length - 1, weight = 3; i >= 0; i -= 1, weight = 4 - weight) sum += weight * Number(body[i]);
  return String((10 - (sum % 10)) % 10);
}

/** A GS1 key of one of the lengths.
 *  Errors: not_digits (a space inside too), wrong_length, wrong_check_digit with the digit that would be right. */
export function parseKey(typed: string, lengths: readonly number[]): Result<string, GtinFault> {
  const text = typed.trim();
  if (!/^[0-9]+$/.test(text)) return err({ kind: 'not_digits', text });
  if (!lengths.includes(text.length)) return err({ kind: 'wrong_length', text });
  const right = checkDigit(text.slice(0, -1));
  return right === text.at(-1) ? ok(text) : err({ kind: 'wrong_check_digit', text, right });
}

/** A GTIN of 8, 12, 13 or 14 digits in its 14-digit form (zeros in front), under which all lengths are one code.
 *  Errors: as parseKey.
 *  @example parseGtin('4006381333931')  // ok '04006381333931' */
export function parseGtin(typed: string): Result<string, GtinFault> {
  const parsed = parseKey(typed, gtinLengths);
  return parsed.ok ? ok(parsed.value.padStart(14, '0')) : parsed;
}

/** A GTIN as it is printed: the shortest of the usual forms that holds it.
 *  @example printedGtin('04006381333931')  // '4006381333931' */
export function printedGtin(gtin14: string): string {
  const bare = gtin14.replace(/^0+/, '');
  const length = gtinLengths.find((l) => l >= bare.length) ?? 14;
  return bare.padStart(length, '0');
}
