import fc from 'fast-check';
import reference from '../../../tests/reference/gtin.json';
import { decimalsOf } from '../money';
import {
  barcodeText,
  checkDigit,
  countryCode,
  gtinLengths,
  hsCode,
  parseBarcode,
  parseGtin,
  parseKey,
  unNumber,
} from '.';

// biome-ignore lint/suspicious/noExplicitAny: the cases of one file have fields of different types.
type Case = { id: string; kind: string; input: any; expected: any };
const cases = reference.cases as unknown as Case[];
const of = (kind: string) => cases.filter((c) => c.kind === kind).map((c) => [c.id, c] as const);
const lengthsOf: Record<string, readonly number[]> = {
  'GTIN-8': [8],
  'GTIN-12': [12],
  'GTIN-13': [13],
  'GTIN-14': [14],
  SSCC: [18],
  'any GTIN': gtinLengths,
};

// Source: tests/reference/gtin.json: GS1 modulo 10, checked there with python-stdnum 1.18 and bwip-js 4.11.4; ISO 4217.
describe('gtin reference', () => {
  test.each(of('check'))('%s', (_, { input, expected }) => {
    const parsed = parseKey(input.text, lengthsOf[input.type] as number[]);
    expect(parsed.ok).toBe(expected.valid);
    if (expected.check_digit && /^[0-9]+$/.test(input.text)) {
      expect(checkDigit(input.text.slice(0, -1))).toBe(expected.check_digit);
    }
    if (expected.gtin14_form) expect(parseGtin(input.text)).toEqual({ ok: true, value: expected.gtin14_form });
  });

  test.each(of('compute_check_digit'))('%s', (_, { input, expected }) => {
    expect(checkDigit(input.body)).toBe(expected.check_digit);
    expect(input.body + checkDigit(input.body)).toBe(expected.full);
  });

  test.each(of('minor_units'))('%s', (_, { input, expected }) => {
    expect(decimalsOf(input.currency)).toBe(expected.digits);
  });

  test('every case of the file is of a kind tested here', () => {
    const kinds = [...new Set(cases.map((c) => c.kind))].sort();
    expect(kinds).toEqual(['check', 'compute_check_digit', 'minor_units']);
  });
});

describe('barcodes', () => {
  test('a GTIN is one code whatever its printed length', () => {
    const ean = parseBarcode('4006381333931');
    expect(ean).toEqual({ ok: true, value: { kind: 'gtin', code: '04006381333931' } });
    expect(parseBarcode('04006381333931')).toEqual(ean);
  });

  test('a wrong digit is said with the right one, unless the code is meant to be internal', () => {
    const wrong = { kind: 'wrong_check_digit', text: '4006381333930', right: '1' };
    expect(parseBarcode('4006381333930')).toEqual({ ok: false, error: wrong });
    expect(parseBarcode('4006381333930', 'internal')).toMatchObject({ ok: true, value: { kind: 'internal' } });
  });

  test('codes of our own are kept as they read; what no label can carry is refused', () => {
    expect(parseBarcode(' QY-0412 ')).toEqual({ ok: true, value: { kind: 'internal', code: 'QY-0412' } });
    expect(parseBarcode('QY-0412', 'gtin')).toMatchObject({ ok: false, error: { kind: 'not_digits' } });
    expect(parseBarcode('')).toMatchObject({ error: { kind: 'code_missing' } });
    expect(parseBarcode('Größe')).toMatchObject({ error: { kind: 'code_unprintable' } });
    expect(parseBarcode('x'.repeat(41))).toMatchObject({ error: { kind: 'code_too_long' } });
  });

  test('what is printed reads back as the same code', () => {
    const body = fc.stringMatching(/^[0-9]{7}$|^[0-9]{11}$|^[0-9]{12}$|^[0-9]{13}$/);
    fc.assert(
      fc.property(body, (digits) => {
        const gtin = parseBarcode(digits + checkDigit(digits));
        if (!gtin.ok) throw new Error(gtin.error.kind);
        expect(parseBarcode(barcodeText(gtin.value))).toEqual(gtin);
      }),
    );
  });
});

// Structure of the codes: common practice.
test('codes of goods and countries', () => {
  expect([hsCode('5109.10'), hsCode('5109 10 10 00'), hsCode('510'), hsCode('0012')]).toEqual([
    '510910',
    '5109101000',
    null,
    null,
  ]);
  expect([countryCode('jp'), countryCode('JPN')]).toEqual(['JP', null]);
  expect([unNumber('UN1950'), unNumber('1950'), unNumber('19')]).toEqual(['1950', '1950', null]);
});
