import { decimalsOf, withCents } from '@/core/money';
import { MICRO, type Quantity } from '@/core/quantity';
import type { LineDifference } from './differences';
import { type OrderPaper, type PaperColumn, type PaperLine, type PaperPart, paperLanguageOf } from './orderPaper';
import { type PaperWords, paperWords } from './paperWords';

/** Figures and days in the language of who gets a paper and the digits of its currency. */
export class PaperFigures {
  readonly words: PaperWords;
  private readonly amounts: Intl.NumberFormat;
  private readonly plain: Intl.NumberFormat;
  private readonly days: Intl.DateTimeFormat;
  private readonly digits: number;

  /** The language as it is on file for a supplier; '' = ours. */
  constructor(language: string, currency: string) {
    this.words = paperWords(language);
    const { locale } = this.words;
    this.digits = decimalsOf(currency);
    this.amounts = new Intl.NumberFormat(locale, {
      minimumFractionDigits: this.digits,
      maximumFractionDigits: this.digits,
    });
    this.plain = new Intl.NumberFormat(locale, { maximumFractionDigits: 6 });
    this.days = new Intl.DateTimeFormat(locale, {
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

/** What stands on the paper of an order, in its supplier's language: the PDF, the printed page and the mail say it alike. */
export class PaperText extends PaperFigures {
  /** Around the lines. */
  readonly texts: { readonly opening: string; readonly closing: string };
  private readonly many: boolean;

  constructor(private readonly paper: OrderPaper) {
    super(paper.language, paper.currency);
    this.texts = paper.setup.texts[paperLanguageOf(paper.language)];
    this.many = new Set(paper.lines.flatMap((l) => l.parts.map((p) => p.place))).size > 1;
  }

  shows = (column: PaperColumn): boolean => !this.paper.setup.hides.includes(column);

  /** @example title  // 'Purchase order 2611-0003, Change 1' */
  get title(): string {
    const { amendment, number } = this.paper;
    return `${this.words.order} ${number}${amendment > 0 ? `, ${this.words.change(amendment)}` : ''}`;
  }

  /** Date, terms and whom to ask, each with its name; what is not agreed is not spoken of. */
  get facts(): readonly (readonly [string, string])[] {
    const { paper, words } = this;
    const way = paper.shippingWay && `${words.by} ${paper.shippingWay}`;
    const facts: readonly (readonly [string, string])[] = [
      [words.date, this.day(paper.orderDate)],
      [words.payment, paper.payment],
      [words.delivery, [paper.delivery, way].filter(Boolean).join(', ')],
      [words.contact, paper.contact],
    ];
    return facts.filter(([, text]) => text !== '');
  }

  /** Below what a line is called: edition, numbers, what it is for, its note. */
  below(l: PaperLine): string[] {
    const { words } = this;
    return [
      l.edition && `${words.edition} ${l.edition}`,
      this.shows('their_number') && l.theirNumber && `${words.yourNumber} ${l.theirNumber}`,
      this.shows('our_number') && l.ourNumber && `${words.ourNumber} ${l.ourNumber}`,
      this.shows('makers_number') && l.makersNumber && `${words.makersNumber} ${l.makersNumber}`,
      this.shows('references') && l.references.length > 0 && `${words.for} ${l.references.join(', ')}`,
      l.note,
    ].filter((text): text is string => Boolean(text));
  }

  /** @example packs(line, part)  // '6 × bag' */
  packs = (l: PaperLine, p: PaperPart): string => `${this.quantity(p.packs)} × ${l.packName}`;

  /** Of a delivery: base quantity, place where there are several or it is a customer's, its own address. */
  where(l: PaperLine, p: PaperPart): string[] {
    const base =
      this.shows('base_quantity') && l.unit !== '' && l.unit !== l.packName
        ? `= ${this.quantity(p.base)} ${l.unit}`
        : '';
    return [base, this.many || p.address ? p.place : '', p.address.replaceAll('\n', ', ')].filter(Boolean);
  }

  priced = (l: PaperLine): string => (l.freeOfCharge ? this.words.free : l.price === null ? '–' : this.price(l.price));

  /** What the price is for, where it is not one pack, and what is taken off it. */
  terms(l: PaperLine): string[] {
    if (l.freeOfCharge) return [];
    const { words } = this;
    return [l.per !== '1' && words.per(l.per), l.discount !== '0' && words.less(this.percent(l.discount))].filter(
      (text): text is string => Boolean(text),
    );
  }

  /** What a change says otherwise of a line. */
  difference(d: LineDifference): string {
    const { words } = this;
    const packs = (q: Quantity) => `${this.quantity(q)} × ${d.packName}`;
    const days = (all: readonly string[]) => all.map(this.day).join(', ') || words.noDate;
    const said = () => {
      switch (d.kind) {
        case 'added':
          return `${words.added}, ${packs(d.now)}`;
        case 'taken_off':
          return `${words.takenOff} (${packs(d.was)})`;
        case 'quantity':
          return `${packs(d.now)} ${words.instead} ${packs(d.was)}`;
        case 'price':
          return `${d.now ?? '–'} ${words.instead} ${d.was ?? '–'}`;
        case 'discount':
          return `${words.less(d.now)} ${words.instead} ${words.less(d.was)}`;
        case 'date':
          return `${words.wanted} ${days(d.now)} ${words.instead} ${days(d.was)}`;
        case 'place':
          return words.otherPlaces;
      }
    };
    return `${d.lineNo}  ${d.description}: ${said()}`;
  }

  /** What stands between the lines and the total: goods, charges on the bill, taxes; nothing where it is the goods alone. */
  get sums(): readonly (readonly [string, number])[] {
    const { paper, words } = this;
    return [
      ...(paper.charges.length + paper.taxes.length > 0 ? [[words.goods, paper.net] as const] : []),
      ...paper.charges.map((c) => [c.name, c.minor] as const),
      ...paper.taxes.map((t) => [words.tax(this.percent(t.percent), this.amount(t.taxable)), t.tax] as const),
    ];
  }
  get total(): string {
    return `${this.words.total}, ${this.paper.taxes.length > 0 ? this.words.withTax : this.words.withoutTax}`;
  }

  /** At the very end: who approved it, and what we ask for. */
  get last(): string {
    const { approvedBy } = this.paper;
    return `${approvedBy ? `${this.words.approvedBy} ${approvedBy}. ` : ''}${this.words.quote}`;
  }
}
