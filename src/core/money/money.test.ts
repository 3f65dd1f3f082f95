import fc from 'fast-check';
import Fraction from 'fraction.js';
import { units } from '@/core/quantity';
import { fraction } from '@/core/units';
import { lineNet, minorToDecimal, parsePrice, pricePerBaseUnit } from '.';

const price = (amount: string, perQuantity: string, content: number) => ({
  amount,
  perQuantity,
  packContent: fraction(content),
});

describe('prices', () => {
  test('10.00 for 3 stays 10.00 for 3', () => {
    const ten = price('10.00', '3', 1);
    expect(lineNet(units(3), ten, 'EUR')).toBe(1000);
    expect(lineNet(units(1), ten, 'EUR')).toBe(333);
    expect(lineNet(units(30), ten, 'EUR')).toBe(10_000);
    expect(pricePerBaseUnit(ten)).toBe('3.3333');
  });

  test('102.60 per carton of 36 shows 2.85 each and 307.80 per bale', () => {
    const carton = price('102.60', '1', 36);
    expect(pricePerBaseUnit(carton, 2)).toBe('2.85');
    expect(lineNet(units(108), carton, 'EUR')).toBe(30_780);
  });

  test('rounds half up once, at the line; yen has no minor unit (ISO 4217)', () => {
    expect(lineNet(units(1), price('0.005', '1', 1), 'EUR')).toBe(1);
    expect(lineNet(units(1), price('0.0049', '1', 1), 'EUR')).toBe(0);
    expect(lineNet(units(3), price('410.5', '1', 1), 'JPY')).toBe(1232);
    expect(minorToDecimal(1232, 'JPY')).toBe('1232');
    expect(minorToDecimal(-5, 'EUR')).toBe('-0.05');
    expect(() => minorToDecimal(1, 'XXX')).toThrow(RangeError);
  });

  test('equals exact fractions to within half a cent', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 9_999_999_999 }),
        fc.integer({ min: 0, max: 99_999_999 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 1, max: 5000 }),
        (base, amount, per, content) => {
          const net = lineNet(base, price((amount / 1000).toFixed(3), String(per), content), 'EUR');
          const exact = new Fraction(base).div(1e6).mul(amount).div(1000).div(per).div(content).mul(100);
          expect(new Fraction(net).sub(exact).abs().compare(new Fraction(1, 2))).toBeLessThanOrEqual(0);
        },
      ),
    );
  });
});

describe('a typed price', () => {
  test.each([
    ['32.80', '32.80'],
    ['32,8', '32.8'],
    ['007', '7'],
    ['1,234.50', '1234.50'],
    ['1.234,50', '1234.50'],
    ['0.125', '0.125'],
  ])('%s is %s', (typed, amount) => expect(parsePrice(typed)).toEqual({ ok: true, value: amount }));

  test.each([
    ['', 'not_a_price'],
    ['-4', 'not_a_price'],
    ['four', 'not_a_price'],
    ['1.250', 'price_ambiguous'],
    ['1.1234567', 'price_decimals'],
    ['1234567890', 'price_too_large'],
  ])('%s is refused as %s', (typed, kind) => expect(parsePrice(typed)).toMatchObject({ error: { kind } }));
});
