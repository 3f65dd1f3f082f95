import { join } from 'node:path';
import bwipjs from 'bwip-js/node';
import PDFDocument from 'pdfkit';
import { letterheadOf, type OrderPaper, type PaperLine, type PaperPart, PaperText } from '@/core/purchase';

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
  const say = new PaperText(paper);
  const { words } = say;
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
  const sheet = new Sheet(doc, say, paper);
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
  private readonly known = new Map<string, boolean>();

  constructor(
    private readonly doc: Doc,
    private readonly say: PaperText,
    private readonly paper: OrderPaper,
  ) {}

  private get words() {
    return this.say.words;
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
    const { paper, say } = this;
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
    if (this.say.shows('barcode')) this.doc.image(code, page.left + width - 150, this.y, { width: 150, height: 26 });
    this.put(paper.number, width - 150, this.y + 29, 150, { size: 8, muted: true, right: true });
    this.y += Math.max(44, 20 + height) + 8;
    this.rule(this.y, INK, 1);
    this.y += 12;
    this.y += this.put(say.title, 0, this.y, width, { size: 16, strong: true }) + 10;
    this.parties();
    this.facts();
    for (const text of [say.texts.opening, paper.text])
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
      [
        words.deliverTo,
        (paper.deliverTo.length === 1 ? paper.deliverTo[0]?.address : places.join('\n')) || words.eachLine,
      ],
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
    const { facts } = this.say;
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
      const text = this.say.difference(d);
      this.room(this.height(text, width - 12));
      this.y += this.put(text, 12, this.y, width - 12) + 2;
    }
    this.y += 8;
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
    const { say } = this;
    const [no, item, quantity, wanted, price, net] = columns;
    const seconds = say.below(l);
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
    const priced = this.put(say.priced(l), price.at, top, price.width, { right: true });
    const terms = say.terms(l).join('\n');
    if (terms) this.put(terms, price.at, top + priced, price.width, { ...second, right: true });
    this.put(say.amount(l.net), net.at, top, net.width, { right: true, strong: true });
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

  private whereOf = (l: PaperLine, p: PaperPart): string => this.say.where(l, p).join('\n');

  private partHeight(l: PaperLine, p: PaperPart): number {
    const second = this.whereOf(l, p);
    return this.height(this.say.packs(l, p), 112) + (second ? this.height(second, 112, { size: 7.5 }) : 0) + 2;
  }

  private part(
    l: PaperLine,
    p: PaperPart,
    y: number,
    quantity: (typeof columns)[2],
    wanted: (typeof columns)[3],
  ): number {
    const second = this.whereOf(l, p);
    const first = this.put(this.say.packs(l, p), quantity.at, y, quantity.width);
    if (second) this.put(second, quantity.at, y + first, quantity.width, { size: 7.5, muted: true });
    this.put(this.say.day(p.date), wanted.at, y, wanted.width);
    return this.partHeight(l, p);
  }

  foot(): void {
    const { paper, say } = this;
    const { sums } = say;
    this.room(70 + sums.length * 14);
    for (const [name, minor] of sums) {
      this.put(name, 0, this.y, 390, { right: true });
      this.put(say.amount(minor), 394, this.y, width - 394, { right: true });
      this.y += 14;
    }
    this.put(say.total, 0, this.y + 2, 390, { right: true });
    this.put(`${say.amount(paper.total)} ${paper.currency}`, 394, this.y + 1, width - 394, {
      right: true,
      strong: true,
      size: 10.5,
    });
    this.y += 32;
    const { closing } = say.texts;
    if (closing) {
      this.room(this.height(closing, width, { size: 9.5 }));
      this.y += this.put(closing, 0, this.y, width, { size: 9.5 }) + 10;
    }
    this.y += this.put(say.last, 0, this.y, width, { size: 8.5 });
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
