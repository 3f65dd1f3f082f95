/** Currencies of two decimals. Source: ISO 4217 list of active codes (from memory). */
const twoDecimals =
  'AED AFN ALL AMD ANG AOA ARS AUD AWG AZN BAM BBD BDT BGN BMD BND BOB BRL BSD BTN BWP BYN BZD CAD CDF CHF CNY COP CRC CUP ' +
  'CVE CZK DKK DOP DZD EGP ERN ETB EUR FJD FKP GBP GEL GHS GIP GMD GTQ GYD HKD HNL HTG HUF IDR ILS INR IRR JMD KES KGS KHR ' +
  'KPW KYD KZT LAK LBP LKR LRD LSL MAD MDL MGA MKD MMK MNT MOP MRU MUR MVR MWK MXN MYR MZN NAD NGN NIO NOK NPR NZD PAB PEN ' +
  'PGK PHP PKR PLN QAR RON RSD RUB SAR SBD SCR SDG SEK SGD SHP SLE SOS SRD SSP STN SVC SYP SZL THB TJS TMT TOP TRY TTD TWD ' +
  'TZS UAH USD UYU UZS VES WST XCD YER ZAR ZMW ZWG';

/** Currencies without a minor unit, and those of thousandths. Source: ISO 4217 minor units (from memory). */
const noDecimals = 'BIF CLP DJF GNF ISK JPY KMF KRW PYG RWF UGX VND VUV XAF XOF XPF';
const threeDecimals = 'BHD IQD JOD KWD LYD OMR TND';

const minorUnits: ReadonlyMap<string, number> = new Map([
  ...twoDecimals.split(' ').map((c) => [c, 2] as const),
  ...noDecimals.split(' ').map((c) => [c, 0] as const),
  ...threeDecimals.split(' ').map((c) => [c, 3] as const),
]);

/** Codes of all currencies, in order. */
export const currencies: readonly string[] = [...minorUnits.keys()].sort();

export const isCurrency = (code: string): boolean => minorUnits.has(code);

/** Decimals of a currency.
 *  Errors: throws RangeError for a code that is no currency (a defect: currencies are chosen from a list). */
export function decimalsOf(currency: string): number {
  const d = minorUnits.get(currency);
  if (d === undefined) throw new RangeError(`unknown currency ${currency}`);
  return d;
}
