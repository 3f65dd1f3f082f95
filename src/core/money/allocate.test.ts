import fc from 'fast-check';
import reference from '../../../tests/reference/allocation.json';
import { decimalFraction, fraction } from '../units';
import { allocate, basePerForeign, convert, rateOn } from '.';

// Source: tests/reference/allocation.json: largest remainder on python fractions, checked there with hare-niemeyer 3.0.0.
test.each(reference.cases.map((c) => [c.id, c] as const))('%s', (_, { input, expected }) => {
  expect(allocate(input.minor, input.weights.map(decimalFraction))).toEqual(expected.parts_minor);
});

test('the parts add up to the sum, none is off its quota by a unit or more', () => {
  const weights = fc.array(fc.tuple(fc.nat(1_000_000), fc.integer({ min: 1, max: 97 })), {
    minLength: 1,
    maxLength: 12,
  });
  fc.assert(
    fc.property(fc.integer({ min: -1e9, max: 1e9 }), weights, (amount, w) => {
      const parts = allocate(
        amount,
        w.map(([n, d]) => fraction(n, d)),
      );
      expect(parts.reduce((a, b) => a + b, 0)).toBe(amount);
      const sum = w.reduce((s, [n, d]) => s + n / d, 0);
      for (const [i, [n, d]] of w.entries()) {
        const quota = sum === 0 ? amount / w.length : (amount * (n / d)) / sum;
        expect(Math.abs((parts[i] as number) - quota)).toBeLessThan(1 + 1e-3);
      }
    }),
  );
});

test('no line takes nothing; a negative weight is a defect', () => {
  expect(allocate(100, [])).toEqual([]);
  expect(() => allocate(100, [fraction(-1)])).toThrow(RangeError);
});

describe('rates', () => {
  const rates = [
    { currency: 'USD', direction: 'base_per_foreign', rate: '0.9', validFrom: '2026-01-01' },
    { currency: 'USD', direction: 'base_per_foreign', rate: '0.92', validFrom: '2026-06-01' },
    { currency: 'JPY', direction: 'foreign_per_base', rate: '162.5', validFrom: '2026-01-01' },
  ] as const;

  test('the latest that is not after the day', () => {
    expect(rateOn(rates, 'USD', '2026-05-31')?.rate).toBe('0.9');
    expect(rateOn(rates, 'USD', '2026-06-01')?.rate).toBe('0.92');
    expect(rateOn(rates, 'USD', '2025-12-31')).toBeNull();
    expect(rateOn(rates, 'GBP', '2026-06-01')).toBeNull();
  });

  test('a rate quoted the other way round is turned exactly, not by a rounded inverse', () => {
    const yen = rateOn(rates, 'JPY', '2026-02-01');
    if (!yen) throw new Error('no rate');
    expect(convert(162_500, 'JPY', basePerForeign(yen), 'EUR')).toBe(100_000);
    expect(() => basePerForeign({ direction: 'base_per_foreign', rate: '0' })).toThrow(RangeError);
  });
});
