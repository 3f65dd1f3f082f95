import type { TodayLine } from '@/services/today/readToday';
import { Format } from '../format';
import { lineWords, todayHref } from './words';

const format = new Format('en-GB');
const line: TodayLine = { matter: 'trays', count: 2, money: 12_345, next: '2026-11-26', hidden: false };

test('a line says how many, how much and when', () => {
  expect(lineWords(line, '2026-11-23', 'EUR', format)).toBe(
    'Trays to order: 2 trays, €123.45 net, next goes out Thu 26 Nov',
  );
  expect(lineWords({ ...line, matter: 'late_orders', count: 1, next: '2026-11-20' }, '2026-11-23', 'EUR', format)).toBe(
    'Orders that are late: 1 order, €123.45 still to come, since Fri 20 Nov, 3 days late',
  );
});

test('what there is none of says nothing of money or dates', () =>
  expect(lineWords({ ...line, count: 0, money: 0, next: null }, '2026-11-23', 'EUR', format)).toBe(
    'Trays to order: 0 trays',
  ));

test('each line leads to its place, filtered, at the place that is looked at', () => {
  expect(todayHref('late_needs', '')).toBe('/needs?show=late&by=urgent');
  expect(todayHref('late_needs', 'OM')).toBe('/needs?show=late&by=urgent&at=OM');
  expect(todayHref('trays', 'OM')).toBe('/trays?at=OM');
});
