import { units } from '@/core/quantity';
import { Format } from '../format';
import { becomesWords, hintWords, nextWords, slotWords, trayBecomes, weightWords } from './words';

const format = new Format('en-GB');
const order = { places: ['Old Mill'], lines: 2, net: 100, arrives: '2026-12-01', joins: null };
const joining = { ...order, joins: { id: 7, begun: '2026-11-23', told: null } };

test('what a tray becomes', () => {
  expect(becomesWords(joining, format)).toBe('joins the draft begun Mon 23 Nov');
  const told = { ...order, joins: { id: 7, begun: '2026-11-23', told: '2611-0007' } };
  expect(becomesWords(told, format)).toBe('changes order 2611-0007');
  expect(trayBecomes({ held: false, orders: [order] }, format)).toBe('a new order');
  expect(trayBecomes({ held: true, orders: [order] }, format)).toBe('held back');
  expect(trayBecomes({ held: false, orders: [order, order] }, format)).toBe('2 new orders, one for each place');
  expect(trayBecomes({ held: false, orders: [order, joining] }, format)).toBe('2 orders, 1 of them joins a draft');
});

test('until when it goes out', () => {
  expect(slotWords({ slot: '2026-11-23', cutOff: '14:00' }, '2026-11-23', format)).toBe('goes out today until 14:00');
  expect(slotWords({ slot: '2026-11-26', cutOff: null }, '2026-11-23', format)).toBe('goes out Thu 26 Nov');
});

test('a break says what it saves and when it has paid for itself', () => {
  const hint = {
    ...{ at: units(100), more: units(40), packs: units(10), outlay: 2000, saving: 2000, lastsDays: 20, holding: 18 },
    ...{ paybackDays: 9.4, worthIt: true },
  };
  const line = { hint, packName: 'bag', currency: 'EUR' };
  expect(hintWords(line, format)).toBe('from 10 bags: saves 20.00, 20.00 more, paid back in 10 days');
  expect(hintWords({ ...line, hint: { ...hint, outlay: -100, worthIt: false } }, format)).toBe(
    'from 10 bags: saves 20.00, costs less in all, not worth holding it',
  );
  expect(hintWords({ ...line, hint: null }, format)).toBe('');
});

test('weights that are not on file are said', () => {
  expect(weightWords({ weightKg: 12.5, volumeL: 0, unweighed: 1, lines: 3 }, format)).toBe(
    '12.5 kg · 1 without a weight',
  );
  expect(weightWords({ weightKg: 0, volumeL: 0, unweighed: 3, lines: 3 }, format)).toBe('no weights on file');
});

test('who acts next', () => {
  expect(nextWords({ next: 'you' })).toBe('you can approve it');
  expect(nextWords({ next: ['Otto Brandt', 'Jun Abe'] })).toBe('to be approved by Otto Brandt or Jun Abe');
  expect(nextWords({ next: [] })).toBe('nobody can approve it yet');
});
