import fc from 'fast-check';
import { addDays } from '../calendar';
import { units } from '../quantity';
import { usedBetweenCounts } from '.';

const PIECE = units(1);
const of = (...counts: [date: string, used: number][]) => counts.map(([date, used]) => ({ date, used: units(used) }));
const shown = (days: Map<string, number>) => [...days].sort().map(([d, q]) => `${d.slice(5)}:${q / 1e6}`);

test('what is missing was used evenly since the count before; what is left over, on the latest days', () => {
  expect(shown(usedBetweenCounts(of(['2026-11-01', 0], ['2026-11-05', 12]), null, PIECE))).toEqual([
    ...['11-02:3', '11-03:3', '11-04:3', '11-05:3'],
  ]);
  expect(shown(usedBetweenCounts(of(['2026-11-01', 0], ['2026-11-05', 6]), null, PIECE))).toEqual([
    ...['11-02:1', '11-03:1', '11-04:2', '11-05:2'],
  ]);
  expect(shown(usedBetweenCounts(of(['2026-11-01', 0], ['2026-11-05', 2]), null, PIECE))).toEqual([
    '11-04:1',
    '11-05:1',
  ]);
});

test('the first count fixes the level, unless the day stock began is known', () => {
  expect(usedBetweenCounts(of(['2026-11-05', 4]), null, PIECE).size).toBe(0);
  expect(shown(usedBetweenCounts(of(['2026-11-05', 4]), '2026-11-03', PIECE))).toEqual(['11-04:2', '11-05:2']);
});

test('counts between which nothing went missing say that nothing was used then', () => {
  const counts = of(['2026-11-01', 0], ['2026-11-03', 0], ['2026-11-05', 2]);
  expect(shown(usedBetweenCounts(counts, null, PIECE))).toEqual(['11-04:1', '11-05:1']);
});

test('two counts on one day; found again what was thought used', () => {
  const twice = of(['2026-11-01', 0], ['2026-11-02', 3], ['2026-11-02', 1]);
  expect(shown(usedBetweenCounts(twice, null, PIECE))).toEqual(['11-02:4']);
  expect(shown(usedBetweenCounts(of(['2026-11-01', 0], ['2026-11-03', -2]), null, PIECE))).toEqual([
    '11-02:-1',
    '11-03:-1',
  ]);
});

test('property: the days of each span add up to what its count found, in whole steps', () => {
  const gap = fc.tuple(fc.integer({ min: 1, max: 40 }), fc.integer({ min: 0, max: 500 }));
  fc.assert(
    fc.property(fc.array(gap, { minLength: 1, maxLength: 8 }), (gaps) => {
      let date = '2026-01-01';
      const counts = gaps.map(([days, used]) => {
        date = addDays(date, days);
        return { date, used: units(used) };
      });
      const days = usedBetweenCounts(counts, '2026-01-01', PIECE);
      expect([...days.values()].reduce((a, q) => a + q, 0)).toBe(counts.reduce((a, c) => a + c.used, 0));
      expect([...days.values()].every((q) => q % PIECE === 0 && q > 0)).toBe(true);
    }),
  );
});
