import { addDays, type BusinessDate } from '@/core/calendar';
import { isOrdered, type OrderState } from './orderState';

/** An order as far as asking after it goes. */
export type Followed = {
  readonly state: OrderState;
  readonly sentOn: BusinessDate | null;
  /** When the next of it is expected; null when nothing is. */
  readonly next: BusinessDate | null;
  /** It was confirmed later than wanted, or at another price. */
  readonly differs: boolean;
  /** When somebody wants to ask its supplier again. */
  readonly nextContact: BusinessDate | null;
};

export const orderConcerns = ['approve', 'unconfirmed', 'late', 'differs', 'ask'] as const;
export type OrderConcern = (typeof orderConcerns)[number];

/** What has to be done about an order: it waits for approval; its supplier has not confirmed it after so many days; something of it
 *  is overdue; it was confirmed otherwise; its supplier is to be asked again by today. Source: common practice (expediting). */
export function concernsOf(o: Followed, today: BusinessDate, confirmDays: number): OrderConcern[] {
  if (o.state === 'awaiting') return ['approve'];
  if (!isOrdered(o.state)) return [];
  // What has come whole needs no confirmation any more.
  const silent = o.state === 'sent' && o.next !== null && o.sentOn !== null && addDays(o.sentOn, confirmDays) < today;
  return [
    ...(o.state === 'amendment_awaiting' ? (['approve'] as const) : []),
    ...(silent ? (['unconfirmed'] as const) : []),
    ...(o.next !== null && o.next < today ? (['late'] as const) : []),
    ...(o.differs && o.next !== null ? (['differs'] as const) : []),
    ...(o.nextContact !== null && o.nextContact <= today ? (['ask'] as const) : []),
  ];
}
