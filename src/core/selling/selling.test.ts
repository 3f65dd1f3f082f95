import { fraction } from '@/core/units';
import { marginPercent, type SetPrice, salePriceOf, withoutTax } from '.';

const price = (amount: string, packId: number | null = null, locationId: number | null = null): SetPrice => ({
  ...{ packId, locationId, amount, withTax: true, taxRate: '19' },
});
const bag = { packId: 7, content: fraction(10), locationId: null };

describe('prices to sell at', () => {
  test('a pack costs what its content does, unless it has a price of its own', () => {
    expect(salePriceOf([price('5.95')], bag, 2)).toMatchObject({ amount: '59.50', how: 'computed', here: false });
    expect(salePriceOf([price('5.95'), price('55.00', 7)], bag, 2)).toMatchObject({ amount: '55.00', how: 'set' });
    expect(salePriceOf([price('55.00', 7)], { ...bag, packId: null }, 2)).toBeNull();
  });
  test('what a place says goes before what holds everywhere', () => {
    const at3 = { ...bag, locationId: 3 };
    const all = [price('5.95'), price('55.00', 7), price('6.50', null, 3)];
    expect(salePriceOf(all, at3, 2)).toMatchObject({ amount: '65.00', how: 'computed', here: true });
    expect(salePriceOf([...all, price('60.00', 7, 3)], at3, 2)).toMatchObject({
      amount: '60.00',
      how: 'set',
      here: true,
    });
    expect(salePriceOf(all, { ...at3, locationId: 4 }, 2)).toMatchObject({ amount: '55.00', here: false });
  });
  test('a fraction of a unit is exact and rounded once', () => {
    // 13.716 m at 11.90 the metre: 163.2204
    expect(salePriceOf([price('11.90')], { ...bag, content: fraction(13_716, 1000) }, 2)?.amount).toBe('163.22');
    expect(salePriceOf([price('1000')], { ...bag, content: fraction(1, 3) }, 0)?.amount).toBe('333');
  });
});

describe('tax and margin', () => {
  test('tax comes out by its rate; an unknown rate is not guessed', () => {
    expect(withoutTax(price('11.90'), 2)).toBe('10.00');
    expect(withoutTax({ ...price('11.90'), withTax: false }, 2)).toBe('11.90');
    expect(withoutTax({ ...price('11.90'), taxRate: null }, 2)).toBeNull();
    expect(withoutTax({ ...price('1.00'), taxRate: '0' }, 2)).toBe('1.00');
  });
  test('margin on the net price (common practice): 10.00 with goods at 6.00 leaves 40 %', () => {
    expect(marginPercent('10.00', '6.00')).toBe('40.0');
    expect(marginPercent('10.00', '12.00')).toBe('-20.0');
    expect(marginPercent('0.00', '6.00')).toBeNull();
  });
});
