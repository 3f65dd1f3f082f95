import fc from 'fast-check';
import { dateColumn, decimalColumn, textColumn, type Values, yesNoColumn } from '@/core/sheets';
import { type CsvShape, csvRows, csvShape, writeCsv } from './csv';
import { limits } from './fault';
import { dataRows, type NumberedRow, openSheet, surveySheet } from './readSheet';
import { recordsCsv, recordsXlsx, templateCsv, templateXlsx } from './writeSheet';
import { unzip } from './zip';

/** A file that comes in pieces of so many bytes. */
const inPieces = (file: Uint8Array, size = 7) =>
  async function* () {
    for (let at = 0; at < file.length; at += size) yield file.subarray(at, at + size);
  };
const utf8 = (text: string) => Buffer.from(text, 'utf8');
const shapeOf = (file: Uint8Array, size?: number) => csvShape(inPieces(file, size));
async function rowsOf(file: Uint8Array, size?: number): Promise<string[][]> {
  const shape = await shapeOf(file, size);
  if (!shape.ok) throw new Error(shape.error.kind);
  const all: string[][] = [];
  for await (const some of csvRows(inPieces(file, size), shape.value)) all.push(...some);
  return all;
}
async function opened(file: Uint8Array) {
  const sheet = await openSheet(inPieces(file, 4096));
  if (!sheet.ok) throw new Error(sheet.error.kind);
  return sheet.value;
}
async function numbered(file: Uint8Array): Promise<NumberedRow[]> {
  const all: NumberedRow[] = [];
  for await (const some of dataRows(await opened(file))) all.push(...some);
  return all;
}
async function* page(...records: Values[]) {
  yield records;
}

describe('how a CSV file is written', () => {
  test.each<[string, Buffer, CsvShape]>([
    ['plain', utf8('a,b\n1,2\n'), { encoding: 'utf-8', bom: false, separator: ',' }],
    ['with its mark', utf8('\ufeffa;b\n1;2\n'), { encoding: 'utf-8', bom: true, separator: ';' }],
    ['tabs', utf8('a\tb\n1\t2,5\n'), { encoding: 'utf-8', bom: false, separator: '\t' }],
    ['bars', utf8('a|b|c\n1|2|3\n'), { encoding: 'utf-8', bom: false, separator: '|' }],
    [
      'decimal commas among semicolons',
      utf8('a;b\n1,5;2,5\n3,5;4,5\n'),
      { encoding: 'utf-8', bom: false, separator: ';' },
    ],
    ['separators in quotes', utf8('a;b\n"1,2,3";"x,y"\n'), { encoding: 'utf-8', bom: false, separator: ';' }],
    ['one column', utf8('a\n1\n'), { encoding: 'utf-8', bom: false, separator: ',' }],
    ['UTF-16', Buffer.from('\ufeffa;b\n1;2\n', 'utf16le'), { encoding: 'utf-16le', bom: true, separator: ';' }],
    [
      'Windows-1252, where 0x80 is the euro sign',
      Buffer.from([0x61, 0x2c, 0x80, 0x0a]),
      { encoding: 'windows-1252', bom: false, separator: ',' },
    ],
    [
      'cut off in the middle of a letter',
      utf8('a,b\n1,é').subarray(0, -1),
      { encoding: 'windows-1252', bom: false, separator: ',' },
    ],
  ])('%s', async (_, file, shape) => {
    for (const size of [1, 3, 1000]) expect(await shapeOf(file, size)).toEqual({ ok: true, value: shape });
  });

  test('nothing, and what is no text, is said to be so', async () => {
    expect(await shapeOf(utf8(''))).toEqual({ ok: false, error: { kind: 'empty' } });
    expect(await shapeOf(Buffer.from([0x61, 0x00, 0x62]))).toEqual({ ok: false, error: { kind: 'binary' } });
  });

  test('a quote that is never closed is found by the row that runs on', async () => {
    const file = utf8(`a,b\n1,2\n"never closed,${'x,y\n'.repeat(limits.rowLength / 4 + 10)}`);
    expect(await shapeOf(file, 64_000)).toEqual({ ok: false, error: { kind: 'row_too_long', row: 3 } });
    // An inch mark within a cell opens nothing.
    expect((await shapeOf(utf8(`a,b\n${'zip 5" long,2\n'.repeat(20_000)}`), 64_000)).ok).toBe(true);
  });
});

describe('rows of a CSV file', () => {
  // RFC 4180, section 2: the rules by their numbers.
  test.each<[string, string, string[][]]>([
    [
      '1: each record on a line of its own',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '2: the last may lack its line end',
      'aaa,bbb,ccc\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '5: fields in double quotes or not',
      '"aaa","bbb","ccc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'bbb', 'ccc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    [
      '6: line breaks and commas within quotes',
      '"aaa","b\r\nbb","c,cc"\r\nzzz,yyy,xxx',
      [
        ['aaa', 'b\r\nbb', 'c,cc'],
        ['zzz', 'yyy', 'xxx'],
      ],
    ],
    ['7: a double quote is doubled', '"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]],
  ])('RFC 4180 rule %s', async (_, text, rows) => {
    for (const size of [1, 2, 5, 1000])
      expect((await rowsOf(utf8(text), size)).filter((r) => r.join('') !== '')).toEqual(rows);
  });

  test('lines end in LF, in CRLF, or in CR alone', async () => {
    const rows = [
      ['number', 'name'],
      ['A1', 'one'],
      ['A2', 'two'],
    ];
    for (const end of ['\n', '\r\n', '\r'])
      for (const size of [1, 3, 14, 15, 1000])
        expect(await rowsOf(utf8(rows.map((r) => r.join(',') + end).join('')), size)).toEqual(rows);
  });

  test('letters beyond ASCII come right in every encoding, wherever the file is cut', async () => {
    for (const size of [1, 2, 3, 4]) {
      expect((await rowsOf(utf8('\ufeffGröße,Žlutý\nä,€\n'), size)).slice(0, 2)).toEqual([
        ['Größe', 'Žlutý'],
        ['ä', '€'],
      ]);
      const two = Buffer.from('\ufeffGröße,Žlutý\nä,€\n', 'utf16le');
      expect((await rowsOf(two, size))[1]).toEqual(['ä', '€']);
      const latin = Buffer.from([0x47, 0x72, 0xf6, 0xdf, 0x65, 0x2c, 0x80, 0x0a, 0x31, 0x2c, 0x99]);
      expect((await rowsOf(latin, size)).slice(0, 2)).toEqual([
        ['Größe', '€'],
        ['1', '™'],
      ]);
    }
  });

  test('what is written is read back the same, in pieces of any size', async () => {
    const cell = fc.oneof(fc.stringMatching(/^[a-z0-9 ,;"\n]{0,12}$/), fc.constantFrom('', '"', '""', 'a\r\nb', "'=1"));
    const table = fc
      .array(fc.tuple(cell, cell, cell), { minLength: 1, maxLength: 12 })
      // A line of nothing is not a record.
      .map((rows) => [['one', 'two', 'three'], ...rows.map((r) => [`x${r[0]}`, r[1], r[2]])]);
    await fc.assert(
      fc.asyncProperty(table, fc.integer({ min: 1, max: 40 }), async (rows, size) => {
        const file = utf8(writeCsv(rows));
        const shape: CsvShape = { encoding: 'utf-8', bom: true, separator: ',' };
        const read: string[][] = [];
        for await (const some of csvRows(inPieces(file, size), shape)) read.push(...some);
        expect(read.filter((r) => r.length === 3)).toEqual(rows);
      }),
      { numRuns: 150 },
    );
  });
});

describe('a spreadsheet', () => {
  test('is recognised by what is in it; rows keep their numbers, empty ones are passed over', async () => {
    const file = utf8('number,name\n\n# what it is,remark\nA1,one\n,\n ,\t\nA2,two,,,\n');
    expect(await numbered(file)).toEqual([
      { rowNo: 4, cells: ['A1', 'one'] },
      { rowNo: 7, cells: ['A2', 'two', '', '', ''] },
    ]);
    const survey = await surveySheet(await opened(file), 1);
    expect(survey).toEqual({
      ok: true,
      value: { headings: ['number', 'name'], headingRow: 1, sample: [['A1', 'one']], rows: 2 },
    });
  });

  test.each<[string, Buffer, string]>([
    ['nothing', utf8(''), 'empty'],
    ['the container of old and of encrypted workbooks', Buffer.from('d0cf11e0a1b11ae1', 'hex'), 'old_format'],
    ['a packed file that is cut off', Buffer.from('504b0304140000', 'hex'), 'damaged'],
    ['a picture', Buffer.from('89504e470d0a1a0a0000000d', 'hex'), 'binary'],
  ])('%s is refused', async (_, file, kind) => {
    expect(await openSheet(inPieces(file))).toMatchObject({ ok: false, error: { kind } });
  });

  test('only a heading, too many columns: said with the measure', async () => {
    expect(await surveySheet(await opened(utf8('a,b\n')), 5)).toEqual({ ok: false, error: { kind: 'no_rows' } });
    const wide = utf8(`${Array.from({ length: limits.columns + 1 }, (_, i) => `c${i}`).join(',')}\n1\n`);
    expect(await surveySheet(await opened(wide), 5)).toEqual({
      ok: false,
      error: { kind: 'too_many_columns', columns: limits.columns + 1, most: limits.columns },
    });
    // Empty columns at the end count for nothing.
    const trailing = utf8(`a,b${','.repeat(limits.columns + 50)}\n1,2\n`);
    expect(await surveySheet(await opened(trailing), 5)).toMatchObject({ value: { headings: ['a', 'b'] } });
  });
});

describe('our own files', () => {
  const about = (title: string) => ({ title, explain: `What ${title} is.`, example: 'x' });
  const columns = [
    textColumn('number', 40, { ...about('Number'), required: true }),
    decimalColumn('price', { least: -1e15, most: 1e15 }, about('Price')),
    dateColumn('from', about('From')),
    yesNoColumn('used', about('Used')),
  ];
  const records: Values[] = [
    { number: '00712', price: '3.5', from: '2026-02-28', used: true },
    { number: '=SUM(A1)', price: '-0.000001', from: null, used: false },
    { number: 'Größe "5", neu', price: '123456789012.123456', from: '1999-12-31', used: null },
  ];

  test('a workbook has numbers and dates as such, numbers as text keep their zeros, nothing can run', async () => {
    const file = await recordsXlsx(columns, page(...records));
    const sheet = await opened(file);
    expect([sheet.format, sheet.formulas]).toEqual(['xlsx', 0]);
    expect((await numbered(file)).map((r) => r.cells)).toEqual([
      ['00712', 3.5, '2026-02-28', 'yes'],
      ["'=SUM(A1)", -0.000001, '', 'no'],
      // More digits than a spreadsheet keeps: as text.
      ['Größe "5", neu', '123456789012.123456', '1999-12-31', ''],
    ]);
  });

  test('as CSV the same stands there in words', async () => {
    let text = '';
    for await (const piece of recordsCsv(columns, page(...records))) text += piece;
    expect(text).toBe(
      '\ufeffNumber,Price,From,Used\r\n00712,3.5,2026-02-28,yes\r\n' +
        `'=SUM(A1),-0.000001,,no\r\n"Größe ""5"", neu",123456789012.123456,1999-12-31,\r\n`,
    );
  });

  test('a template explains each column and is no data', async () => {
    const csv = utf8(templateCsv(columns));
    expect((await rowsOf(csv))[1]).toEqual([
      '# needed. What Number is.',
      'What Price is.',
      'What From is.',
      'What Used is.',
    ]);
    for (const file of [csv, await templateXlsx(columns)]) {
      expect(await numbered(file)).toEqual([]);
      expect(await surveySheet(await opened(file), 5)).toEqual({ ok: false, error: { kind: 'no_rows' } });
    }
  });

  test('a workbook is a ZIP of parts (ECMA-376 part 2), and every part is unpacked', async () => {
    const parts = unzip(await recordsXlsx(columns, page(...records)));
    if (!parts.ok) throw new Error(parts.error.kind);
    const names = parts.value.map((p) => p.name);
    expect(names).toContain('[Content_Types].xml');
    expect(names).toContain('xl/workbook.xml');
    expect(names.some((n) => /^xl\/worksheets\/.*\.xml$/.test(n))).toBe(true);
    for (const part of parts.value) expect(part.content.length).toBeGreaterThan(0);
  });

  test('a ZIP that lies about itself, or is cut, is damaged and nothing worse', async () => {
    const file = await recordsXlsx(columns, page(...records));
    for (let cut = 1; cut < 60; cut += 7) expect(unzip(file.subarray(0, -cut)).ok).toBe(false);
    for (const at of [0, 10, 20]) {
      const end = file.length - 22 + at;
      const lying = Buffer.from(file);
      lying.fill(0xff, end, Math.min(end + 4, file.length));
      const read = unzip(lying);
      if (!read.ok) expect(['damaged', 'encrypted', 'unpacks_too_large']).toContain(read.error.kind);
    }
  });
});
