import { cellsOfText, fieldOf, inRange, kindFromText, rangeOf, undressed } from './cells';

test('which value a column holds depends on the kind', () => {
  expect(
    (['min_max', 'fixed_quantity', 'periodic', 'days_of_cover', 'lot_for_lot', 'not_carried', 'none'] as const).map(
      (k) => [fieldOf('min', k), fieldOf('max', k)],
    ),
  ).toEqual([
    ['min', 'max'],
    ['min', 'fixed'],
    [null, 'max'],
    [null, 'coverDays'],
    [null, null],
    [null, null],
    ['min', 'max'],
  ]);
  expect(fieldOf('kind', 'periodic')).toBe('kind');
});

test('kinds are known by their words and short names', () => {
  expect(kindFromText('Min/Max')).toBe('min_max');
  expect(kindFromText('days of cover')).toBe('days_of_cover');
  expect(kindFromText('lot_for_lot')).toBe('lot_for_lot');
  expect(kindFromText('Lot-for-lot')).toBe('lot_for_lot');
  expect(kindFromText(' ')).toBe('');
  expect(kindFromText('whatever')).toBeNull();
});

test('cells from a spreadsheet, dressed figures, rectangles', () => {
  expect(cellsOfText('20\t60\r\n30\t76\r\n')).toEqual([
    ['20', '60'],
    ['30', '76'],
  ]);
  expect(['+10', '14 days', '1 day', '–', '7.5'].map(undressed)).toEqual(['10', '14', '1', '', '7.5']);
  const r = rangeOf({ row: 9, col: 2 }, { row: 4, col: 1 });
  expect(r).toEqual({ top: 4, bottom: 9, left: 1, right: 2 });
  expect([inRange(r, 4, 2), inRange(r, 9, 0), inRange(null, 4, 2)]).toEqual([true, false, false]);
});
