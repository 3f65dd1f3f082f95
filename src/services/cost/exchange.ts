import { basePerForeign, convert, type Minor, type Rate, rateOn } from '@/core/money';
import { type Fraction, fraction } from '@/core/units';
import { readRatesUntil } from '@/data/repositories/rates';
import type { Tx } from '@/data/sql';

/** Rates of a day, for reckoning foreign money in the company's own. */
export type Exchange = {
  readonly base: string;
  /** The rate in force as it was quoted; null for the own currency and where none is on file. */
  readonly quoted: (currency: string) => Rate | null;
  /** Base currency for one of another; null where no rate is on file. */
  readonly perUnit: (currency: string) => Fraction | null;
  /** Foreign money in base currency; null where no rate is on file: an unknown rate is never taken for 1. */
  readonly toBase: (amount: Minor, currency: string) => Minor | null;
};

/** The rates in force on a day. */
export async function readExchange(tx: Tx, base: string, on: string): Promise<Exchange> {
  const rates = await readRatesUntil(tx, on);
  const quoted = (currency: string) => (currency === base ? null : rateOn(rates, currency, on));
  const perUnit = (currency: string) => {
    if (currency === base) return fraction(1);
    const rate = quoted(currency);
    return rate && basePerForeign(rate);
  };
  return {
    base,
    quoted,
    perUnit,
    toBase: (amount, currency) => {
      const rate = perUnit(currency);
      return rate && (currency === base ? amount : convert(amount, currency, rate, base));
    },
  };
}
