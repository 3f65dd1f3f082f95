import {
  addDays,
  arrivesIfOrdered,
  type BusinessDate,
  daysBetween,
  rollTo,
  type SupplyCalendar,
} from '@/core/calendar';
import type { Calendars } from '@/data/repositories/calendars';
import type { Supply } from '@/data/repositories/openSupply';

/** When something that is on its way comes, and where that stands. */
export type Comes = {
  /** As it is said, else when an order of today would come; before today where it is overdue. */
  readonly due: BusinessDate;
  /** Days that it is late already. */
  readonly lateDays: number;
  /** On which day it is counted: what is overdue on the next receiving day. */
  readonly comes: BusinessDate;
  /** The page of its document. */
  readonly href: string;
};

/** When supply of a pair comes: confirmed, else promised, else wanted; where nothing is said, as if it were ordered, or sent, today.
 *  What is overdue stands on the next receiving day, never in the past. `calendar`: of whoever supplies the pair; null = nobody. */
export function whenItComes(
  calendars: Pick<Calendars, 'sending'>,
  calendar: SupplyCalendar | null,
  locationId: number,
  { today, time }: { readonly today: BusinessDate; readonly time: string },
): (s: Pick<Supply, 'kind' | 'date' | 'orderId' | 'transferId'>) => Comes {
  const sending = calendars.sending(locationId);
  const sent = arrivesIfOrdered(sending, today);
  const bought = calendar ? arrivesIfOrdered(calendar, today, time) : sent;
  const next = rollTo((calendar ?? sending).receiving, addDays(today, 1), 'forward');
  return (s) => {
    const due = s.date ?? (s.kind === 'transfer' || s.kind === 'to_be_sent' ? sent : bought);
    const lateDays = Math.max(0, daysBetween(due, today));
    return { due, lateDays, comes: lateDays > 0 ? next : due, href: hrefOf(s) };
  };
}

const hrefOf = ({ orderId, transferId }: Pick<Supply, 'orderId' | 'transferId'>): string =>
  orderId !== null ? `/orders/${orderId}` : transferId !== null ? `/stock/transfers/${transferId}` : '/trays';
