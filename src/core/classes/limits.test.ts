import { readLimits, thousandthsOf } from '.';

const typed = { a: '80', b: '95', x: '0.5', y: '1' };
const fault = (change: Partial<typeof typed>) => {
  const read = readLimits({ ...typed, ...change });
  return read.ok ? null : `${read.error.field} ${read.error.fault.kind}`;
};

test('limits as they are typed, in thousandths', () => {
  expect(readLimits(typed)).toEqual({ ok: true, value: { abcA: 800, abcB: 950, xyzX: 500, xyzY: 1000 } });
  expect(readLimits({ ...typed, a: '82,5 %', y: '1.25' })).toMatchObject({ value: { abcA: 825, xyzY: 1250 } });
  expect([thousandthsOf('100'), thousandthsOf('7.25'), thousandthsOf('-1'), thousandthsOf('')]).toEqual([
    1000,
    null,
    null,
    null,
  ]);
});

test('what limits can be wrong in', () => {
  expect(fault({ a: 'most' })).toBe('a not_a_share');
  expect(fault({ a: '0' })).toBe('a not_a_share');
  expect(fault({ b: '101' })).toBe('b not_a_share');
  expect(fault({ b: '70' })).toBe('b limits_reversed');
  expect(fault({ x: '0' })).toBe('x not_a_variation');
  expect(fault({ y: '12' })).toBe('y not_a_variation');
  expect(fault({ y: '0.4' })).toBe('y limits_reversed');
  expect(fault({ a: '95', x: '1' })).toBeNull();
});
