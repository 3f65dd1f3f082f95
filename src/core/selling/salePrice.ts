import { decimalFraction, divideHalfUp, type Fraction, fraction, over, times } from '@/core/units';

/** A price that was set: for the base unit (packId null) or a pack, at one place or everywhere (locationId null). */
export type SetPrice = {
  readonly packId: number | null;
  readonly locationId: number | null;
  readonly amount: string;
  readonly withTax: boolean;
  readonly taxRate: string | null;
};

export type SalePrice = {
  readonly amount: string;
  readonly withTax: boolean;
  readonly taxRate: string | null;
  /** Set as it stands, or computed from the price of the base unit. */
  readonly how: 'set' | 'computed';
  /** Said for this very place. */
  readonly here: boolean;
};

/** What an item sells at in a pack at a place. In this order: set for the pack at the place; computed from the base unit's
 *  price at the place; set for the pack everywhere; computed from the base unit's price everywhere. A price of the place goes
 *  before one of everywhere, so that a place with its own price per unit does not sell packs at another's.
 *  Units: company currency, decimal text; a computed price is rounded half up to `decimals`.
 *  Null when neither is on file. Source: common practice.
 *  @example base 5.95, pack of 10 → '59.50', computed */
export function salePriceOf(
  prices: readonly SetPrice[],
  of: { readonly packId: number | null; readonly content: Fraction; readonly locationId: number | null },
  decimals: number,
): SalePrice | null {
  const set = (packId: number | null, locationId: number | null) =>
    prices.find((p) => p.packId === packId && p.locationId === locationId);
  const places = of.locationId === null ? [null] : [of.locationId, null];
  for (const place of places) {
    const here = place !== null;
    const own = set(of.packId, place);
    if (own) return { ...own, how: 'set', here };
    const base = of.packId === null ? undefined : set(null, place);
    if (base) return { ...base, amount: scaled(base.amount, of.content, decimals), how: 'computed', here };
  }
  return null;
}

/** A decimal times a fraction, rounded half up. */
function scaled(amount: string, by: Fraction, decimals: number): string {
  return decimalText(times(decimalFraction(amount), by), decimals);
}

/** A fraction as a decimal, rounded half up of the absolute value. */
function decimalText(f: Fraction, decimals: number): string {
  const n = divideHalfUp(f.num * 10n ** BigInt(decimals), f.den);
  const digits = String(n < 0n ? -n : n).padStart(decimals + 1, '0');
  const text = decimals === 0 ? digits : `${digits.slice(0, -decimals)}.${digits.slice(-decimals)}`;
  return n < 0n ? `-${text}` : text;
}

/** A price without the tax that is in it. Null when it has tax in it and the rate is not known.
 *  @example withoutTax({ amount: '11.90', withTax: true, taxRate: '19' }, 2)  // '10.00' */
export function withoutTax(price: Pick<SalePrice, 'amount' | 'withTax' | 'taxRate'>, decimals: number): string | null {
  const amount = decimalFraction(price.amount);
  if (!price.withTax) return decimalText(amount, decimals);
  if (price.taxRate === null) return null;
  return decimalText(over(amount, plusPercent(price.taxRate)), decimals);
}

const plusPercent = (percent: string): Fraction => {
  const p = decimalFraction(percent);
  return fraction(100n * p.den + p.num, 100n * p.den);
};

/** Margin on the price without tax, in percent with one decimal: what is left of it once the goods are paid.
 *  Source: common practice (gross margin = (net price − cost) ÷ net price). Null for a price of 0. */
export function marginPercent(netPrice: string, cost: string): string | null {
  const [n, c] = [decimalFraction(netPrice), decimalFraction(cost)];
  if (n.num === 0n) return null;
  const left = fraction(n.num * c.den - c.num * n.den, n.den * c.den);
  return decimalText(times(over(left, n), fraction(100)), 1);
}
