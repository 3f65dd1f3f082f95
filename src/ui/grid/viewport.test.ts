import fc from 'fast-check';
import { type Extent, MAX_HEIGHT, offsetOf, offsetToShow, rowsAt, scrollHeight, scrollTopOf } from './viewport';

const sheet: Extent = { count: 800_000, rowHeight: 37, height: 640 };

test('a short list scrolls as it is; a long one is scaled into what a browser can', () => {
  expect(scrollHeight({ count: 100, rowHeight: 37, height: 640 })).toBe(3700);
  expect(offsetOf({ count: 100, rowHeight: 37, height: 640 }, 370)).toBe(370);
  expect(scrollHeight(sheet)).toBe(MAX_HEIGHT);
  expect(offsetOf(sheet, 0)).toBe(0);
  expect(offsetOf(sheet, MAX_HEIGHT - 640)).toBe(800_000 * 37 - 640);
});

test('the last row shows at the end, the first at the start', () => {
  const end = offsetOf(sheet, MAX_HEIGHT);
  expect(rowsAt(sheet, end)).toEqual({ first: 799_974, end: 800_000 });
  expect(rowsAt(sheet, 0, 0)).toEqual({ first: 0, end: 18 });
  expect(rowsAt({ ...sheet, count: 0 }, 0)).toEqual({ first: 0, end: 0 });
});

const extent = fc.record({
  count: fc.integer({ min: 1, max: 2_000_000 }),
  rowHeight: fc.integer({ min: 20, max: 60 }),
  height: fc.integer({ min: 200, max: 1400 }),
});

test('every row can be reached: the position that shows it does show it', () => {
  fc.assert(
    fc.property(
      extent,
      fc.double({ min: 0, max: 1, noNaN: true }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      (e, r, s) => {
        const row = Math.min(e.count - 1, Math.floor(r * e.count));
        const here = offsetOf(e, s * scrollHeight(e));
        const there = offsetToShow(e, here, row) ?? here;
        const shown = offsetOf(e, scrollTopOf(e, there));
        expect(Math.abs(shown - Math.min(there, Math.max(0, e.count * e.rowHeight - e.height)))).toBeLessThan(0.5);
        const { first, end } = rowsAt(e, shown, 0);
        expect(first <= row && row < end).toBe(true);
        expect(offsetToShow(e, there, row)).toBeNull();
      },
    ),
  );
});
