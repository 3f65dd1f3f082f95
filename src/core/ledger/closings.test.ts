import fc from 'fast-check';
import { addDays, daysFrom } from '../calendar';
import { units } from '../quantity';
import { closings } from '.';

test('each day closes with what is there now, less what changed after it', () => {
  const changes = new Map([
    ['2026-11-19', units(30)],
    ['2026-11-20', units(-4)],
    ['2026-11-23', units(-9)],
  ]);
  expect(closings(units(12), changes, daysFrom('2026-11-18', 6))).toEqual(
    [-5, 25, 21, 21, 21, 12].map((q) => units(q)),
  );
});

test('what is dated after the span is in none of its days', () => {
  expect(closings(units(5), new Map([['2026-11-25', units(2)]]), daysFrom('2026-11-23', 2))).toEqual([
    units(3),
    units(3),
  ]);
});

test('forwards it is a running sum', () => {
  const days = fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 40 });
  fc.assert(
    fc.property(days, fc.integer({ min: -100, max: 100 }), (byDay, opening) => {
      const first = '2026-10-01';
      const changes = new Map(byDay.map((q, i) => [addDays(first, i), units(q)]));
      const now = units(byDay.reduce((sum, q) => sum + q, opening));
      let running = units(opening);
      const expected = byDay.map((q) => {
        running += units(q);
        return running;
      });
      expect(closings(now, changes, daysFrom(first, byDay.length))).toEqual(expected);
    }),
  );
});
