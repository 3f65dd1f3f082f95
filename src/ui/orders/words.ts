import type { LineDifference, SentHow } from '@/core/purchase';
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
