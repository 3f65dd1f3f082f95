import { recordsCsv, recordsXlsx } from '@/formats/writeSheet';
import { fullNeedRun } from '@/services/planning/recompute';
import { cancelSheet } from '@/services/sheets/cancelSheet';
import { sheetKinds } from '@/services/sheets/kinds';
import { readRecordsOf } from '@/services/sheets/readRecords';
import { readExport } from '@/services/sheets/readTemplate';
import { removeRecords } from '@/services/sheets/removeRecords';
import { saveRecords } from '@/services/sheets/saveRecords';
import type { SheetName } from '@/services/sheets/sheetKind';
import { undoCommand } from '@/services/undo/undoCommand';
import { counts, preview } from './sheetSupport';
import { type Books, freshBooks, must, otto, req, violations } from './support';

/* Every kind of record that a company keeps, over the whole demo company: out, in again, taken away, brought back. */
let books: Books;
beforeAll(async () => {
  books = await freshBooks({ whole: true });
});
afterAll(async () => {
  await fullNeedRun(books.deps);
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const names = Object.keys(sheetKinds) as SheetName[];
/** Every kind as it is exported; of eighteen months of demand the first pages. */
const exported = async (name: SheetName) => {
  const { columns, rows } = must(await readExport(books.deps, otto, name));
  let csv = '';
  for await (const piece of recordsCsv(columns, rows)) {
    csv += piece;
    if (name === 'demand' && csv.length > MOST_OF_DEMAND) break;
  }
  return csv;
};
const MOST_OF_DEMAND = 500_000;
const lines = (csv: string) => csv.replace('\ufeff', '').trimEnd().split('\r\n').length - 1;
const letGo = async (previewed: Awaited<ReturnType<typeof preview>>) => {
  const { id: importId, version } = previewed.import;
  await cancelSheet(books.deps, otto, req({ importId, version }));
};

describe('what is on file comes out and goes in again unchanged', () => {
  test.each(names)('%s', async (name) => {
    const csv = await exported(name);
    const previewed = await preview(books, name, csv);
    // What lies beneath a quoted line break is one row.
    const { newRows, changedRows, unchangedRows, wrongRows } = previewed.import;
    expect([newRows, changedRows, wrongRows]).toEqual([0, 0, 0]);
    expect(unchangedRows).toBeLessThanOrEqual(lines(csv));
    if (lines(csv) > 0) expect(unchangedRows).toBeGreaterThan(0);
    await letGo(previewed);
  });

  test.each(['items', 'prices', 'charges', 'duty-rates', 'sale-prices'] as const)('%s as XLSX', async (name) => {
    const { columns, rows } = must(await readExport(books.deps, otto, name));
    const [none, changed, same, wrong] = counts(await preview(books, name, await recordsXlsx(columns, rows)));
    expect([none, changed, wrong]).toEqual([0, 0, 0]);
    expect(same).toBeGreaterThan(0);
  });

  test('the demo company has what it takes to look at all of it', async () => {
    const sizes = Object.fromEntries(await Promise.all(names.map(async (n) => [n, lines(await exported(n))] as const)));
    expect(sizes.items).toBeGreaterThan(590);
    expect(sizes.suppliers).toBe(18);
    for (const n of [
      'categories',
      'charges',
      'duty-rates',
      'tax-rates',
      'holidays',
      'closures',
      'contacts',
      'kits',
      'families',
    ])
      expect([n, (sizes[n] ?? 0) > 0]).toEqual([n, true]);
    const currencies = await books.rows<{ c: string }>('SELECT DISTINCT currency AS c FROM supplier ORDER BY c');
    expect(currencies.map((r) => r.c)).toEqual(['CHF', 'EUR', 'GBP', 'JPY', 'USD']);
  });
});

describe('what can be taken away can be brought back', () => {
  const removable = names.filter((n) => sheetKinds[n].remove);

  test.each(removable)('%s', async (name) => {
    const before = await exported(name);
    const view = must(await readRecordsOf(books.deps, otto, { sheet: name, which: 'all', decimal: '.' }));
    expect(view.removable).toBe(true);
    const record = view.records[0];
    if (!record) return;
    const request = req({ sheet: name, records: [{ cells: record.cells, seen: record.seen }] });
    const removed = await removeRecords(books.deps, otto, request);
    if (!removed.ok) {
      // What something else rests on stays, and says so.
      expect(removed.error).toMatchObject({ kind: 'wrong_rows', faults: [[{ kind: 'in_use' }]] });
      expect(await exported(name)).toBe(before);
      return;
    }
    expect(lines(await exported(name))).toBeLessThan(lines(before));
    must(await undoCommand(books.deps, otto, req({ undoKey: request.key })));
    const sorted = (csv: string) => csv.trimEnd().split('\r\n').sort();
    expect(sorted(await exported(name))).toEqual(sorted(before));
  });
});

describe('what a record can be wrong in', () => {
  const cases: [SheetName, Record<string, string>, string][] = [
    ['categories', { category: '' }, 'category:missing'],
    ['categories', { category: 'Yarn > Silk', buyer: 'nobody' }, 'buyer:not_on_file'],
    ['pack-patterns', { pattern: 'In bags', pack: 'bag', content: '0' }, 'content:out_of_range'],
    ['pack-patterns', { pattern: 'In bags', pack: 'bag', content: '10', of_pack: 'bag' }, 'of_pack:loop'],
    ['pack-patterns', { pattern: 'In bags', pack: 'bag', content: '10', unit: 'XYZ' }, 'unit:no_such_code'],
    ['sale-prices', { item: '10412-07', amount: '' }, 'amount:missing'],
    ['sale-prices', { item: '10412-07', pack: 'crate', amount: '5' }, 'pack:not_on_file'],
    ['sale-prices', { item: '10412-07', amount: '5', tax_rate: '119' }, 'tax_rate:out_of_range'],
    ['places', { item: '10412-07', location: 'XX', shelf: 'A' }, 'location:not_on_file'],
    ['places', { item: 'N00001', location: 'HS', straight: 'no', straight_supplier: 'HOL' }, 'straight:needs_other'],
    ['source-places', { item: '10412-07', supplier: 'TES', location: 'HS', rank: '1' }, 'supplier:not_on_file'],
    ['source-places', { item: '10412-07', supplier: 'HOL', location: 'HS', rank: '0' }, 'rank:out_of_range'],
    ['contacts', { supplier: 'HOL', name: 'Export', kind: 'order address' }, 'address:missing'],
    ['contacts', { supplier: 'HOL', name: 'Export', email: 'no mail' }, 'email:no_such_code'],
    ['shipping-ways', { name: '' }, 'name:missing'],
    ['reasons', { name: '' }, 'name:missing'],
    ['reasons', { name: 'Moth', own_use: 'perhaps' }, 'own_use:not_one_of'],
    ['shipping-ways', { name: 'x'.repeat(61) }, 'name:too_long'],
    ['charges', { name: 'Fee', amount_kind: 'fixed' }, 'amount:missing'],
    ['charges', { name: 'Fee', amount_kind: 'sometimes' }, 'amount_kind:not_one_of'],
    ['charges', { name: 'Fee', amount_kind: 'percent', amount: '5', on_charges: 'Fee' }, 'on_charges:loop'],
    ['charges', { name: 'Fee', amount_kind: 'fixed', amount: '5', on_charges: 'Sea freight' }, 'on_charges:not_one_of'],
    ['duty-rates', { hs_prefix: '5', percent: '1', valid_from: '2026-01-01' }, 'hs_prefix:no_such_code'],
    ['duty-rates', { hs_prefix: '51', origin: 'Japan', percent: '1', valid_from: '2026-01-01' }, 'origin:no_such_code'],
    [
      'duty-rates',
      { hs_prefix: '51', percent: '1', valid_from: '2026-02-01', valid_to: '2026-01-01' },
      'valid_to:above_other',
    ],
    [
      'rates',
      { currency: 'EUR', valid_from: '2026-01-01', direction: 'ours for one', rate: '1' },
      'currency:own_currency',
    ],
    ['barcodes', { code: '4006381333930', item: '10412-07' }, 'code:check_digit'],
    ['packs', { item: '10412-07', pack: 'hank', content: 'ten' }, 'content:not_a_number'],
  ];

  test.each(cases)('%s %j: %s', async (sheet, cells, fault) => {
    const before = await exported(sheet);
    const request = req({ sheet, records: [{ cells, seen: '' }], decimal: '.' as const });
    const result = await saveRecords(books.deps, otto, request);
    if (result.ok || result.error.kind !== 'wrong_rows') throw new Error(JSON.stringify(result));
    expect(result.error.faults[0]?.map((f) => `${f.column}:${f.kind}`)).toContain(fault);
    expect(await exported(sheet)).toBe(before);
  });

  test('a percentage counts only charges that come before it', async () => {
    const charge = (name: string, position: string, more: Record<string, string>) => ({
      cells: { supplier: 'HOL', name, position, ...more },
      seen: '',
    });
    const freight = charge('Lorry', '2', { amount_kind: 'fixed', amount: '20' });
    const early = charge('Insurance', '1', { amount_kind: 'percent', amount: '1', on_charges: 'Lorry' });
    const late = charge('Insurance', '3', { amount_kind: 'percent', amount: '1', on_charges: 'Lorry' });
    const save = (records: (typeof freight)[]) =>
      saveRecords(books.deps, otto, req({ sheet: 'charges', records, decimal: '.' as const }));
    expect((await save([freight, early])).ok).toBe(false);
    expect((await save([freight, late])).ok).toBe(true);
  });
});
