import { err, ok, type Result } from '@/core/result';
import { decimalFraction, divideHalfUp, type Fraction } from '@/core/units';
import { decimalsOf } from './currencies';

/** Money in minor units of its currency (10.00 EUR = 1000). A safe integer. */
export type Minor = number;

/** Minor units as a plain decimal. @example minorToDecimal(19680, 'EUR')  // '196.80' */
export function minorToDecimal(amount: Minor, currency: string): string {
  const d = decimalsOf(currency);
  const digits = String(Math.abs(amount)).padStart(d + 1, '0');
  const sign = amount < 0 ? '-' : '';
  return d === 0 ? `${sign}${digits}` : `${sign}${digits.slice(0, -d)}.${digits.slice(-d)}`;
}

/** With its currency, for records. @example moneyText(19680, 'EUR')  // '196.80 EUR' */
export const moneyText = (amount: Minor, currency: string): string => `${minorToDecimal(amount, currency)} ${currency}`;

/** A price: `amount` of money for `perQuantity` packs of `packContent` base units each, like the price base
 *  quantity of UBL 2.1. Kept as given: 10.00 for 3 stays 10.00 for 3; a price per base unit is shown, never stored. */
export type Price = { readonly amount: string; readonly perQuantity: string; readonly packContent: Fraction };

/** Line net = quantity × price, rounded half-up of the absolute value, once, to the minor unit.
 *  Units: base quantity in millionths; result in minor units of the currency.
 *  Errors: throws RangeError when the result is no safe integer.
 *  @example lineNet(units(108), { amount: '102.60', perQuantity: '1', packContent: fraction(36) }, 'EUR')  // 30780 */
export function lineNet(base: number, price: Price, currency: string): Minor {
  const amount = decimalFraction(price.amount);
  const per = decimalFraction(price.perQuantity);
  const num = BigInt(base) * amount.num * per.den * price.packContent.den * 10n ** BigInt(decimalsOf(currency));
  const den = 1_000_000n * amount.den * per.num * price.packContent.num;
  const net = Number(divideHalfUp(num, den));
  if (!Number.isSafeInteger(net)) throw new RangeError('amount out of range');
  return net;
}

/** Price per base unit as a decimal string with the given number of decimals, half up; for display and comparison only. */
export function pricePerBaseUnit(price: Price, decimals = 4): string {
  const amount = decimalFraction(price.amount);
  const per = decimalFraction(price.perQuantity);
  const scale = 10n ** BigInt(decimals);
  const n = divideHalfUp(
    amount.num * per.den * price.packContent.den * scale,
    amount.den * per.num * price.packContent.num,
  );
  const digits = String(n).padStart(decimals + 1, '0');
  return decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
}

/** Price per base unit as lists show it: two decimals, none where the currency has none and it is whole.
 *  @example eachText(price, 'JPY')  // '3900' */
export function eachText(price: Price, currency: string): string {
  const text = pricePerBaseUnit(price, 2);
  return decimalsOf(currency) === 0 && text.endsWith('.00') ? text.slice(0, -3) : text;
}

export type PriceFault =
  | { readonly kind: 'not_a_price'; readonly text: string }
  | { readonly kind: 'price_ambiguous'; readonly text: string; readonly readings: readonly [string, string] }
  | { readonly kind: 'price_too_large'; readonly text: string }
  | { readonly kind: 'price_decimals'; readonly text: string };

/** What a person typed as a price amount, as a plain decimal with at most 6 decimals and below 10⁹.
 *  Errors: not_a_price (also for a negative one), price_ambiguous ("1.250": 1250 or 1.25), price_decimals, price_too_large. */
export function parsePrice(typed: string): Result<string, PriceFault> {
  const text = typed.trim();
  const compact = text.replace(/[\s\u00a0\u202f]/g, '');
  if (/^[1-9]\d{0,2}[.,]\d{3}$/.test(compact)) {
    const bare = compact.replace(/[.,]/, '');
    const decimal = compact.replace(',', '.').replace(/0+$/, '').replace(/\.$/, '.0');
    return err({ kind: 'price_ambiguous', text, readings: [bare, decimal] });
  }
  const plain = /^\d{1,3}(,\d{3})+\.\d+$/.test(compact)
    ? compact.replaceAll(',', '')
    : /^\d{1,3}(\.\d{3})+,\d+$/.test(compact)
      ? compact.replaceAll('.', '').replace(',', '.')
      : compact.replace(',', '.');
  const m = /^(\d+)(?:\.(\d*))?$/.exec(plain);
  if (!m) return err({ kind: 'not_a_price', text });
  if ((m[2] ?? '').length > 6) return err({ kind: 'price_decimals', text });
  if ((m[1] as string).length > 9) return err({ kind: 'price_too_large', text });
  const whole = (m[1] as string).replace(/^0+(?=\d)/, '');
  return ok(m[2] ? `${whole}.${m[2]}` : whole);
}
