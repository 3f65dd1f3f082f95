import { decimalsOf, withCents } from '@/core/money';
import { MICRO, type Quantity } from '@/core/quantity';
import type { PaperWords } from './paperWords';

/** Figures and days of a paper, in the language of who gets it and the digits of its currency: the PDF and the printed page say
 *  them alike. */
export class PaperFigures {
  private readonly amounts: Intl.NumberFormat;
  private readonly plain: Intl.NumberFormat;
  private readonly days: Intl.DateTimeFormat;
  private readonly digits: number;

  constructor(
    private readonly words: PaperWords,
    currency: string,
  ) {
    this.digits = decimalsOf(currency);
    this.amounts = new Intl.NumberFormat(words.locale, {
      minimumFractionDigits: this.digits,
      maximumFractionDigits: this.digits,
    });
    this.plain = new Intl.NumberFormat(words.locale, { maximumFractionDigits: 6 });
    this.days = new Intl.DateTimeFormat(words.locale, {
      ...({ day: 'numeric', month: 'short', year: 'numeric', timeZone: 'UTC' } as const),
    });
  }

  /** Minor units of the currency. */
  amount = (minor: number): string => this.amounts.format(minor / 10 ** this.digits);
  /** Decimal text. */
  percent = (decimal: string): string => this.plain.format(Number(decimal));
  quantity = (q: Quantity): string => this.plain.format(q / MICRO);
  /** Decimal text, with the digits of its currency at least and those it has. */
  price(decimal: string): string {
    const digits = Math.max(this.digits, withCents(decimal).split('.')[1]?.length ?? 0);
    return new Intl.NumberFormat(this.words.locale, { minimumFractionDigits: digits, maximumFractionDigits: 6 }).format(
      Number(decimal),
    );
  }
  day = (date: string | null): string =>
    date === null ? this.words.noDate : this.days.format(new Date(`${date}T00:00:00Z`));
}
