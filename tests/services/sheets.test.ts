import { recordsCsv, recordsXlsx, templateCsv, templateXlsx } from '@/formats/writeSheet';
import { readExport, readTemplate } from '@/services/sheets/readTemplate';
import { sheetNames } from '@/services/sheets/sheetKind';
import { apply, bring, counts, detail, preview, work } from './sheetSupport';
import { type Books, freshBooks, must, otto, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
  await work(books);
});
afterAll(() => books.close());

async function exported(kind: string): Promise<string> {
  const { columns, rows } = must(await readExport(books.deps, otto, kind));
  let text = '';
  for await (const piece of recordsCsv(columns, rows)) text += piece;
  return text;
}

describe('what is on file comes out and goes in again unchanged', () => {
  test.each(sheetNames)('%s as CSV', async (kind) => {
    const text = await exported(kind);
    const rows = text.trim().split('\r\n').length - 1;
    if (rows === 0) return;
    const seen = await preview(books, kind, text);
    expect(seen.rows).toEqual([]);
    expect(counts(seen)).toEqual([0, 0, rows, 0]);
  });

  test.each(['items', 'prices', 'opening-stock', 'policies'])('%s as XLSX', async (kind) => {
    const { columns, rows } = must(await readExport(books.deps, otto, kind));
    const seen = await preview(books, kind, await recordsXlsx(columns, rows));
    expect(seen.rows).toEqual([]);
    expect(counts(seen).slice(0, 2)).toEqual([0, 0]);
    expect(seen.import.unchangedRows).toBeGreaterThan(20);
  });
});

describe('templates', () => {
  test.each(sheetNames)('the template of %s is recognised column by column; its remarks are no rows', async (kind) => {
    const { columns } = must(readTemplate(otto, kind));
    for (const file of [Buffer.from(templateCsv(columns)), await templateXlsx(columns)]) {
      const brought = await bring(books, kind, file);
      expect(brought.refusal).toEqual({ file: { kind: 'no_rows' } });
    }
    const example = `${columns.map((c) => c.title).join(';')}\n${columns.map((c) => c.example).join(';')}\n`;
    const brought = await bring(books, kind, example);
    expect(brought.reading?.proposed.mapping).toEqual(columns.map((c) => c.key));
  });
});

test('nothing is violated', async () => {
  expect(await violations(books)).toEqual([]);
  expect(typeof apply).toBe('function');
  expect(typeof detail).toBe('function');
});
