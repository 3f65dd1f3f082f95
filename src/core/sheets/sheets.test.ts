import fc from 'fast-check';
import { isOneSlipAway } from '@/core/search';
import {
  type Column,
  type Conventions,
  cellDate,
  cellNumber,
  changesOf,
  choiceColumn,
  codeColumn,
  dateColumn,
  dateEvidence,
  decimalColumn,
  decimalEvidence,
  matchHeadings,
  merged,
  neutralised,
  readRow,
  serialDate,
  textColumn,
  weekBits,
  weekText,
  wholeColumn,
  writeRow,
  yesNoColumn,
} from '.';

const point: Conventions = { decimal: '.', dates: 'ymd' };
const comma: Conventions = { decimal: ',', dates: 'dmy' };
const about = (title: string) => ({ title, explain: '', example: '' });
const columns: Column[] = [
  textColumn('number', 10, { ...about('Item number'), required: true, aliases: ['sku'] }),
  decimalColumn('price', { most: 1000 }, about('Price')),
  wholeColumn('rank', { least: 1, most: 9 }, about('Rank')),
  dateColumn('from', about('Valid from')),
  choiceColumn('kind', { a_b: 'A b', c: 'See' }, about('Kind')),
  yesNoColumn('used', { ...about('Used'), otherwise: true }),
  codeColumn('unit', 'unit', about('Unit')),
];
const mapping = columns.map((c) => c.key);
const one = (cells: (string | number)[], how = point) => readRow(columns, mapping, ['X', ...cells], how);
const faults = (cells: (string | number)[], how = point) => one(cells, how).faults.map((f) => [f.column, f.kind]);

describe('numbers', () => {
  test.each([
    ['1234.5', '.', '1234.5'],
    ['1,234.50', '.', '1234.5'],
    ['1.234,50', ',', '1234.5'],
    ['1 234,5', ',', '1234.5'],
    ['1\u202f234', ',', '1234'],
    ["1'234.5", '.', '1234.5'],
    ['.5', '.', '0.5'],
    ['007', '.', '7'],
    ['-3,0', ',', '-3'],
    ['-0', '.', '0'],
  ] as const)('%s with %s is %s', (text, mark, value) => {
    expect(cellNumber(text, mark, 6)).toEqual({ ok: true, value });
  });

  test.each([
    ['1.234,5', '.'],
    ['1,5', '.'],
    ['12,34,567', '.'],
    ['1e5', '.'],
    ['3 pcs', '.'],
    ['', '.'],
    ['1.2.3', '.'],
  ] as const)('%s with %s is none', (text, mark) => {
    expect(cellNumber(text, mark, 6)).toEqual({ ok: false, error: { kind: 'not_a_number', mark } });
  });

  test('more decimals than are kept are refused, zeros aside', () => {
    expect(cellNumber('1.1234567', '.', 6)).toMatchObject({ error: { kind: 'too_many_decimals', most: 6 } });
    expect(cellNumber('1.1234560', '.', 6)).toEqual({ ok: true, value: '1.123456' });
  });

  test('a number written in a convention reads back as itself in it, and shows which one it is', () => {
    const value = fc.tuple(fc.nat(9_999_999), fc.integer({ min: 1, max: 99 }));
    fc.assert(
      fc.property(value, fc.constantFrom('.' as const, ',' as const), ([whole, cents], mark) => {
        const other = mark === '.' ? ',' : '.';
        const grouped = String(whole).replace(/\B(?=(\d{3})+$)/g, other);
        const text = `${grouped}${mark}${String(cents).padStart(2, '0')}`;
        expect(cellNumber(text, mark, 2)).toEqual({
          ok: true,
          value: `${whole}.${String(cents).padStart(2, '0')}`.replace(/0$/, ''),
        });
        expect(decimalEvidence([text])).toMatchObject({ mark, certainty: 'sure' });
      }),
    );
  });
});

describe('evidence', () => {
  test.each([
    [['12', '7'], '.', 'nothing_to_tell'],
    [['1.234'], '.', 'open'],
    [['1.234', '0.5'], '.', 'sure'],
    [['1.234', '0,5'], ',', 'sure'],
    [['1.234.567'], ',', 'sure'],
    [['1234.567'], '.', 'sure'],
    [['1.5', '1,5'], '.', 'torn'],
    [['1,5', '2,25', '1.5'], ',', 'torn'],
    [['A.1', 'n/a'], '.', 'nothing_to_tell'],
  ] as const)('of %j: %s, %s', (cells, mark, certainty) => {
    expect(decimalEvidence(cells)).toMatchObject({ mark, certainty });
  });

  test.each([
    [['2026-12-03'], 'ymd', 'sure'],
    [['3.12.2026'], 'dmy', 'sure'],
    [['25/12/2026'], 'dmy', 'sure'],
    [['12/25/2026'], 'mdy', 'sure'],
    [['3/4/2026'], 'dmy', 'open'],
    [['25/12/2026', '12/25/2026'], 'dmy', 'torn'],
    [['soon'], 'ymd', 'nothing_to_tell'],
  ] as const)('of %j: %s, %s', (cells, order, certainty) => {
    expect(dateEvidence(cells)).toMatchObject({ order, certainty });
  });
});

describe('dates', () => {
  test.each([
    ['2026-12-03', 'dmy', '2026-12-03'],
    ['2026-12-03T00:00:00Z', 'dmy', '2026-12-03'],
    ['3.12.2026', 'dmy', '2026-12-03'],
    ['03/12/26', 'dmy', '2026-12-03'],
    ['12/3/2026', 'mdy', '2026-12-03'],
    ['2026/12/3', 'ymd', '2026-12-03'],
    ['30.2.2026', 'dmy', null],
    ['3.12/2026', 'dmy', null],
    ['tomorrow', 'dmy', null],
  ] as const)('%s as %s is %s', (text, order, date) => {
    expect(cellDate(text, order)).toEqual(
      date === null ? { ok: false, error: { kind: 'not_a_date', order } } : { ok: true, value: date },
    );
  });

  // Source: ECMA-376 part 1, 18.17.4.1: day 1 is 1 January 1900, and a 29 February 1900 is counted.
  test('day numbers of a workbook', () => {
    expect([serialDate(61), serialDate(36526), serialDate(46359.5)]).toEqual([
      '1900-03-01',
      '2000-01-01',
      '2026-12-03',
    ]);
  });
});

describe('rows', () => {
  test('are read by the convention of the file; numbers that a workbook gives as such by none', () => {
    const { values } = one(['1.234,5', '2', '3.12.2026', 'a B', 'x', 'metre'], comma);
    expect(one([], comma).faults).toEqual([]);
    expect(faults(['1.234,5', '2', '3.12.2026', 'a B', 'x', 'metre'], comma)).toEqual([['price', 'out_of_range']]);
    expect(values).toEqual({ number: 'X', rank: 2, from: '2026-12-03', kind: 'a_b', used: true, unit: 'MTR' });
    expect(one([12.5, 3, 46359], comma).values).toMatchObject({ price: '12.5', rank: 3, from: '2026-12-03' });
    expect(one([1e-7]).faults).toMatchObject([{ kind: 'too_many_decimals' }]);
  });

  test('every faulty cell is named with what stands there', () => {
    expect(readRow(columns, mapping, ['', 'abc', '1.5', 'x', 'z', 'maybe', 'QQQ'], point).faults).toMatchObject([
      { column: 'number', kind: 'missing', text: '' },
      { column: 'price', kind: 'not_a_number', text: 'abc' },
      { column: 'rank', kind: 'too_many_decimals', most: 0 },
      { column: 'from', kind: 'not_a_date' },
      { column: 'kind', kind: 'not_one_of', choices: ['A b', 'See'] },
      { column: 'used', kind: 'not_one_of' },
      { column: 'unit', kind: 'no_such_code', what: 'unit' },
    ]);
    expect(faults(['=1+1'])).toEqual([['price', 'formula']]);
    expect(readRow(columns, mapping, ['12345678901'], point).faults).toMatchObject([{ kind: 'too_long', most: 10 }]);
    expect(readRow(columns, mapping, ['a\u0000b'], point).faults).toMatchObject([{ kind: 'unprintable' }]);
    expect(readRow(columns, [null, 'price'], ['X', '1'], point).faults).toMatchObject([
      { column: 'number', kind: 'missing' },
    ]);
  });

  test('what a spreadsheet would run is written so that it does not, and reads back as it was', () => {
    expect([
      neutralised('=1+1'),
      neutralised('+49 417'),
      neutralised('-x'),
      neutralised('@a'),
      neutralised('-5'),
    ]).toEqual(["'=1+1", "'+49 417", "'-x", "'@a", '-5']);
    const text = fc.stringMatching(/^[=+@\-a-z0-9"',; ]{1,9}$/).filter((t) => t.trim() === t && !/^'[=+\-@]/.test(t));
    fc.assert(
      fc.property(text, (number) => {
        const [cell] = writeRow(columns, { number }, point);
        expect(readRow(columns, ['number'], [cell as string], point)).toEqual({ values: { number }, faults: [] });
      }),
    );
  });

  test('what is written reads back the same in either convention', () => {
    const record = fc.record({
      number: fc.stringMatching(/^[A-Z0-9]{1,9}$/),
      price: fc.integer({ min: 0, max: 999_999 }).map((n) => String(n / 1000)),
      rank: fc.integer({ min: 1, max: 9 }),
      from: fc.integer({ min: 40_000, max: 50_000 }).map(serialDate),
      kind: fc.constantFrom('a_b', 'c'),
      used: fc.boolean(),
      unit: fc.constantFrom('C62', 'MTR', 'KGM'),
    });
    fc.assert(
      fc.property(record, fc.constantFrom(point, comma), (values, how) => {
        expect(readRow(columns, mapping, writeRow(columns, values, how), how)).toEqual({ values, faults: [] });
      }),
    );
  });

  test('empty and absent: an empty cell empties, a column that is not there leaves alone', () => {
    const kept = { number: 'X', price: '5', rank: 2, from: null, kind: 'c', used: false, unit: '' };
    expect(changesOf(kept, { number: 'X', price: null, unit: null })).toEqual([
      { column: 'price', before: '5', after: null },
    ]);
    expect(merged(columns, kept, { price: '6' })).toEqual({ ...kept, price: '6' });
    expect(merged(columns, null, { number: 'N' })).toMatchObject({ number: 'N', used: true, rank: null, unit: '' });
  });
});

describe('headings', () => {
  test('match by title, key or another name, whatever the capitals, breaks and one slip', () => {
    expect(matchHeadings(columns, ['SKU', 'PRICE (EUR)', 'valid-from', 'Knd', 'other'])).toEqual([
      'number',
      'price',
      'from',
      null,
      null,
    ]);
    expect(matchHeadings(columns, ['Item numbr', 'Price', 'price'])).toEqual(['number', 'price', null]);
  });

  // Source: Damerau (1964): one wrong, missing, extra or swapped letter.
  test.each([
    ['moss', 'moss', true],
    ['suplier', 'supplier', true],
    ['supplierr', 'supplier', true],
    ['suppleir', 'supplier', true],
    ['supplian', 'supplier', false],
    ['sup', 'supplier', false],
    ['ab', 'ba', true],
    ['abcd', 'badc', false],
  ])('%s and %s: %s', (a, b, near) => {
    expect([isOneSlipAway(a, b), isOneSlipAway(b, a)]).toEqual([near, near]);
  });
});

describe('weekdays', () => {
  test('are read in words and written so that they read back', () => {
    expect(['Mon-Fri', 'tuesday, Thursday', 'Sat-Mon', 'daily', 'none', 'Mon Wed-Fri'].map((t) => weekBits(t))).toEqual(
      [31, 10, 97, 127, 0, 29].map((value) => ({ ok: true, value })),
    );
    expect(weekBits('Monday-ish').ok).toBe(false);
    for (let bits = 0; bits < 128; bits += 1) expect(weekBits(weekText(bits))).toEqual({ ok: true, value: bits });
  });
});
