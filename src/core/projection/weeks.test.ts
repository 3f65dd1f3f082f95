import { weekStarts, weekSums } from './weeks';

const dated = (...all: readonly [string, number][]) => all.map(([date, amount]) => ({ date, amount }));

test('a week is seven days from the first; its last day still belongs to it', () => {
  expect(weekSums('2026-11-23', 2, dated(['2026-11-23', 1], ['2026-11-29', 2], ['2026-11-30', 4]))).toEqual([3, 4]);
});

test('what is overdue counts in the first week, what lies beyond the last in none', () => {
  expect(weekSums('2026-11-23', 2, dated(['2026-10-01', 8], ['2026-12-06', 16], ['2026-12-07', 32]))).toEqual([8, 16]);
});

test('weeks begin on the day they are counted from', () =>
  expect(weekStarts('2026-11-25', 3)).toEqual(['2026-11-25', '2026-12-02', '2026-12-09']));
