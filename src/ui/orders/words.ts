import type { LineDifference, SentHow } from '@/core/purchase';
import type { OrderView } from '@/services/purchase/readOrder';
import { type Format, plural } from '../format';

/** How an order went to its supplier. */
export const sentWords: Readonly<Record<SentHow, string>> = {
  email: 'by mail',
  printed: 'on paper',
  phone: 'by phone',
  portal: 'in their portal',
  in_person: 'in person',
};

/** Why a price is another than was expected. */
export const reasonWords = {
  offer: 'an offer',
  mistake: 'a mistake of theirs',
  new_list: 'a new price list',
  confirmed: 'as confirmed',
} as const;

/** What an order says otherwise than its supplier was told, line by line. */
export function differenceWords(d: LineDifference, format: Format): string {
  const packs = (q: number) => `${format.quantity(q)} ${plural(d.packName, q)}`;
  const days = (all: readonly string[]) => all.map((day) => format.date(day)).join(', ') || 'no day';
  const price = (p: string | null) => (p === null ? 'no price' : /^[\d.]+$/.test(p) ? format.price(p) : p);
  switch (d.kind) {
    case 'added':
      return `added, ${packs(d.now)}`;
    case 'taken_off':
      return `taken off, was ${packs(d.was)}`;
    case 'quantity':
      return `${packs(d.was)} → ${packs(d.now)}`;
    case 'price':
      return `price ${price(d.was)} → ${price(d.now)}`;
    case 'discount':
      return `discount ${d.was} % → ${d.now} %`;
    case 'date':
      return `wanted ${days(d.was)} → ${days(d.now)}`;
    case 'place':
      return 'for other places';
  }
}

/** By what a charge is spread over the lines. */
export const spreadWords = {
  value: 'by value',
  quantity: 'by quantity',
  weight: 'by weight',
  volume: 'by volume',
  even: 'evenly',
} as const;

/** What becomes of a charge. */
export const intoWords = {
  stock: 'cost of the goods',
  expense: 'an expense',
  recoverable: 'what is recovered',
} as const;

type ChargeView = OrderView['sums']['charges'][number];

/** How much a charge is, and by what it is spread in the end. */
export function chargeOrigin(c: ChargeView, format: Format): string {
  const on = c.onCharges.length > 0 ? ` and ${c.onCharges.join(', ')}` : '';
  const amount =
    c.amountKind === 'duty'
      ? `duty of each item, of goods${on}`
      : c.amount === null
        ? 'asked each time, not known yet'
        : c.amountKind === 'percent'
          ? `${format.percent(c.amount)} % of goods${on}`
          : c.origin === 'freight_terms'
            ? 'by their freight terms'
            : `${format.price(c.amount)} ${c.currency}`;
  const lines = c.onlyLines.length > 0 ? `, lines ${c.onlyLines.join(', ')}` : '';
  return c.amountKind === 'duty' ? `${amount}${lines}` : `${amount}, ${spreadWords[c.spread]}${lines}`;
}

/** In what a charge is another than is usual. */
export function differsWords(c: ChargeView, format: Format): string[] {
  const was = (u: ChargeView['usual']): string =>
    u === null || u.amount === null
      ? ''
      : u.amountKind === 'percent'
        ? `${format.percent(u.amount)} %`
        : format.price(u.amount);
  const words: Readonly<Record<ChargeView['differs'][number], string>> = {
    added: 'on this order only',
    left_out: 'left out of this order',
    amount: was(c.usual) && `usually ${was(c.usual)}`,
    spread: c.usual ? `usually ${spreadWords[c.usual.spread]}` : '',
    lines: '',
    billed: c.billed ? 'usually paid to others' : 'usually on their bill',
    into: c.usual ? `usually ${intoWords[c.usual.into]}` : '',
  };
  return c.differs.map((d) => words[d]).filter(Boolean);
}

/** What an invoice is held against. */
export const matchingWords = { two_way: 'the order alone', three_way: 'order and receipt' } as const;
