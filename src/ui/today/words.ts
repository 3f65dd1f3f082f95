import type { TodayLine, TodayMatter } from '@/services/today/readToday';
import { type Format, plural } from '../format';

type Words = {
  /** What is counted, in the singular. */
  readonly of: string;
  readonly name: string;
  /** What the date is. */
  readonly next: string;
  /** What the money is. */
  readonly money: string;
  readonly href: string;
};

/** What each line of Today says, and where it leads. */
export const todayWords: Readonly<Record<TodayMatter, Words>> = {
  needs: {
    of: 'need',
    name: 'Needs to decide',
    next: 'next order day',
    money: 'as suggested',
    href: '/needs?by=urgent',
  },
  late_needs: {
    of: 'need',
    name: 'Too late already',
    next: 'first runs out',
    money: '',
    href: '/needs?show=late&by=urgent',
  },
  put_off: { of: 'need', name: 'Put off or left out', next: 'next comes back', money: '', href: '/needs/decisions' },
  trays: { of: 'tray', name: 'Trays to order', next: 'next goes out', money: 'net', href: '/trays' },
  to_approve: {
    of: 'order',
    name: 'Orders to approve',
    next: 'first wanted',
    money: 'net',
    href: '/orders?show=approve',
  },
  unconfirmed: {
    of: 'order',
    name: 'Orders not confirmed',
    next: 'first expected',
    money: 'net',
    href: '/orders?show=unconfirmed',
  },
  late_orders: {
    of: 'order',
    name: 'Orders that are late',
    next: 'since',
    money: 'still to come',
    href: '/orders?show=late',
  },
  arriving: { of: 'order', name: 'Arriving within a week', next: 'next', money: 'still to come', href: '/arrivals' },
  at_risk: { of: 'line', name: 'Customers at risk', next: 'first wanted', money: '', href: '/promises?show=late' },
  alerts: { of: 'alert', name: 'Alerts not seen', next: '', money: '', href: '/alerts' },
  to_complete: { of: 'item', name: 'Items to complete', next: '', money: '', href: '/items?view=to_complete' },
  over_max: { of: 'item', name: 'Over their maximum', next: '', money: 'at cost', href: '/policies?show=above' },
};

/** The address of a line, at the place that is looked at. */
export const todayHref = (matter: TodayMatter, at: string): string => {
  const { href } = todayWords[matter];
  return at === '' ? href : `${href}${href.includes('?') ? '&' : '?'}at=${encodeURIComponent(at)}`;
};

/** Lines that say that something is wrong, when there are any. */
export const wrong: readonly TodayMatter[] = ['late_needs', 'late_orders', 'at_risk'];

/** A line read out. */
export function lineWords(l: TodayLine, today: string, currency: string, format: Format): string {
  const { of, name, next, money } = todayWords[l.matter];
  return [
    `${name}: ${l.count} ${plural(of, l.count * 1_000_000)}`,
    l.money !== null && l.count > 0 && money ? `${format.money(l.money, currency)} ${money}` : '',
    l.next !== null && next ? `${next} ${format.due(l.next, today).text}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}
