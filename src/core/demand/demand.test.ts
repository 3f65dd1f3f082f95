import fc from 'fast-check';
import { units } from '../quantity';
import { coverTenths, meanDailyUse, type UseDay } from '.';

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
