import { join } from 'node:path';
import bwipjs from 'bwip-js/node';
import PDFDocument from 'pdfkit';
import {
  type LineDifference,
  letterheadOf,
  type OrderPaper,
  type PaperColumn,
  type PaperLine,
  type PaperPart,
  paperLanguageOf,
} from '@/core/purchase';
import type { Quantity } from '@/core/quantity';
import { PaperFigures } from './paperFigures';
import { type PaperWords, paperWords } from './paperWords';

type Doc = PDFKit.PDFDocument;
const FONTS = join(process.cwd(), 'node_modules', '@expo-google-fonts', 'commissioner');
const regular = join(FONTS, '400Regular', 'Commissioner_400Regular.ttf');
const semibold = join(FONTS, '600SemiBold', 'Commissioner_600SemiBold.ttf');

/** A4 in points, with its margins; the columns of the lines add up to the width between them. */
const page = { width: 595.28, height: 841.89, left: 48, right: 48, top: 44, bottom: 56 };
const width = page.width - page.left - page.right;
const columns = [
  { key: 'no', at: 0, width: 20 },
  { key: 'item', at: 22, width: 190 },
  { key: 'quantity', at: 218, width: 112 },
  { key: 'wanted', at: 334, width: 58 },
  { key: 'price', at: 394, width: 52, right: true },
  { key: 'net', at: 448, width: width - 448, right: true },
] as const;
const SUBSTITUTE = '¤';
const INK = '#1b1b1b';
const MUTED = '#5a5a55';
const RULE = '#bdb8a8';

/** A purchase order on A4: letterhead, parties, terms, lines with their deliveries, sum; the head of the lines repeated on every
 *  page, page x of y, the order number as a Code 128 barcode. Letters that the typeface lacks are printed as ¤.
 *  Source: ISO 216 for the sheet; ISO/IEC 15417 for the barcode. */
export async function orderPdf(paper: OrderPaper): Promise<Buffer> {
  const words = paperWords(paper.language);
  const doc: Doc = new PDFDocument({
    size: 'A4',
    margins: { top: page.top, bottom: page.bottom, left: page.left, right: page.right },
    bufferPages: true,
    info: { Title: `${words.order} ${paper.number}`, Author: paper.buyer.name },
    lang: words.locale,
  });
  const chunks: Buffer[] = [];
  const done = new Promise<Buffer>((resolve, reject) => {
    doc.on('data', (c: Buffer) => chunks.push(c));
    doc.on('end', () => resolve(Buffer.concat(chunks)));
    doc.on('error', reject);
  });
  doc.registerFont('text', regular);
  doc.registerFont('strong', semibold);
  const sheet = new Sheet(doc, words, paper);
  await sheet.head();
  for (const [i, line] of paper.lines.entries()) sheet.line(line, i === paper.lines.length - 1);
  sheet.foot();
  sheet.numberPages();
  doc.end();
  return done;
}

type Style = { readonly size?: number; readonly strong?: boolean; readonly muted?: boolean; readonly right?: boolean };

class Sheet {
  private y = page.top;
  private readonly say: PaperFigures;
  private readonly known = new Map<string, boolean>();
  private readonly many: boolean;

  constructor(
    private readonly doc: Doc,
    private readonly words: PaperWords,
    private readonly paper: OrderPaper,
  ) {
    this.say = new PaperFigures(words, paper.currency);
    const places = new Set(paper.lines.flatMap((l) => l.parts.map((p) => p.place)));
    this.many = places.size > 1;
  }

  private shows = (column: PaperColumn): boolean => !this.paper.setup.hides.includes(column);
  private get texts() {
    return this.paper.setup.texts[paperLanguageOf(this.paper.language)];
  }

  /** A text with what the typeface lacks replaced. */
  private set(text: string): string {
    const font = (this.doc as unknown as { _font: { font: { hasGlyphForCodePoint: (c: number) => boolean } } })._font
      .font;
    // The narrow space that parts thousands in French is in few typefaces; the common one that does not break is.
    return [...text.normalize('NFC').replaceAll('\u202f', '\u00a0')]
      .map((c) => {
        if (c === '\n' || c === '\t') return c;
        const had = this.known.get(c);
        const has = had ?? font.hasGlyphForCodePoint(c.codePointAt(0) as number);
        if (had === undefined) this.known.set(c, has);
        return has ? c : SUBSTITUTE;
      })
      .join('');
  }

  private style({ size = 9, strong, muted }: Style): void {
    this.doc
      .font(strong ? 'strong' : 'text')
      .fontSize(size)
      .fillColor(muted ? MUTED : INK);
  }

  /** Writes a text into a column; returns how high it is. */
  private put(text: string, x: number, y: number, w: number, style: Style = {}): number {
    this.style(style);
    const set = this.set(text);
    const options = { width: w, align: style.right ? ('right' as const) : ('left' as const), lineGap: 1 };
    const height = this.doc.heightOfString(set, options);
    this.doc.text(set, page.left + x, y, options);
    return height;
  }

  private height(text: string, w: number, style: Style = {}): number {
    this.style(style);
    return this.doc.heightOfString(this.set(text), { width: w, lineGap: 1 });
  }

  private rule(y: number, colour = RULE, thick = 0.6): void {
    this.doc
      .moveTo(page.left, y)
      .lineTo(page.left + width, y)
      .lineWidth(thick)
      .strokeColor(colour)
      .stroke();
  }

  async head(): Promise<void> {
    const { paper, words } = this;
    const code = await bwipjs.toBuffer({
      bcid: 'code128',
      text: paper.number,
      height: 9,
      scale: 3,
      includetext: false,
    });
    const [name = '', ...below] = letterheadOf(paper).split('\n');
    this.put(name, 0, this.y, 300, { size: 12, strong: true });
    const height = this.put(below.join('\n'), 0, this.y + 17, 300, { size: 8.5, muted: true });
    if (this.shows('barcode')) this.doc.image(code, page.left + width - 150, this.y, { width: 150, height: 26 });
    this.put(paper.number, width - 150, this.y + 29, 150, { size: 8, muted: true, right: true });
    this.y += Math.max(44, 20 + height) + 8;
    this.rule(this.y, INK, 1);
    this.y += 12;
    const change = paper.amendment > 0 ? `, ${words.change(paper.amendment)}` : '';
    this.y += this.put(`${words.order} ${paper.number}${change}`, 0, this.y, width, { size: 16, strong: true }) + 10;
    this.parties();
    this.facts();
    for (const text of [this.texts.opening, paper.text])
      if (text) this.y += this.put(text, 0, this.y, width, { size: 9.5 }) + 10;
    if (paper.changes.length > 0) this.changes();
    this.columnHeads();
  }

  private parties(): void {
    const { paper, words } = this;
    const third = width / 3 - 8;
    const places = paper.deliverTo.map(
      (p) => (paper.deliverTo.length > 1 ? `${p.name}: ` : '') + p.address.replaceAll('\n', ', '),
    );
    const blocks = [
      [words.supplier, paper.supplier],
      [words.deliverTo, paper.deliverTo.length === 1 ? (paper.deliverTo[0]?.address ?? '') : places.join('\n')],
      [words.invoiceTo, paper.invoiceTo],
    ] as const;
    const heights = blocks.map(([title, text], i) => {
      const x = i * (third + 12);
      this.put(title, x, this.y, third, { size: 8, muted: true });
      return 12 + this.put(text, x, this.y + 12, third);
    });
    this.y += Math.max(...heights) + 12;
  }

  private facts(): void {
    const { paper, words } = this;
    const delivery = [paper.delivery, paper.shippingWay && `${words.by} ${paper.shippingWay}`]
      .filter(Boolean)
      .join(', ');
    const facts = [
      [words.date, this.say.day(paper.orderDate)],
      [words.payment, paper.payment],
      [words.delivery, delivery],
      [words.contact, paper.contact],
    ].filter(([, text]) => text) as [string, string][];
    const each = width / Math.max(facts.length, 1) - 8;
    const heights = facts.map(([title, text], i) => {
      const x = i * (each + 8);
      this.put(title, x, this.y, each, { size: 8, muted: true });
      return 12 + this.put(text, x, this.y + 12, each, { strong: true });
    });
    this.y += Math.max(0, ...heights) + 14;
  }

  private changes(): void {
    this.y += this.put(this.words.differs, 0, this.y, width, { strong: true }) + 3;
    for (const d of this.paper.changes) {
      const text = `${d.lineNo}  ${d.description}: ${this.difference(d)}`;
      this.room(this.height(text, width - 12));
      this.y += this.put(text, 12, this.y, width - 12) + 2;
    }
    this.y += 8;
  }

  private difference(d: LineDifference): string {
    const { words } = this;
    const packs = (q: Quantity) => `${this.say.quantity(q)} × ${d.packName}`;
    const days = (all: readonly string[]) => all.map(this.say.day).join(', ') || words.noDate;
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
  }

  private columnHeads(): void {
    const { words } = this;
    const titles = {
      no: '#',
      item: words.item,
      quantity: words.quantity,
      wanted: words.wanted,
      price: words.price,
      net: words.net,
    };
    const heights = columns.map((c) => this.height(titles[c.key], c.width, { size: 8, muted: true }));
    const height = Math.max(...heights);
    for (const [i, c] of columns.entries())
      this.put(titles[c.key], c.at, this.y + height - (heights[i] as number), c.width, {
        ...{ size: 8, muted: true, right: 'right' in c },
      });
    this.y += height + 3;
    this.rule(this.y, INK, 0.8);
    this.y += 5;
  }

  /** Room for something of this height: on a new page where the rest of this one has none. */
  private room(height: number, heads = false): void {
    if (this.y + height <= page.height - page.bottom - 14) return;
    this.doc.addPage();
    this.y = page.top;
    this.put(`${this.words.order} ${this.paper.number}`, 0, this.y, 300, { size: 9, strong: true });
    this.put(this.paper.buyer.name, 300, this.y, width - 300, { size: 8.5, muted: true, right: true });
    this.y += 18;
    if (heads) this.columnHeads();
  }

  line(l: PaperLine, last: boolean): void {
    const { words } = this;
    const [no, item, quantity, wanted, price, net] = columns;
    const seconds = [
      l.edition && `${words.edition} ${l.edition}`,
      this.shows('their_number') && l.theirNumber && `${words.yourNumber} ${l.theirNumber}`,
      this.shows('our_number') && l.ourNumber && `${words.ourNumber} ${l.ourNumber}`,
      this.shows('makers_number') && l.makersNumber && `${words.makersNumber} ${l.makersNumber}`,
      this.shows('references') && l.references.length > 0 && `${words.for} ${l.references.join(', ')}`,
      l.note,
    ].filter(Boolean) as string[];
    const second = { size: 7.5, muted: true };
    const itemHeight =
      this.height(l.description, item.width, { strong: true }) +
      seconds.reduce((sum, t) => sum + this.height(t, item.width, second), 0);
    const partHeights = l.parts.map((p) => this.partHeight(l, p));
    const height = Math.max(
      itemHeight,
      partHeights.reduce((a, b) => a + b, 0),
    );
    // The sum does not stand on a page alone.
    this.room(Math.min(height, 600) + (last ? 76 : 0), true);
    const top = this.y;
    this.put(String(l.lineNo), no.at, top, no.width, { muted: true });
    let y = top + this.put(l.description, item.at, top, item.width, { strong: true });
    for (const t of seconds) y += this.put(t, item.at, y, item.width, second);
    const priceText = l.freeOfCharge ? words.free : l.price === null ? '–' : this.say.price(l.price);
    const priced = this.put(priceText, price.at, top, price.width, { right: true });
    const below = [l.per !== '1' && words.per(l.per), l.discount !== '0' && words.less(this.say.percent(l.discount))];
    const terms = below.filter(Boolean).join('\n');
    if (!l.freeOfCharge && terms) this.put(terms, price.at, top + priced, price.width, { ...second, right: true });
    this.put(this.say.amount(l.net), net.at, top, net.width, { right: true, strong: true });
    let at = top;
    for (const [i, p] of l.parts.entries()) {
      // A line of very many deliveries goes on over the page.
      if (at + (partHeights[i] as number) > page.height - page.bottom - 14) {
        this.y = at;
        this.room(10_000, true);
        at = this.y;
        y = at;
      }
      at += this.part(l, p, at, quantity, wanted);
    }
    this.y = Math.max(y, at) + 3;
    this.rule(this.y);
    this.y += 5;
  }

  private packsOf = (l: PaperLine, p: PaperPart): string => `${this.say.quantity(p.packs)} × ${l.packName}`;
  private whereOf = (l: PaperLine, p: PaperPart): string => {
    const base =
      this.shows('base_quantity') && l.unit !== '' && l.unit !== l.packName
        ? `= ${this.say.quantity(p.base)} ${l.unit}`
        : '';
    const place = this.many || p.address ? p.place : '';
    return [base, place, p.address.replaceAll('\n', ', ')].filter(Boolean).join('\n');
  };

  private partHeight(l: PaperLine, p: PaperPart): number {
    const second = this.whereOf(l, p);
    return this.height(this.packsOf(l, p), 112) + (second ? this.height(second, 112, { size: 7.5 }) : 0) + 2;
  }

  private part(
    l: PaperLine,
    p: PaperPart,
    y: number,
    quantity: (typeof columns)[2],
    wanted: (typeof columns)[3],
  ): number {
    const second = this.whereOf(l, p);
    const first = this.put(this.packsOf(l, p), quantity.at, y, quantity.width);
    if (second) this.put(second, quantity.at, y + first, quantity.width, { size: 7.5, muted: true });
    this.put(this.say.day(p.date), wanted.at, y, wanted.width);
    return this.partHeight(l, p);
  }

  foot(): void {
    const { paper, words } = this;
    const rows = [
      ...(paper.charges.length + paper.taxes.length > 0 ? [[words.goods, paper.net] as const] : []),
      ...paper.charges.map((c) => [c.name, c.minor] as const),
      ...paper.taxes.map((t) => [words.tax(this.say.percent(t.percent), this.say.amount(t.taxable)), t.tax] as const),
    ];
    this.room(70 + rows.length * 14);
    for (const [name, minor] of rows) {
      this.put(name, 0, this.y, 390, { right: true });
      this.put(this.say.amount(minor), 394, this.y, width - 394, { right: true });
      this.y += 14;
    }
    const taxed = paper.taxes.length > 0 ? words.withTax : words.withoutTax;
    this.put(`${words.total}, ${taxed}`, 0, this.y + 2, 390, { right: true });
    this.put(`${this.say.amount(paper.total)} ${paper.currency}`, 394, this.y + 1, width - 394, {
      right: true,
      strong: true,
      size: 10.5,
    });
    this.y += 32;
    if (this.texts.closing) {
      this.room(this.height(this.texts.closing, width, { size: 9.5 }));
      this.y += this.put(this.texts.closing, 0, this.y, width, { size: 9.5 }) + 10;
    }
    const by = paper.approvedBy ? `${words.approvedBy} ${paper.approvedBy}. ` : '';
    this.y += this.put(`${by}${words.quote}`, 0, this.y, width, { size: 8.5 });
  }

  /** Page x of y under every page, once their number is known. */
  numberPages(): void {
    const { start, count } = this.doc.bufferedPageRange();
    for (let i = start; i < start + count; i++) {
      this.doc.switchToPage(i);
      this.doc.page.margins.bottom = 0;
      const y = page.height - page.bottom + 18;
      const foot = this.paper.setup.foot.replaceAll('\n', ' · ');
      this.put([foot || this.paper.buyer.name, `${this.words.order} ${this.paper.number}`].join(' · '), 0, y, 400, {
        size: 7.5,
        muted: true,
      });
      this.put(this.words.page(i - start + 1, count), 410, y, width - 410, { size: 7.5, muted: true, right: true });
    }
  }
}
