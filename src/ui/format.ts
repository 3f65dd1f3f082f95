import { decimalsOf } from '@/core/money';
import { MICRO } from '@/core/quantity';

/** The minus sign of figures, as wide as a plus; Intl writes a hyphen in most languages. */
const minus = (figure: string): string => figure.replace('-', '−');

/** Figures and dates as a person of one language region reads them. */
export class Format {
  private readonly quantities: Intl.NumberFormat;

  constructor(readonly locale: string) {
    this.quantities = new Intl.NumberFormat(locale, { maximumFractionDigits: 6, useGrouping: true });
  }

  /** The mark before decimals, as this person types it. */
  get decimal(): '.' | ',' {
    const mark = new Intl.NumberFormat(this.locale).formatToParts(1.5).find((p) => p.type === 'decimal')?.value;
    return mark === ',' ? ',' : '.';
  }

  /** The first language that formatting knows; British English else. */
  static fromAcceptLanguage(header: string | null): Format {
    const wanted = (header ?? '').split(',').map((part) => part.split(';')[0]?.trim() ?? '');
    const known = wanted.find(
      (tag) => /^[a-z]{2,3}(-[A-Za-z0-9]+)*$/.test(tag) && Intl.NumberFormat.supportedLocalesOf(tag).length > 0,
    );
    return new Format(known ?? 'en-GB');
  }

  /** A quantity in millionths. @example quantity(13_716_000)  // '13.716' */
  quantity(q: number): string {
    return minus(this.quantities.format(q / MICRO));
  }

  /** A number of days, at most one decimal. @example days(1)  // '1 day' */
  days(n: number): string {
    const rounded = Math.round(n * 10) / 10;
    return `${this.quantity(rounded * MICRO)} ${rounded === 1 ? 'day' : 'days'}`;
  }

  /** Minor units without the currency. @example amount(19680, 'EUR')  // '196.80' */
  amount(minor: number, currency: string): string {
    const digits = decimalsOf(currency);
    return minus(
      new Intl.NumberFormat(this.locale, { minimumFractionDigits: digits, maximumFractionDigits: digits }).format(
        minor / 10 ** digits,
      ),
    );
  }

  /** Minor units with the currency's sign. */
  money(minor: number, currency: string): string {
    const digits = decimalsOf(currency);
    const options = {
      style: 'currency',
      currency,
      minimumFractionDigits: digits,
      maximumFractionDigits: digits,
    } as const;
    return minus(
      new Intl.NumberFormat(this.locale, { ...options, currencyDisplay: 'narrowSymbol' }).format(minor / 10 ** digits),
    );
  }

  /** A price as stored, at least two decimals. @example price('32.8')  // '32.80' */
  price(amount: string): string {
    return new Intl.NumberFormat(this.locale, { minimumFractionDigits: 2, maximumFractionDigits: 6 }).format(
      Number(amount),
    );
  }

  /** A percentage as stored. @example percent('7.500')  // '7.5' */
  percent(decimal: string): string {
    return minus(this.quantities.format(Number(decimal)));
  }

  /** A business date. @example date('2026-12-03')  // 'Thu 3 Dec' */
  date(date: string): string {
    const parts = (options: Intl.DateTimeFormatOptions) =>
      new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' }).format(Date.parse(`${date}T00:00:00Z`));
    return `${parts({ weekday: 'short' })} ${parts({ day: 'numeric' })} ${parts({ month: 'short' }).slice(0, 3)}`;
  }

  /** A moment as the database keeps it (UTC), on the clock of a time zone. @example moment('2026-12-03 09:05:00', 'Europe/Berlin')  // 'Thu 3 Dec 10:05' */
  moment(at: string, timeZone: string): string {
    const instant = new Date(`${at.replace(' ', 'T')}Z`);
    const day = new Intl.DateTimeFormat('sv-SE', { timeZone }).format(instant);
    const time = new Intl.DateTimeFormat(this.locale, { hour: '2-digit', minute: '2-digit', timeZone }).format(instant);
    return `${this.date(day)} ${time}`;
  }

  /** A business date of another year. @example dateWithYear('2025-08-17')  // '17 Aug 2025' */
  dateWithYear(date: string): string {
    return `${this.date(date).split(' ').slice(1).join(' ')} ${date.slice(0, 4)}`;
  }

  /** A date against today, as said: "today", "4 days late", "Thu 3 Dec". */
  due(date: string, today: string): { text: string; late: number } {
    const late = Math.round((Date.parse(today) - Date.parse(date)) / 86_400_000);
    if (late === 0) return { text: 'today', late };
    if (late > 0) return { text: `${this.date(date)}, ${late} ${late === 1 ? 'day' : 'days'} late`, late };
    return { text: this.date(date), late };
  }
}

/** Names of packs and units in the plural. @example plural('box', 2_000_000)  // 'boxes' */
export function plural(name: string, quantity: number): string {
  if (quantity === MICRO || name.length <= 2) return name;
  if (name === 'gross' || name === 'pieces') return name;
  if (/(s|x|z|ch|sh)$/.test(name)) return `${name}es`;
  if (/[^aeiou]y$/.test(name)) return `${name.slice(0, -1)}ies`;
  return `${name}s`;
}

/** How long stock lasts: whole days, "under a day" at less; nothing without use or without stock. */
export const lastsWords = (days: number | null): string =>
  days === null || days === 0 ? '' : days < 1 ? 'under a day' : countOf(Math.floor(days), 'day');

/** A number of things. @example countOf(1, 'line')  // '1 line' */
export const countOf = (n: number, name: string): string => `${n} ${plural(name, n * MICRO)}`;
