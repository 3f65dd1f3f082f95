import type { BusinessDate } from '@/core/calendar';
import type { Quantity } from '@/core/quantity';
import { letterheadOf, type OrderPaper, type PaperLine } from './orderPaper';
import { PaperFigures, PaperText } from './paperText';

export type MailText = { readonly subject: string; readonly body: string };

/** A purchase order as the text of a mail, in its supplier's language: what differs, lines with their deliveries, the whole bill,
 *  addresses, terms. It says what its paper says. */
export function orderMail(paper: OrderPaper): MailText {
  const say = new PaperText(paper);
  const { words, texts } = say;
  const indented = (lines: readonly string[]) => lines.map((l) => `   ${l}`);
  const lineText = (l: PaperLine) =>
    [
      `${l.lineNo}. ${l.description}`,
      ...indented(say.below(l)),
      ...indented(
        l.parts.map((p) =>
          [
            say.packs(l, p),
            ...say.where(l, p),
            p.date === null ? say.day(null) : `${words.wanted} ${say.day(p.date)}`,
          ].join(', '),
        ),
      ),
      `   ${[`${say.priced(l)}${l.freeOfCharge || l.price === null ? '' : ` ${words.each(l.packName)}`}`, ...say.terms(l)].join(', ')}; ${words.net} ${say.amount(l.net)}`,
      '',
    ].join('\n');
  const body = [
    ...[letterheadOf(paper), '', say.title, ...say.facts.map(([name, text]) => `${name}: ${text}`), ''],
    ...[texts.opening, paper.text].filter(Boolean).flatMap((text) => [text, '']),
    ...(paper.changes.length > 0 ? [words.differs, ...indented(paper.changes.map((d) => say.difference(d))), ''] : []),
    ...paper.lines.map(lineText),
    ...say.sums.map(([name, minor]) => `${name}: ${say.amount(minor)}`),
    `${say.total}: ${say.amount(paper.total)} ${paper.currency}`,
    '',
    `${words.deliverTo}:${paper.deliverTo.length === 0 ? ` ${words.eachLine}` : ''}`,
    ...indented(paper.deliverTo.map((p) => [p.name, ...p.address.split('\n')].filter(Boolean).join(', '))),
    `${words.invoiceTo}: ${paper.invoiceTo.replaceAll('\n', ', ')}`,
    '',
    ...(texts.closing ? [texts.closing, ''] : []),
    say.last,
  ];
  return { subject: `${say.title} ${words.from} ${paper.buyer.name}`, body: body.join('\n') };
}

/** What a supplier is reminded of: an order with the deliveries that it is about. */
export type Reminded = {
  readonly about: 'confirm' | 'overdue';
  readonly number: string;
  readonly orderDate: BusinessDate;
  readonly language: string;
  readonly currency: string;
  readonly lines: readonly {
    readonly lineNo: number;
    readonly description: string;
    readonly packs: Quantity;
    readonly packName: string;
    readonly due: BusinessDate | null;
  }[];
  /** Who asks, and for whom. */
  readonly from: readonly string[];
};

/** A reminder as the text of a mail, in the supplier's language. */
export function reminderMail(r: Reminded): MailText {
  const say = new PaperFigures(r.language, r.currency);
  const words = say.words.remind[r.about];
  const lines = r.lines.map(
    (l) =>
      `   ${l.lineNo}. ${l.description}: ${say.quantity(l.packs)} × ${l.packName}, ${l.due === null ? say.day(null) : `${say.words.expected} ${say.day(l.due)}`}`,
  );
  return {
    subject: words.subject(r.number),
    body: [words.opening(r.number, say.day(r.orderDate)), '', ...lines, '', words.closing, '', ...r.from].join('\n'),
  };
}
