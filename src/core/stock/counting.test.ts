import fc from 'fast-check';
import { units } from '../quantity';
import { checkCountOpen, countTable, differenceOf, expectedThen, isLarge, nextCount, stepOf } from '.';

const figure = (found: number, expected: number) => ({ found: units(found), expected: units(expected) });
const limits = { share: 250, minor: 5000 };

test('the difference is against what was expected when it was counted; the second figure takes the place of the first', () => {
  expect(differenceOf({ first: null, second: null })).toBeNull();
  expect(differenceOf({ first: figure(9, 10), second: null })).toBe(units(-1));
  // Counted again after three were sold: seven expected, seven found.
  expect(differenceOf({ first: figure(9, 10), second: figure(7, 7) })).toBe(0);
});

test('property: whatever moves between counting and posting, stock becomes what was found plus what has moved since', () => {
  const quantity = fc.integer({ min: -1000, max: 1000 }).map(units);
  fc.assert(
    fc.property(quantity, fc.nat(1000).map(units), fc.array(quantity, { maxLength: 6 }), (expected, found, moved) => {
      const since = moved.reduce((a, m) => a + m, 0);
      const onHand = expected + since;
      expect(expectedThen(onHand, since)).toBe(expected);
      const difference = differenceOf({ first: { found, expected }, second: null }) as number;
      expect(onHand + difference).toBe(found + since);
    }),
  );
});

test('a difference is large beyond a quarter of what was expected, or beyond 50.00', () => {
  expect(isLarge(figure(7.5, 10), 100, limits)).toBe(false);
  expect(isLarge(figure(7.4, 10), 100, limits)).toBe(true);
  expect(isLarge(figure(14, 10), 100, limits)).toBe(true);
  expect(isLarge(figure(99, 100), 5000, limits)).toBe(false);
  expect(isLarge(figure(99, 100), 5001, limits)).toBe(true);
  // Nothing or less expected: a share says nothing, the value does.
  expect(isLarge(figure(3, 0), 100, limits)).toBe(false);
  expect(isLarge(figure(3, -2), 6000, limits)).toBe(true);
  expect(isLarge(figure(0, 10), 9_000_000, { share: 0, minor: 0 })).toBe(false);
  expect(isLarge(figure(10, 10), 0, limits)).toBe(false);
});

test('what a line waits for', () => {
  expect(stepOf({ first: null, second: null }, 0, limits)).toBe('first');
  expect(stepOf({ first: figure(10, 10), second: null }, 0, limits)).toBe('done');
  expect(stepOf({ first: figure(2, 10), second: null }, 10, limits)).toBe('second');
  expect(stepOf({ first: figure(2, 10), second: figure(2, 10) }, 10, limits)).toBe('done');
});

test('a rhythm keeps its day of the week, also when counts were left out', () => {
  expect(nextCount('2026-11-23', 7, '2026-11-23')).toBe('2026-11-30');
  expect(nextCount('2026-11-02', 7, '2026-11-25')).toBe('2026-11-30');
  expect(nextCount('2026-11-30', 7, '2026-11-25')).toBe('2026-12-07');
  expect(nextCount('2026-11-01', 1, '2026-11-25')).toBe('2026-11-26');
});

test('a count that has ended is not entered', () => {
  expect(checkCountOpen('open').ok).toBe(true);
  expect(checkCountOpen('posted')).toEqual({ ok: false, error: { kind: 'count_ended', state: 'posted' } });
});

test('a list of what was found: with a head anywhere, without one first and last, a scanner’s one by one', () => {
  const named = [
    ['Shelf', 'Item', 'Name', 'Counted'],
    ['A1', '10412-07', 'Fen Wool DK, moss', '12'],
    ['A1', '10412-08', 'Fen Wool DK, peat', ''],
  ];
  expect(countTable(named)).toEqual([{ row: 2, code: '10412-07', quantity: '12' }]);
  expect(
    countTable([
      ['10412-07', 'x', '3.5'],
      ['', '', '4'],
    ]),
  ).toEqual([{ row: 1, code: '10412-07', quantity: '3.5' }]);
  expect(countTable([['9501101530003'], ['9501101530003'], ['']]).map((r) => r.quantity)).toEqual(['1', '1']);
  expect(countTable([])).toEqual([]);
});
