import fc from 'fast-check';
import {
  type Column,
  type Conventions,
  codeColumn,
  dateColumn,
  decimalColumn,
  incoterms,
  moneyColumn,
  textColumn,
  weekColumn,
  wholeColumn,
  yesNoColumn,
} from '.';

const point: Conventions = { decimal: '.', dates: 'ymd' };
const comma: Conventions = { decimal: ',', dates: 'dmy' };
const about = { title: 'T', explain: '', example: '' };
const read = (column: Column, text: string, how = point) => {
  const r = column.read(text, how);
  return r.ok ? r.value : r.error.kind;
};

describe('codes of published lists', () => {
  const column = (what: Parameters<typeof codeColumn>[1]) => codeColumn('c', what, about);

  test.each([
    // UN/ECE Recommendation 20: a unit by its code, by a name or sign that only it has.
    ['unit', 'mtr', 'MTR'],
    ['unit', 'MTR', 'MTR'],
    ['unit', 'metre', 'MTR'],
    ['unit', 'KGM', 'KGM'],
    ['unit', 'fathom of fog', 'no_such_code'],
    // ISO 4217.
    ['currency', 'jpy', 'JPY'],
    ['currency', 'EUR', 'EUR'],
    ['currency', 'XQZ', 'no_such_code'],
    ['currency', '€', 'no_such_code'],
    // ISO 3166-1 alpha-2.
    ['country', 'jp', 'JP'],
    ['country', 'Japan', 'no_such_code'],
    // Harmonised System: six digits and more, with or without points.
    ['hs', '5109.10', '510910'],
    ['hs', '51', 'no_such_code'],
    // UN numbers of dangerous goods: four digits.
    ['un_number', '1950', '1950'],
    ['un_number', 'UN 1950', '1950'],
    ['un_number', '19500', 'no_such_code'],
    ['incoterm', 'dap', 'DAP'],
    // Gone since Incoterms 2020, where DPU took its place.
    ['incoterm', 'DAT', 'no_such_code'],
    ['mail', 'orders@hol.example', 'orders@hol.example'],
    ['mail', 'orders@hol.example, other@hol.example', 'no_such_code'],
    ['mail', 'Orders <orders@hol.example>', 'no_such_code'],
  ] as const)('%s %s is %s', (what, text, value) => expect(read(column(what), text)).toBe(value));

  test('Incoterms 2020 has eleven rules', () => {
    expect(new Set(incoterms).size).toBe(11);
  });
});

describe('numbers', () => {
  test('are kept within their bounds, which belong to them', () => {
    const column = decimalColumn('n', { least: -2, most: 10, decimals: 2 }, about);
    expect(['-2', '10', '-2.01', '10.01', '1.234', 'ten'].map((t) => read(column, t))).toEqual([
      '-2',
      '10',
      'out_of_range',
      'out_of_range',
      'too_many_decimals',
      'not_a_number',
    ]);
    const whole = wholeColumn('n', { least: 1, most: 99 }, about);
    expect(['1', '99', '0', '100', '1.5', '007'].map((t) => read(whole, t))).toEqual([
      1,
      99,
      'out_of_range',
      'out_of_range',
      'too_many_decimals',
      7,
    ]);
  });

  test('written in either convention they are the same number', () => {
    const column = decimalColumn('n', { least: -1e9, most: 1e9 }, about);
    fc.assert(
      fc.property(fc.integer({ min: -1e14, max: 1e14 }), (millionths) => {
        const sign = millionths < 0 ? '-' : '';
        const digits = String(Math.abs(millionths)).padStart(7, '0');
        const value = read(column, `${sign}${digits.slice(0, -6)}.${digits.slice(-6)}`);
        for (const how of [point, comma]) expect(read(column, column.write(value as string, how), how)).toBe(value);
        expect(Number(value)).toBeCloseTo(millionths / 1e6, 6);
      }),
    );
  });
});

describe('days', () => {
  const column = dateColumn('d', about);
  test.each([
    ['2026-02-29', point, 'not_a_date'],
    ['2028-02-29', point, '2028-02-29'],
    ['29.2.2028', comma, '2028-02-29'],
    ['3/12/26', comma, '2026-12-03'],
    ['12/3/26', { decimal: '.', dates: 'mdy' } as Conventions, '2026-12-03'],
    ['2026-11-25T08:15:00Z', comma, '2026-11-25'],
    ['25.11/2026', comma, 'not_a_date'],
    ['25.11.026', comma, 'not_a_date'],
    ['tomorrow', comma, 'not_a_date'],
  ])('%s', (text, how, value) => expect(read(column, text, how)).toBe(value));

  test('every day of a century reads back from either way of writing it', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 36_524 }), (n) => {
        const iso = new Date(Date.UTC(2000, 0, 1) + n * 86_400_000).toISOString().slice(0, 10);
        const [y, m, d] = iso.split('-');
        expect(read(column, `${d}.${m}.${y}`, comma)).toBe(iso);
        expect(read(column, `${Number(m)}/${Number(d)}/${y}`, { decimal: '.', dates: 'mdy' })).toBe(iso);
        expect(read(column, iso, comma)).toBe(iso);
      }),
    );
  });
});

describe('words', () => {
  test('a text is measured and has nothing in it that can’t be printed', () => {
    const column = textColumn('t', 5, about);
    expect(['abcde', 'abcdef', 'a\u0007b', 'a\ufffdb', 'a\r\nb'].map((t) => read(column, t))).toEqual([
      'abcde',
      'too_long',
      'unprintable',
      'unprintable',
      'a\nb',
    ]);
    expect([column.otherwise, textColumn('t', 5, { ...about, required: true }).otherwise]).toEqual(['', null]);
  });

  test('money has its cents when it has any; it reads back the same', () => {
    const column = moneyColumn('n', { most: 1e9 }, about);
    const written = ['39.9', '39', '39.95', '0.125'].map((v) => column.write(v, comma));
    expect(written).toEqual(['39,90', '39', '39,95', '0,125']);
    expect(written.map((text) => read(column, text, comma))).toEqual(['39.9', '39', '39.95', '0.125']);
  });

  test('yes and no in the ways people write them', () => {
    const column = yesNoColumn('y', about);
    expect(['Yes', 'y', 'TRUE', '1', 'x'].map((t) => read(column, t))).toEqual([true, true, true, true, true]);
    expect(['No', 'n', 'false', '0'].map((t) => read(column, t))).toEqual([false, false, false, false]);
    expect(read(column, 'perhaps')).toBe('not_one_of');
  });

  test('days of the week, over the end of the week too', () => {
    const column = weekColumn('w', about);
    expect(
      ['Mon-Fri', 'fri - mon', 'Sat, Sun', 'daily', 'none', 'weekly', 'Mon-Wed-Fri'].map((t) => read(column, t)),
    ).toEqual([0b0011111, 0b1110001, 0b1100000, 127, 0, 'not_one_of', 'not_one_of']);
    for (let bits = 0; bits < 128; bits += 1) expect(read(column, column.write(bits, point))).toBe(bits);
  });
});
