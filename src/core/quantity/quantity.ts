/** A quantity in an item's base unit, as a whole number of millionths (24 pieces = 24_000_000).
 *  Always a safe integer; |quantity| ≤ 9×10⁹ units. */
export type Quantity = number;

/** Millionths in one base unit. */
export const MICRO = 1_000_000;

/** Largest quantity the books take: 9×10⁹ base units, in millionths. */
export const MAX_QUANTITY: Quantity = 9_000_000_000 * MICRO;

export const isQuantity = (q: number): boolean => Number.isSafeInteger(q) && Math.abs(q) <= MAX_QUANTITY;

/** A defect guard for results of arithmetic.
 *  Errors: throws RangeError outside ±9×10⁹ units, because a silent loss of digits would corrupt the books. */
export function checked(q: number): Quantity {
  if (!isQuantity(q)) throw new RangeError(`quantity out of range: ${q}`);
  return q === 0 ? 0 : q;
}

/** Whole or decimal base units to millionths, rounded half away from zero.
 *  @example units(24)   // 24_000_000
 *  @example units(0.1)  // 100_000 */
export const units = (n: number): Quantity => checked(Math.sign(n) * Math.round(Math.abs(n) * MICRO));

/** A DECIMAL(18,6) string as the database gives it, to millionths; exact.
 *  Errors: throws on anything that is not a plain decimal with at most 6 decimals (a defect, not bad input).
 *  @example fromDecimal('13.716000')  // 13_716_000 */
export function fromDecimal(text: string): Quantity {
  const m = /^(-?)(\d+)(?:\.(\d{1,6}))?$/.exec(text);
  if (!m) throw new RangeError(`not a decimal quantity: ${text}`);
  const whole = Number(m[2]);
  const q = whole * MICRO + Number((m[3] ?? '').padEnd(6, '0'));
  return checked(m[1] ? -q : q);
}

/** Millionths to the plain decimal the database takes, without surplus zeros; exact.
 *  @example toDecimal(13_716_000)  // '13.716' */
export function toDecimal(q: Quantity): string {
  const abs = Math.abs(checked(q));
  const fraction = abs % MICRO;
  const whole = (abs - fraction) / MICRO;
  const tail = fraction === 0 ? '' : `.${String(fraction).padStart(6, '0').replace(/0+$/, '')}`;
  return `${q < 0 ? '-' : ''}${whole}${tail}`;
}
