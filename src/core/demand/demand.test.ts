import fc from 'fast-check';
import { units } from '../quantity';
import { coverTenths, figuresOfUse, meanDailyUse, type UseDay } from '.';

const days = (...list: [opening: number, sold: number][]): UseDay[] =>
  list.map(([opening, sold]) => ({ opening: units(opening), sold: units(sold) }));

describe('mean use per day', () => {
  test('the mean of the days; stock-out days are left out', () => {
    expect(meanDailyUse(days([10, 2], [8, 4], [4, 0]))).toBe(units(2));
    // Two days without stock say nothing: 6 over 2 days, not over 4.
    expect(meanDailyUse(days([6, 6], [0, 0], [-1, 0], [5, 0]))).toBe(units(3));
  });

  test('what was sold from an empty shelf counts, and so does its day', () => {
    expect(meanDailyUse(days([0, 3], [0, 0], [0, 3]))).toBe(units(3));
  });

  test('nothing sold, nothing counted, more returned than sold: no use', () => {
    expect(meanDailyUse([])).toBe(0);
    expect(meanDailyUse(days([0, 0]))).toBe(0);
    expect(meanDailyUse(days([5, 0], [5, 0]))).toBe(0);
    expect(meanDailyUse(days([5, 1], [5, -3]))).toBe(0);
  });

  test('rounded half-up to the millionth', () => {
    expect(meanDailyUse(days([9, 1], [9, 0], [9, 0]))).toBe(333_333);
    expect(meanDailyUse(days([9, 2], [9, 0], [9, 0]))).toBe(666_667);
  });

  test('between the least and the most of the days that count', () => {
    const day = fc.record({ opening: fc.integer({ min: 1, max: 1e12 }), sold: fc.integer({ min: 0, max: 1e12 }) });
    fc.assert(
      fc.property(fc.array(day, { minLength: 1, maxLength: 91 }), (list) => {
        const sold = list.map((d) => d.sold);
        const mean = meanDailyUse(list);
        expect(mean >= Math.min(...sold) && mean <= Math.max(...sold)).toBe(true);
      }),
    );
  });
});

test('cover: tenths of a day, rounded down', () => {
  expect(coverTenths(units(12), units(2))).toBe(60);
  expect(coverTenths(units(10), units(3))).toBe(33);
  expect(coverTenths(units(-2), units(3))).toBe(0);
  expect(coverTenths(units(5), 0)).toBeNull();
  expect(coverTenths(units(5_000_000), 1)).toBe(99_999);
});

test('how unevenly something sells: days, and whole weeks; stock-out days say nothing', () => {
  const day = (sold: number, opening = 5) => ({ opening: units(opening), sold: units(sold) });
  // 2, 4, 4, 4, 5, 5, 7, 9: mean 5, sum of squares 32, ÷ 7 → sd 2.138 (worked by hand).
  const eight = [2, 4, 4, 4, 5, 5, 7, 9].map((n) => day(n));
  expect(figuresOfUse(eight)).toMatchObject({ perDay: units(5), days: 8 });
  expect(figuresOfUse(eight).sdPerDay).toBeCloseTo(Math.sqrt(32 / 7), 12);
  expect(figuresOfUse([...eight, day(0, 0), day(0, -1)])).toMatchObject({ perDay: units(5), days: 8 });
  // Two weeks of 7 and 21: mean 14, population sd 7 → 0.5.
  const weeks = [...new Array(7).fill(day(1)), ...new Array(7).fill(day(3))];
  expect(figuresOfUse(weeks).weeklyVariation).toBeCloseTo(0.5, 12);
  // A week with three days of stock is left out, one with five is taken as if the others had been like them.
  const patchy = [...new Array(3).fill(day(1)), ...new Array(4).fill(day(0, 0)), ...new Array(7).fill(day(3))];
  expect(figuresOfUse(patchy).weeklyVariation).toBe(0);
  expect(figuresOfUse([])).toEqual({ perDay: 0, sdPerDay: 0, days: 0, weeklyVariation: null });
});
