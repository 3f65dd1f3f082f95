import reference from '../../../tests/reference/abc.json';
import { abcClasses, gini, variation, xyzClass } from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const of = (kind: string) => cases.filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const close = (a: number | null, b: number | null) =>
  a === null || b === null
    ? expect(a).toBe(b)
    : expect(Math.abs(a - b)).toBeLessThanOrEqual(1e-9 * Math.max(1, Math.abs(b)));

// Source: tests/reference/abc.json: exact fractions (classes), scipy 1.10.1 (variation), R Hmisc 4.8.0 (Gini).
describe('ABC and XYZ reference', () => {
  test.each(of('abc'))('%s', (_, { input, expected }) => {
    const minor = input.values.map((v: number) => Math.round(v * 10_000));
    const [a, b] = [Math.round(input.a * 1000), Math.round(input.b * 1000)];
    expect(abcClasses(minor, a, b, 'crossing')).toEqual(expected.class_crossing);
    expect(abcClasses(minor, a, b, 'inclusive')).toEqual(expected.class_inclusive);
  });

  test.each(of('xyz'))('%s', (_, { input, expected }) => {
    const cv = variation(input.values);
    close(cv, expected.cv_population);
    if (expected.class !== null) expect(xyzClass(cv, input.x, input.y)).toBe(expected.class);
  });

  test.each(of('gini'))('%s', (_, { input, expected }) => close(gini(input.values), expected.gini));

  test('every case of the file is of a kind tested here', () => {
    expect([...new Set(cases.map((c) => c.kind))].sort()).toEqual(['abc', 'gini', 'xyz']);
  });
});

test('nothing sold at all is C, without demand Z', () => {
  expect(abcClasses([0, 0], 800, 950)).toEqual(['C', 'C']);
  expect(abcClasses([], 800, 950)).toEqual([]);
  expect(abcClasses([-5, 10], 800, 950)).toEqual(['C', 'A']);
  expect(variation([0, 0])).toBeNull();
  expect(xyzClass(null, 0.5, 1)).toBe('Z');
  expect(gini([])).toBeNull();
});
