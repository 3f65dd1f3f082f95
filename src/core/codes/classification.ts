/** A Harmonized System code: chapter and heading (4 digits), subheading (6), tariff lines up to 10; dots and spaces dropped.
 *  Null when it is none. Source: WCO Harmonized System (structure, common practice).
 *  @example hsCode('5109.10')  // '510910' */
export function hsCode(typed: string): string | null {
  const digits = typed.replace(/[\s.]/g, '');
  return /^\d{4}(?:\d{2}){0,3}$/.test(digits) && digits.slice(0, 2) !== '00' ? digits : null;
}

/** An ISO 3166-1 alpha-2 code by its shape; which of them are in use is not checked. Null when it is none. */
export function countryCode(typed: string): string | null {
  const code = typed.trim().toUpperCase();
  return /^[A-Z]{2}$/.test(code) ? code : null;
}

/** A UN number of dangerous goods, four digits, with or without "UN". Null when it is none.
 *  Source: UN Model Regulations, list of dangerous goods (structure, common practice). */
export function unNumber(typed: string): string | null {
  const m = /^(?:UN)?\s*(\d{4})$/i.exec(typed.trim());
  return m ? (m[1] as string) : null;
}
