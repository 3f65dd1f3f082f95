import fc from 'fast-check';
import { isOfPattern, type NumberPattern, numberOf, numberSeries, parseNumberPattern, USUAL_PATTERN } from '.';

const pattern = (text: string): NumberPattern => {
  const read = parseNumberPattern(text);
  if (!read.ok) throw new Error(read.error.because);
  return read.value;
};

test.each([
  ['YYMM-####', '2611-0047', '2611'],
  ['PO-YYYY-#####', 'PO-2026-00047', '26'],
  ['B####', 'B0047', ''],
  ['#/YY', '47/26', '26'],
  ['####.MM.YYYY', '0047.11.2026', '2611'],
])('%s: the 47th of 23 November 2026 is %s, counted within “%s”', (text, number, series) => {
  expect(numberOf(pattern(text), '2026-11-23', 47)).toBe(number);
  expect(numberSeries(pattern(text), '2026-11-23')).toBe(series);
  expect(isOfPattern(pattern(text), number)).toBe(true);
});

test.each([
  ['YYMM', 'no_run'],
  ['##-YY-##', 'no_run'],
  ['', 'no_run'],
  ['##########', 'no_run'],
  ['PO ####', 'sign'],
  ['Ü####', 'sign'],
  ['LONG-LONG-LONG-LONG-LONG-####', 'length'],
  ['MM-####', 'month_alone'],
])('“%s” is no pattern: %s', (text, because) =>
  expect(parseNumberPattern(text)).toEqual({ ok: false, error: { kind: 'not_a_number_pattern', text, because } }),
);

test('more than fit into the run take more digits and are still of the pattern', () => {
  expect(numberOf(USUAL_PATTERN, '2026-11-23', 12_345)).toBe('2611-12345');
  expect(isOfPattern(USUAL_PATTERN, '2611-12345')).toBe(true);
  expect(isOfPattern(USUAL_PATTERN, 'X2611-0001')).toBe(false);
  expect(isOfPattern(pattern('B.###'), 'Bx001')).toBe(false);
});

test('two numbers of one pattern are the same only on the same series and place in it', () => {
  const patterns = fc.constantFrom(...['YYMM-####', 'PO-YYYY-#####', 'B-####', '#/YY'].map(pattern));
  const days = fc.constantFrom('2025-01-31', '2026-01-02', '2026-11-23', '2026-12-01');
  const n = fc.integer({ min: 1, max: 20_000 });
  fc.assert(
    fc.property(patterns, days, n, days, n, (p, day, a, other, b) => {
      if (numberOf(p, day, a) !== numberOf(p, other, b)) return;
      expect([numberSeries(p, day), a]).toEqual([numberSeries(p, other), b]);
    }),
  );
});
