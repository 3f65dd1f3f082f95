import fc from 'fast-check';
import { units } from '@/core/quantity';
import { breakHint } from './breakHint';

/** 1.00 each, from 100 on 0.80. */
const priceOf = (q: number) => Math.round((q / units(1)) * (q >= units(100) ? 80 : 100));
const line = { quantity: units(60), breaks: [units(100)], priceOf, perDay: units(2), rate: 0.2, mostDays: 120 };

// Worked by hand: 60 × 1.00 = 60.00, 100 × 0.80 = 80.00; 40 more last 20 days; 20.00 ÷ (2 × 1.00 a day) = 10 days;
// holding 40 × 0.80 × 20 % × 10 ÷ 365 = 0.1753….
test('what a break costs, saves, and when it has paid for itself', () => {
  const hint = breakHint(line);
  expect(hint).toMatchObject({ at: units(100), more: units(40), outlay: 2000, saving: 2000, lastsDays: 20 });
  expect(hint?.paybackDays).toBeCloseTo(10, 10);
  expect(hint?.holding).toBeCloseTo((32_00 * 0.2 * 10) / 365, 8);
  expect(hint?.worthIt).toBe(true);
});

// Worked by hand: 30 of another kind count with it and cost 30.00 now, 24.00 beyond the break: 6.00 less to pay, 6.00 more saved.
test('what is priced together with it gets cheaper too', () => {
  const of = { ...line, quantity: units(60), breaks: [units(70)] };
  const counted = (q: number) => (q + units(30) >= units(100) ? 80 : 100);
  const hint = breakHint({
    ...of,
    priceOf: (q) => Math.round((q / units(1)) * counted(q)),
    othersAt: (q) => 30 * counted(q),
  });
  // 70 × 0.80 − 60 × 1.00 − (30.00 − 24.00) = −10.00; 70 × 1.00 − 56.00 + 6.00 = 20.00.
  expect(hint).toMatchObject({ at: units(70), more: units(10), outlay: -1000, saving: 2000, paybackDays: 0 });
});

test('near a break the larger quantity costs less outright', () => {
  expect(breakHint({ ...line, quantity: units(90) })).toMatchObject({ outlay: -1000, paybackDays: 0, worthIt: true });
});

test.each([
  ['nothing is used', { perDay: 0 }],
  ['no price is on file', { priceOf: () => null }],
  ['the break is reached already', { quantity: units(120) }],
  ['the price beyond it is not lower', { priceOf: (q: number) => q / units(1) }],
  ['it would lie there for years', { perDay: units(0.1) }],
])('no hint where %s', (_, change) => expect(breakHint({ ...line, ...change })).toBeNull());

test('a break that takes long to use up is not worth its holding', () => {
  const dear = { ...line, rate: 5, perDay: units(0.4) };
  expect(breakHint(dear)).toMatchObject({ lastsDays: 100, worthIt: false });
});

test('saving is what the whole would have cost more, whatever the numbers', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 99 }),
      fc.integer({ min: 1, max: 99 }),
      fc.integer({ min: 1, max: 20 }),
      (q, off, use) => {
        const own = (n: number) => Math.round((n / units(1)) * (n >= units(100) ? 100 - off : 100));
        const hint = breakHint({ ...line, quantity: units(q), priceOf: own, perDay: units(use), mostDays: 1e6 });
        expect(hint?.saving).toBe(100 * 100 - own(units(100)));
        expect((hint?.outlay ?? 0) + own(units(q))).toBe(own(units(100)));
      },
    ),
  );
});
