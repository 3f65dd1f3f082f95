import fc from 'fast-check';
import { checked, entryText, fromDecimal, MAX_QUANTITY, parseQuantity, toDecimal, units } from '.';

const any = fc.integer({ min: -MAX_QUANTITY, max: MAX_QUANTITY });

describe('quantities in millionths', () => {
  test('decimal and back is the same quantity, whatever it is', () => {
    fc.assert(fc.property(any, (q) => expect(fromDecimal(toDecimal(q))).toBe(q)));
  });

  test('as the database writes it, without surplus zeros', () => {
    expect(toDecimal(13_716_000)).toBe('13.716');
    expect(toDecimal(-100_000)).toBe('-0.1');
    expect(toDecimal(0)).toBe('0');
    expect(fromDecimal('150.876000')).toBe(150_876_000);
  });

  test('a silent loss of digits is a defect', () => {
    expect(() => checked(MAX_QUANTITY + 1)).toThrow(RangeError);
    expect(() => checked(0.5)).toThrow(RangeError);
    expect(() => fromDecimal('1.1234567')).toThrow(RangeError);
    expect(() => fromDecimal('1e3')).toThrow(RangeError);
  });
});

describe('what a person types', () => {
  test.each([
    ['6', 6],
    ['41,5', 41.5],
    ['41.5', 41.5],
    [' 1 234 ', 1234],
    ['1,234.5', 1234.5],
    ['1.234,5', 1234.5],
    ['1,234,567', 1_234_567],
    ['1.234.567', 1_234_567],
    ['0.125', 0.125],
    ['.5', 0.5],
    ['1.2500', 1.25],
    ['1250.500', 1250.5],
    ['0,000001', 0.000001],
  ])('%s is read', (typed, value) => {
    expect(parseQuantity(typed)).toEqual({ ok: true, value: units(value) });
  });

  test.each([
    ['', 'not_a_number'],
    ['six', 'not_a_number'],
    ['1.2.3', 'not_a_number'],
    ['5e3', 'not_a_number'],
    ['-3', 'negative'],
    ['\u22123', 'negative'],
    ['0.1234567', 'too_many_decimals'],
    ['9000000001', 'too_large'],
    ['99999999999999999999', 'too_large'],
  ])('%s is %s', (typed, kind) => {
    expect(parseQuantity(typed)).toMatchObject({ ok: false, error: { kind } });
  });

  test('an ambiguous figure is read back, not guessed', () => {
    expect(parseQuantity('1.250')).toEqual({
      ok: false,
      error: { kind: 'ambiguous', text: '1.250', readings: ['1250', '1.25'] },
    });
    expect(parseQuantity('2,000')).toMatchObject({ ok: false, error: { readings: ['2000', '2.0'] } });
  });

  test('what the program puts into a field is read back as exactly that', () => {
    expect(entryText(units(6.505))).toBe('6.5050');
    expect(entryText(units(13.716))).toBe('13.7160');
    expect(entryText(units(1250.125))).toBe('1250.125');
    fc.assert(
      fc.property(fc.integer({ min: 0, max: MAX_QUANTITY }), (q) => {
        expect(parseQuantity(entryText(q))).toEqual({ ok: true, value: q });
        const thousandths = (q % 10_000_000) * 1000;
        expect(parseQuantity(entryText(thousandths))).toEqual({ ok: true, value: thousandths });
      }),
    );
  });
});
