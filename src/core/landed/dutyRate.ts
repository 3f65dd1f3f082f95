/** A duty rate in force for goods of an HS code (or of all codes that begin with it) from a country of origin. */
export type DutyRate = {
  readonly id: number;
  /** 2 to 10 digits: a chapter, a heading, a subheading, a tariff line. */
  readonly hsPrefix: string;
  /** ISO 3166-1 alpha-2; null = any origin. */
  readonly origin: string | null;
  readonly percent: string;
  readonly validFrom: string;
  readonly validTo: string | null;
};

/** The duty rate of goods on a day: of the rates in force the one with the longest prefix of their code; of equally long
 *  ones that for their origin before that for any; of those the later one. Null when none applies: a rate that is not on
 *  file is never taken for 0.
 *  Source: general rules of the Harmonized System (the more specific heading first); common practice. */
export function dutyRateOf(
  rates: readonly DutyRate[],
  goods: { readonly hsCode: string | null; readonly origin: string | null },
  on: string,
): DutyRate | null {
  if (!goods.hsCode) return null;
  const fits = rates.filter(
    (r) =>
      goods.hsCode?.startsWith(r.hsPrefix) &&
      (r.origin === null || r.origin === goods.origin) &&
      r.validFrom <= on &&
      (r.validTo === null || r.validTo >= on),
  );
  fits.sort(
    (a, b) =>
      b.hsPrefix.length - a.hsPrefix.length ||
      Number(b.origin !== null) - Number(a.origin !== null) ||
      (a.validFrom < b.validFrom ? 1 : -1),
  );
  return fits[0] ?? null;
}
