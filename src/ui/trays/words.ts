import { MICRO } from '@/core/quantity';
import type { MadeOrder } from '@/services/purchase/makeOrders';
import type { Joined, TrayLineView, TrayOrder, TrayView } from '@/services/purchase/readTrays';
import { type Format, plural } from '../format';

/** What becomes of part of a tray. */
export const becomesWords = ({ joins }: Pick<TrayOrder, 'joins'>, format: Format): string =>
  joins ? joinsWords(joins, format) : 'a new order';

/** What it joins: a draft, or an order that is changed by it. */
export const joinsWords = ({ begun, told }: Joined, format: Format): string =>
  told ? `changes order ${told}` : `joins the draft begun ${format.date(begun)}`;

/** The same of a whole tray: one order, or one for each place. */
export function trayBecomes({ held, orders }: Pick<TrayView, 'held' | 'orders'>, format: Format): string {
  if (held) return 'held back';
  const [only] = orders;
  if (orders.length === 1 && only) return becomesWords(only, format);
  const joining = orders.filter((o) => o.joins).length;
  return joining === 0
    ? `${orders.length} new orders, one for each place`
    : `${orders.length} orders, ${joining} of them ${joining === 1 ? 'joins a draft' : 'join drafts'}`;
}

/** Until when it can still go out: "goes out today until 14:00". */
export const slotWords = ({ slot, cutOff }: Pick<TrayView, 'slot' | 'cutOff'>, today: string, format: Format): string =>
  `goes out ${slot === today ? 'today' : format.date(slot)}${cutOff ? ` until ${cutOff}` : ''}`;

/** What the next break of a line's price would do. */
export function hintWords(l: Pick<TrayLineView, 'hint' | 'packName' | 'currency'>, format: Format): string {
  if (!l.hint) return '';
  const { packs, saving, outlay, paybackDays, worthIt } = l.hint;
  const gain = `saves ${format.amount(saving, l.currency)}`;
  const back =
    outlay <= 0
      ? 'costs less in all'
      : `${format.amount(outlay, l.currency)} more, paid back in ${format.days(Math.ceil(paybackDays))}`;
  return `from ${format.quantity(packs)} ${plural(l.packName, packs)}: ${gain}, ${back}${worthIt ? '' : ', not worth holding it'}`;
}

/** What a tray weighs and how large it is; what is not on file is said. */
export function weightWords(t: Pick<TrayView, 'weightKg' | 'volumeL' | 'unweighed' | 'lines'>, format: Format): string {
  const parts = [
    t.weightKg > 0 ? `${format.quantity(t.weightKg * MICRO)} kg` : '',
    t.volumeL > 0 ? `${format.quantity(t.volumeL * MICRO)} l` : '',
  ].filter(Boolean);
  const missing =
    t.unweighed === 0 ? '' : t.unweighed === t.lines ? 'no weights on file' : `${t.unweighed} without a weight`;
  return [...parts, missing].filter(Boolean).join(' · ') || 'nothing on file';
}

/** Who acts next on an order that was made. */
export const nextWords = ({ next }: Pick<MadeOrder, 'next'>): string =>
  next === 'you'
    ? 'you can approve it'
    : next.length === 0
      ? 'nobody can approve it yet'
      : `to be approved by ${next.join(' or ')}`;
