import { createHash } from 'node:crypto';
import { openSheet, surveySheet } from '@/formats/readSheet';
import { cancelSheet } from '@/services/sheets/cancelSheet';
import { mapSheet } from '@/services/sheets/mapSheet';
import { TIMES } from '../campaign';
import { boss, bring, detail, work } from '../services/sheetSupport';
import { type Books, freshBooks, must, req, violations } from '../services/support';
import { hostileFile } from './hostile';

const FILES = 2000 * TIMES;
const MOST_MS = 5000;

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
  await work(books);
});
afterAll(() => books.close());

const tables = ['item', 'pack', 'supplier', 'source', 'price', 'location', 'policy', 'level', 'movement', 'barcode'];
/** Everything that a spreadsheet could change. */
async function print(): Promise<string> {
  const hash = createHash('sha256');
  for (const table of tables) hash.update(JSON.stringify(await books.rows(`SELECT * FROM ${table} ORDER BY 1, 2, 3`)));
  return hash.digest('hex');
}

// Whatever is brought: no crash, no file that keeps anybody waiting, and nothing changes before somebody says so.
test(`${FILES} hostile files are read or refused, each in time`, async () => {
  const outcomes = new Map<string, number>();
  let slowest = { ms: 0, n: -1 };
  for (let n = 0; n < FILES; n += 1) {
    const file = hostileFile(n);
    const started = performance.now();
    const opened = await openSheet(async function* () {
      for (let from = 0; from < file.length; from += 1000) yield file.subarray(from, from + 1000);
    });
    const survey = opened.ok ? await surveySheet(opened.value, 100) : opened;
    const ms = performance.now() - started;
    if (ms > slowest.ms) slowest = { ms, n };
    const outcome = survey.ok ? 'read' : survey.error.kind;
    outcomes.set(outcome, (outcomes.get(outcome) ?? 0) + 1);
  }
  expect(slowest.ms).toBeLessThan(MOST_MS);
  // The files are what they are meant to be: many are read, and every way of refusing happens.
  expect(outcomes.get('read')).toBeGreaterThan(FILES / 4);
  for (const kind of [
    'binary',
    'damaged',
    'no_rows',
    'too_many_columns',
    'entities',
    'unpacks_too_large',
    'too_many_rows',
  ])
    expect([kind, (outcomes.get(kind) ?? 0) > 0]).toEqual([kind, true]);
});

test(
  'those that can be read go through the whole check, and nothing changes',
  async () => {
    const before = await print();
    const kinds = ['items', 'suppliers', 'prices', 'policies', 'opening-stock', 'barcodes', 'demand'];
    let [checked, wrong, fine] = [0, 0, 0];
    for (let n = 0; n < FILES; n += 1) {
      const kind = kinds[n % kinds.length] as string;
      const brought = await bring(books, kind, hostileFile(n));
      if (!brought.reading) continue;
      const { id: importId, version } = brought.import;
      // Mapped by force: whatever stands there is taken for what is needed.
      const needed = brought.columns.filter((c) => c.required).map((c) => c.key);
      const others = brought.columns.filter((c) => !c.required).map((c) => c.key);
      const mapping = brought.reading.found.headings.map((_, i) => [...needed, ...others][i] ?? null);
      const said = {
        importId,
        version,
        mapping,
        decimal: n % 2 === 0 ? ('.' as const) : (',' as const),
        dates: 'dmy' as const,
      };
      if (!(await mapSheet(books.deps, boss, req(said))).ok) continue;
      await work(books);
      const done = await detail(books, importId);
      expect(done.import.state).toBe('checked');
      checked += 1;
      wrong += done.import.wrongRows;
      fine += done.import.newRows;
      must(await cancelSheet(books.deps, boss, req({ importId, version: done.import.version })));
    }
    expect(checked).toBeGreaterThan(100);
    expect(wrong).toBeGreaterThan(checked);
    expect(fine).toBeGreaterThan(0);
    expect(await print()).toBe(before);
    expect(await violations(books)).toEqual([]);
    expect(await books.rows("SELECT id, kind, fault FROM job WHERE state = 'failed' OR attempts > 1")).toEqual([]);
  },
  300_000 * TIMES,
);
