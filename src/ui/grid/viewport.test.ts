import fc from 'fast-check';
import {
  type Extent,
  heightOf,
  MAX_HEIGHT,
  measured,
  offsetOf,
  offsetToShow,
  rowsAt,
  scrollHeight,
  scrollTopOf,
  topOf,
  totalHeight,
} from './viewport';

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

const extent = fc
  .record({
    count: fc.integer({ min: 1, max: 2_000_000 }),
    rowHeight: fc.integer({ min: 20, max: 60 }),
    height: fc.integer({ min: 300, max: 1400 }),
    wrapped: fc.uniqueArray(fc.record({ at: fc.nat(1000), more: fc.integer({ min: 1, max: 80 }) }), {
      selector: (w) => w.at,
      maxLength: 12,
    }),
  })
  .map(({ wrapped, ...e }): Extent => {
    const rows = new Map(wrapped.map((w) => [Math.floor((w.at / 1001) * e.count), w.more]));
    const higher = [...rows].map(([index, more]) => ({ index, more })).sort((a, b) => a.index - b.index);
    return { ...e, higher };
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
        expect(Math.abs(shown - Math.min(there, Math.max(0, totalHeight(e) - e.height)))).toBeLessThan(0.5);
        const { first, end } = rowsAt(e, shown, 0);
        expect(first <= row && row < end).toBe(true);
        expect(offsetToShow(e, there, row)).toBeNull();
      },
    ),
  );
});

test('rows that wrap are higher: what stands below moves down, and the row at every pixel is the right one', () => {
  const list: Extent = {
    count: 6,
    rowHeight: 44,
    height: 100,
    higher: [
      { index: 1, more: 16 },
      { index: 4, more: 30 },
    ],
  };
  expect([0, 1, 2, 4, 5].map((row) => topOf(list, row))).toEqual([0, 44, 104, 192, 266]);
  expect([heightOf(list, 0), heightOf(list, 1), totalHeight(list)]).toEqual([44, 60, 310]);
  const at = (offset: number) => rowsAt({ ...list, height: 1 }, offset, 0);
  expect([43, 44, 103, 104, 191, 192, 265, 266].map((o) => at(o).first)).toEqual([0, 1, 1, 2, 3, 4, 4, 5]);
  expect(offsetToShow(list, 0, 4)).toBe(166);
});

test('what is measured changes the rows that differ, and keeps the list when none does', () => {
  const before = [{ index: 3, more: 10 }];
  expect(measured(before, 44, new Map([[3, 53.2]]))).toBe(before);
  expect(measured(before, 44, new Map([[1, 60]]))).toEqual([{ index: 1, more: 16 }, ...before]);
  expect(measured(before, 44, new Map([[3, 40]]))).toEqual([]);
});
