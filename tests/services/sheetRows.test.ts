import { addDays } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { defaultsOf, type Values } from '@/core/sheets';
import { type Handler, handlers } from '@/jobs/handlers';
import { workOnce } from '@/jobs/worker';
import { openItems, readItem } from '@/services/catalogue/readItems';
import { readSupplier } from '@/services/catalogue/readSuppliers';
import { findInList } from '@/services/lists/findInList';
import { foundCompany } from '@/services/people/foundCompany';
import { readFind } from '@/services/people/readFind';
import { beginDay } from '@/services/planning/recompute';
import { applySheet } from '@/services/sheets/applySheet';
import { cancelSheet } from '@/services/sheets/cancelSheet';
import { mapSheet } from '@/services/sheets/mapSheet';
import { readFaultyRows, readImport, readImports } from '@/services/sheets/readImports';
import { readExport, readTemplate } from '@/services/sheets/readTemplate';
import { uploadSheet } from '@/services/sheets/uploadSheet';
import { newcomer } from '../newcomer';
import { apply, boss, bring, counts, detail, preview, work } from './sheetSupport';
import { type Books, freshBooks, jun, mira, must, req, violations } from './support';

let books: Books;
const owner = {
  ...{ company: 'Tansy & Thread', currency: 'EUR', timeZone: 'Europe/Berlin' },
  ...{ login: 'wilma', name: 'Wilma Tansy', password: 'thimble and thread' },
};
beforeAll(async () => {
  books = await freshBooks({ seed: false });
});
afterAll(() => books.close());

const said = (d: Awaited<ReturnType<typeof preview>>) =>
  d.rows.map((r) => [r.rowNo, ...r.faults.map((f) => `${f.column}:${f.kind}`)]);

describe('a company on its first day', () => {
  test('is founded once, by whoever has the code; nothing happens before', async () => {
    await work(books);
    const found = (right: boolean, more = {}) => foundCompany(books.deps, right, { ...owner, ...more });
    expect(await found(false)).toMatchObject({ error: { kind: 'wrong_code' } });
    expect(await found(true, { password: 'short' })).toMatchObject({ error: { field: 'password' } });
    expect(await found(true, { currency: 'XXQ' })).toMatchObject({ error: { field: 'currency' } });
    expect(await found(true, { timeZone: 'Moon/Base' })).toMatchObject({ error: { field: 'timeZone' } });
    expect(await found(true, { login: 'Wilma T' })).toMatchObject({ error: { field: 'login' } });
    const both = await Promise.all([found(true), found(true)]);
    expect(both.filter((r) => r.ok)).toHaveLength(1);
    expect(both.find((r) => !r.ok)).toMatchObject({ error: { kind: 'already_founded' } });
    expect(await books.rows('SELECT login, role FROM app_user')).toEqual([{ login: 'wilma', role: 'owner' }]);
    expect(await books.rows('SELECT kind FROM location')).toEqual([{ kind: 'transit' }]);
  });

  test('brings its files in order; faulty rows stay out and say why', async () => {
    const outcome: Record<string, number[]> = {};
    for (const [kind, content] of Object.entries(newcomer)) {
      const previewed = await preview(books, kind, content as string | Buffer);
      outcome[kind] = counts(previewed);
      if (kind === 'items')
        expect(said(previewed)).toEqual([
          [5, 'unit:no_such_code'],
          [6, 'sale_price:not_a_number'],
        ]);
      expect((await apply(books, previewed)).import.state).toBe('applied');
    }
    expect(outcome).toEqual({
      locations: [2, 0, 0, 0],
      suppliers: [2, 0, 0, 0],
      items: [4, 0, 0, 2],
      packs: [3, 0, 0, 0],
      sources: [4, 0, 0, 0],
      prices: [5, 0, 0, 0],
      'opening-stock': [5, 0, 0, 0],
    });
    const olm = await books.one(
      'SELECT name, order_minimum_minor AS minimum, order_days AS days, lead_time_kind AS kind FROM supplier WHERE code = ?',
      ['OLM'],
    );
    expect(olm).toEqual({ name: 'Olmbrücke Garne', minimum: 15000, days: 31, kind: 'working' });
    const ash = await books.one(
      `SELECT i.unit_name AS unit, c.name AS category, p.name AS pack, i.sale_price AS price FROM item i
         JOIN category c ON c.id = i.category_id LEFT JOIN pack p ON p.id = i.usual_buy_pack_id WHERE i.number = '0701'`,
    );
    expect(ash).toEqual({ unit: 'ball', category: 'Wool', pack: 'bag', price: '6.500000' });
    // What a file says nothing of is as if it had said what is usual.
    const items = must(await readExport(books.deps, boss, 'items'));
    const [first] = (await items.rows.next()).value as Values[];
    expect(first).toEqual({
      ...defaultsOf(items.columns),
      ...{ number: '0701', name: 'Marrow wool, ash', category: 'Yarn > Wool', unit: 'C62', unit_name: 'ball' },
      ...{ sale_price: '6.5', sale_tax_rate: '19', standard_cost: '3.1', weight_kg: '0.055' },
    });
    const stock = await books.rows(
      `SELECT l.code, v.on_hand AS onHand, v.value_minor AS value FROM level v JOIN location l ON l.id = v.location_id
         JOIN item i ON i.id = v.item_id WHERE i.number = '0701' ORDER BY l.code`,
    );
    expect(stock).toEqual([
      { code: 'BK', onHand: '60.000000', value: 18600 },
      { code: 'ST', onHand: '4.000000', value: 1240 },
    ]);
    expect(await violations(books)).toEqual([]);
  });

  test('the same files again change nothing', async () => {
    for (const [kind, content] of Object.entries(newcomer)) {
      const previewed = await preview(books, kind, content as string | Buffer);
      expect([kind, ...counts(previewed).slice(0, 2)]).toEqual([kind, 0, 0]);
      const { id: importId, version } = previewed.import;
      const nothing = await applySheet(books.deps, boss, req({ importId, version }));
      expect(nothing).toMatchObject({ error: { kind: 'not_now', state: 'unchanged' } });
    }
  });

  test('a policy from a file raises a need, and it is remembered who brought it', async () => {
    const file = 'Item,Location,Minimum,Maximum\n0701,ST,10,40\n0702,,5,20\n';
    expect((await apply(books, await preview(books, 'policies', file))).import.newRows).toBe(2);
    await work(books);
    const needs = await books.rows(
      `SELECT i.number, l.code, n.suggested FROM need n JOIN item i ON i.id = n.item_id JOIN location l ON l.id = n.location_id
        WHERE n.state = 'open' ORDER BY i.number, l.code`,
    );
    // 4 on hand, up to 40, in bags of 10; none of 0702 in the warehouse, up to 20.
    expect(needs).toEqual([
      { number: '0701', code: 'ST', suggested: '40.000000' },
      { number: '0702', code: 'BK', suggested: '20.000000' },
    ]);
    const record = await books.one(
      "SELECT after_json AS after FROM change_record WHERE entity = 'item' AND action = 'policies from file' ORDER BY id LIMIT 1",
    );
    expect(JSON.parse(String(record.after))).toMatchObject({ item: '0701', location: 'ST', min: '10', max: '40' });
  });
});

describe('what a row can be wrong in', () => {
  const cases: [string, string, (string | number)[][]][] = [
    [
      'items',
      `Number,Name,Unit,Category\n,No number,C62,\n0799,,C62,\n0701,Marrow wool,MTR,\nX0,Deep,C62,Yarn > ${'x'.repeat(121)}\n`,
      [
        [2, 'number:missing'],
        [3, 'name:missing'],
        [4, 'unit:not_changeable'],
        [5, 'category:too_long'],
      ],
    ],
    [
      'items',
      'Number,Name,Unit,Successor,UN number,Hazard class\nX1,a,C62,X2,,\nX2,b,C62,X1,,\nX3,c,C62,X9,,\nX4,d,C62,X4,,3\n',
      [
        [4, 'successor:not_on_file'],
        [5, 'successor:loop', 'un_number:needs_other'],
      ],
    ],
    ['items', 'Number,Name,Unit\nX1,a,C62\nX1,b,C62\n', [[3, 'number:twice_in_file']]],
    [
      'packs',
      'Item,Pack,Content,Of pack,In unit\n0701,box,12,carton,\n0810,bolt,15,,YRD\n0810,case,2,,KGM\n0701,odd,0,,\n9999,box,1,,\n',
      [
        [2, 'of_pack:not_on_file'],
        [4, 'unit:other_dimension'],
        [5, 'content:out_of_range'],
        [6, 'item:not_on_file'],
      ],
    ],
    [
      'barcodes',
      'Code,Kind,Item\n4006381333931,,0701\n4006381333930,,0702\n4006381333930,internal,0702\n',
      [[3, 'code:check_digit']],
    ],
    [
      'sources',
      'Item,Supplier,Pack,Multiple\n0701,NOB,,1\n0701,TAS,crate,1\n0702,TAS,bag,0\n',
      [
        [2, 'supplier:not_on_file'],
        [3, 'pack:not_on_file'],
        [4, 'multiple_packs:out_of_range'],
      ],
    ],
    [
      'prices',
      'Item,Supplier,Valid from,Valid to,Price\n0905,OLM,2026-01-01,,1\n0905,TAS,2026-02-01,2026-01-01,1\n',
      [
        [2, 'supplier:not_on_file'],
        [3, 'valid_to:above_other'],
      ],
    ],
    [
      'opening-stock',
      'Item,Location,Quantity,Cost,Day\n0701,ST,5,3.10,2026-11-22\n0905,BK,1,,2026-11-22\n0810,BK,1,1,2026-12-24\n',
      [
        [2, 'quantity:not_changeable'],
        [3, 'cost:missing'],
        [4, 'day:in_the_future'],
      ],
    ],
    [
      'policies',
      'Item,Location,Minimum,Maximum\n0810,ST,20,10\n0810,XX,1,2\n0905,,,5\n',
      [
        [2, 'min:above_other'],
        [3, 'location:not_on_file'],
        [4, 'min:missing'],
      ],
    ],
    [
      'orders',
      'Order,Supplier,Ordered on,Item,Location,Packs,Wanted on,Price\n2611-0042,OLM,2026-11-10,0701,ST,2,2026-12-01,3\nA1,OLM,2026-11-10,0905,ST,2,2026-12-01,3\nA2,OLM,2026-11-10,0701,ST,2,2026-12-01,3\nA2,TAS,2026-11-10,0905,ST,1,2026-12-01,3\nA3,OLM,2026-11-10,0701,ST,2,2026-12-01,\n',
      [
        [2, 'order_number:own_number'],
        [3, 'supplier:not_on_file'],
        [5, 'supplier:differs_from_row'],
        [6, 'price:missing'],
      ],
    ],
    [
      'deliveries',
      'Supplier,Order,Item,Ordered on,Received on,Ordered,Received\nOLM,7,0701,2026-03-09,2026-03-02,10,10\nOLM,8,0701,2026-03-02,2027-03-02,10,10\n',
      [
        [2, 'ordered_on:above_other'],
        [3, 'received_on:in_the_future'],
      ],
    ],
    [
      'rates',
      'Currency,Valid from,Quoted as,Rate\nEUR,2026-01-01,ours for one,1\nUSD,2026-01-01,sideways,1\nUSD,2026-01-02,for one of ours,0\n',
      [
        [2, 'currency:own_currency'],
        [3, 'direction:not_one_of'],
        [4, 'rate:out_of_range'],
      ],
    ],
    ['kits', 'Kit,Component,Quantity\n0905,0905,1\n', [[2, 'component:loop']]],
    [
      'families',
      'Family,Option 1,Item,Value 1,Value 2\nMarrow,colour,0701,ash,\nMarrow,shade,0702,plum,\nTape,width,0810,12,x\n',
      [
        [3, 'option_1:differs_from_row'],
        [4, 'value_2:needs_other'],
      ],
    ],
    [
      'suppliers',
      'Code,Name,Currency,Lead time,Order minimum,Cash discount %,Cut-off\nNEW,New,JPY,5,10.5,2,25:00\nOLM,Olm,USD,5,0,,\n',
      [
        [2, 'cut_off:not_one_of', 'order_minimum:too_many_decimals', 'discount_days:needs_other'],
        [3, 'currency:not_changeable'],
      ],
    ],
    [
      'locations',
      'Code,Name,Kind,Supplied by\nA,A,shop,A\nB,B,kiosk,\nTRANSIT,T,shop,\n',
      [
        [2, 'supplied_by:loop'],
        [3, 'kind:not_one_of'],
        [4, 'code:reserved'],
      ],
    ],
    [
      'demand',
      'Item,Location,Day,Quantity\n0701,ST,2026-11-23,1\n0701,ST,2026-11-20,=1+1\n',
      [
        [2, 'day:in_the_future'],
        [3, 'quantity:formula'],
      ],
    ],
  ];
  test.each(cases)('%s: %#', async (kind, content, faults) => {
    const previewed = await preview(books, kind, content);
    expect(said(previewed)).toEqual(faults);
    const { id: importId, version } = previewed.import;
    must(await cancelSheet(books.deps, boss, req({ importId, version })));
  });

  test('a loop that only the whole shows takes everything back, and is spelled out', async () => {
    const loop = 'Number,Name,Unit,Successor\nL1,a,C62,L2\nL2,b,C62,L3\nL3,c,C62,L1\n';
    const refused = await apply(books, await preview(books, 'items', loop));
    expect(refused.import.state).toBe('refused');
    expect(refused.refusal).toMatchObject({
      kind: 'faulty_whole',
      fault: { kind: 'loop', through: ['L1', 'L2', 'L3', 'L1'] },
    });
    expect(await books.rows("SELECT id FROM item WHERE number LIKE 'L_'")).toEqual([]);
    const packs = 'Item,Pack,Content,Of pack\n0905,p,2,q\n0905,q,2,p\n';
    expect((await apply(books, await preview(books, 'packs', packs))).refusal).toMatchObject({ kind: 'faulty_whole' });
    const places = 'Code,Name,Kind,Supplied by\nST,Station Road,shop,BK\nBK,Back Lane,warehouse,ST\n';
    expect((await apply(books, await preview(books, 'locations', places))).refusal).toMatchObject({
      kind: 'faulty_whole',
    });
    const kits = 'Kit,Component,Quantity\n0905,0810,1\n0810,0905,1\n';
    expect((await apply(books, await preview(books, 'kits', kits))).refusal).toMatchObject({ kind: 'faulty_whole' });
  });

  test('a barcode never points at two things', async () => {
    await apply(books, await preview(books, 'barcodes', 'Code,Item\n4006381333931,0701\n'));
    const other = await preview(books, 'barcodes', 'Code,Item\n04006381333931,0702\n');
    expect(other.rows[0]?.faults).toMatchObject([{ kind: 'taken', by: '0701' }]);
  });
});

describe('between preview and writing', () => {
  test('a record that has changed meanwhile refuses the whole; checked again it goes in', async () => {
    const file =
      'Number,Name,Unit,Maker\n0701,"Marrow wool, ash",C62,Marrow Mills\n0702,"Marrow wool, plum",C62,Marrow Mills\n';
    const previewed = await preview(books, 'items', file);
    await books.owner.query("UPDATE item SET name = 'Marrow wool, dark plum' WHERE number = '0702'");
    const refused = await apply(books, previewed);
    expect(refused.refusal).toEqual({ kind: 'changed_since_preview', rows: [3] });
    expect(await books.rows("SELECT id FROM item WHERE maker = 'Marrow Mills'")).toEqual([]);
    const { id: importId, version } = refused.import;
    const { mapping, how } = refused.chosen ?? { mapping: [], how: { decimal: '.' as const, dates: 'ymd' as const } };
    must(await mapSheet(books.deps, boss, req({ importId, version, mapping, ...how })));
    await work(books);
    const again = await detail(books, importId, 'changed');
    expect(again.rows.map((r) => r.changes.map((c) => c.column))).toEqual([['maker'], ['name', 'maker']]);
    expect((await apply(books, again)).import.state).toBe('applied');
  });

  test('books that were closed meanwhile, and an order number that another supplier has by now, take the whole back', async () => {
    const stock = await preview(books, 'opening-stock', 'Item,Location,Quantity,Cost,Day\n0810,BK,5,0.45,2026-11-20\n');
    await books.owner.query("UPDATE company SET books_closed_to = '2026-11-21'");
    expect((await apply(books, stock)).refusal).toMatchObject({
      kind: 'faulty_whole',
      fault: { kind: 'books_closed' },
    });
    await books.owner.query('UPDATE company SET books_closed_to = NULL');
    const head = 'Order,Supplier,Ordered on,Item,Location,Packs,Price,Wanted on\n';
    const theirs = await preview(books, 'orders', `${head}N-1,TAS,2026-11-10,0905,ST,2,1.90,2026-12-01\n`);
    const ours = await preview(books, 'orders', `${head}N-1,OLM,2026-11-10,0701,BK,2,3.10,2026-12-01\n`);
    expect((await apply(books, theirs)).import.state).toBe('applied');
    expect((await apply(books, ours)).refusal).toMatchObject({ fault: { kind: 'order_of_another', text: 'N-1' } });
    expect(await books.rows("SELECT id FROM job WHERE state <> 'done'")).toEqual([]);
  });

  test('the same record made by someone else meanwhile refuses the whole', async () => {
    const file = 'Code,Name,Currency,Lead time\nTWO,Two,EUR,3\n';
    const [first, second] = [await preview(books, 'suppliers', file), await preview(books, 'suppliers', file)];
    expect((await apply(books, first)).import.state).toBe('applied');
    expect((await apply(books, second)).refusal).toMatchObject({ kind: 'changed_since_preview' });
  });

  test('only who may, in order, and once', async () => {
    const previewed = await preview(books, 'locations', 'Code,Name,Kind\nZZ,Zed,shop\n');
    const { id: importId, version } = previewed.import;
    expect(await applySheet(books.deps, mira, req({ importId, version }))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await applySheet(books.deps, jun, req({ importId, version }))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await applySheet(books.deps, boss, req({ importId, version: version + 1 }))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    const key = req({ importId, version });
    must(await applySheet(books.deps, boss, key));
    must(await applySheet(books.deps, boss, key));
    await work(books);
    expect(await cancelSheet(books.deps, boss, req({ importId, version }))).toMatchObject({
      error: { kind: 'not_now' },
    });
    expect((await detail(books, importId)).import.state).toBe('applied');
  });
});

describe('who may', () => {
  test('what is said of all places is for those who are limited to none', async () => {
    const local: Actor = { ...mira, userId: 1, locations: [1] };
    const limited = { error: { kind: 'forbidden', because: 'location' } };
    for (const kind of ['opening-stock', 'policies', 'demand', 'orders']) {
      expect(await readExport(books.deps, local, kind)).toMatchObject(limited);
      expect(readTemplate(local, kind)).toMatchObject(limited);
    }
    expect((await readExport(books.deps, local, 'items')).ok).toBe(true);
    // Shop staff count stock at their place; opening stock of all places is another matter.
    expect(await readExport(books.deps, jun, 'opening-stock')).toMatchObject({ error: { kind: 'forbidden' } });
    const { templates } = must(await readImports(books.deps, local));
    expect(templates.filter((t) => t.may).map((t) => t.name)).toEqual([
      ...['suppliers', 'items', 'packs', 'barcodes', 'families', 'kits', 'sources', 'prices', 'rates', 'deliveries'],
      ...['categories', 'pack-patterns', 'contacts', 'closures', 'shipping-ways', 'charges', 'duty-rates'],
      ...['tax-rates', 'reasons'],
    ]);
    const ours = await preview(books, 'policies', 'Item,Minimum,Maximum\n0905,1,2\n');
    const asked = { importId: ours.import.id, state: null, after: 0 };
    expect(await readImport(books.deps, local, asked)).toMatchObject(limited);
    expect(await readFaultyRows(books.deps, local, ours.import.id)).toMatchObject(limited);
    const version = { importId: ours.import.id, version: ours.import.version };
    expect(await applySheet(books.deps, local, req(version))).toMatchObject(limited);
  });

  test('faulty rows come back so that no spreadsheet runs them; of one that was there twice, as it was understood', async () => {
    const file = 'Number;Name;Unit;Maker\n0799;=1+1;C62;+49 1\nD1;Double;C62;\nD1;Double;C62;M\n';
    const { import: i } = await preview(books, 'items', file);
    const { headings, rows } = must(await readFaultyRows(books.deps, boss, i.id));
    expect(headings).toEqual(['Number', 'Name', 'Unit', 'Maker']);
    expect((await rows.next()).value).toEqual([
      ['0799', "'=1+1", 'C62', "'+49 1"],
      ['D1', 'Double', 'C62', 'M'],
    ]);
  });

  test('an import is kept for thirty days', async () => {
    const { import: i } = await preview(books, 'items', 'Number,Name,Unit\nOLD,Old,C62\n');
    await books.owner.query("UPDATE import_run SET created_at = '2026-10-20' WHERE id = ?", [i.id]);
    await beginDay(books.deps);
    expect(await books.rows('SELECT id FROM import_run WHERE id = ?', [i.id])).toEqual([]);
    expect(await books.rows('SELECT row_no FROM import_row WHERE import_id = ?', [i.id])).toEqual([]);
    expect((await books.rows('SELECT id FROM import_run')).length).toBeGreaterThan(10);
  });
});

describe('files as they come', () => {
  const items = (text: string, encoding: BufferEncoding = 'utf8') => bring(books, 'items', Buffer.from(text, encoding));
  const found = async (text: string | Buffer) => {
    const d = await bring(books, 'items', text);
    return d.reading ? d.reading.found : d.refusal;
  };

  test('encodings, separators, empty trailing columns and lines', async () => {
    const utf16 = Buffer.concat([
      Buffer.from([0xff, 0xfe]),
      Buffer.from('Number\tName\tUnit\nQ\tÖse\tC62\n', 'utf16le'),
    ]);
    expect(await found(utf16)).toMatchObject({
      csv: { encoding: 'utf-16le', separator: '\t' },
      sample: [['Q', 'Öse', 'C62']],
    });
    expect(await found('\ufeffNumber;Name;Unit;;;\nQ;Öse;C62;;;\n\n;;;;;\n')).toMatchObject({
      csv: { encoding: 'utf-8', bom: true, separator: ';' },
      headings: ['Number', 'Name', 'Unit'],
      rows: 1,
    });
    const latin = await bring(books, 'items', Buffer.from('Number,Name,Unit\nQ,\u0080 \u00d6se,C62\n', 'latin1'));
    expect(latin.reading?.found).toMatchObject({ csv: { encoding: 'windows-1252' }, sample: [['Q', '€ Öse', 'C62']] });
  });

  test('what decides the decimal mark is shown; what does not is asked', async () => {
    const proposed = async (cells: string) =>
      (
        await items(
          `Number;Name;Unit;Sale price\n${cells
            .split(' ')
            .map((c, i) => `Q${i};a;C62;${c}`)
            .join('\n')}\n`,
        )
      ).reading?.proposed.decimal;
    expect(await proposed('1,5 2')).toEqual({ mark: ',', certainty: 'sure', example: '1,5' });
    expect(await proposed('1.234')).toEqual({ mark: '.', certainty: 'open', example: '1.234' });
    expect(await proposed('1,5 2.5')).toMatchObject({ certainty: 'torn' });
    expect(await proposed('15 2')).toEqual({ mark: '.', certainty: 'nothing_to_tell', example: null });
  });

  test('numbers by the mark that was said, local dates, leading zeros', async () => {
    const file = 'Item;Supplier;Valid from;Price\n0701;OLM;3.12.2026;1.234,5\n';
    const previewed = await preview(books, 'prices', file);
    const d = await detail(books, previewed.import.id, 'new');
    expect(d.rows[0]?.values).toMatchObject({ item: '0701', valid_from: '2026-12-03', amount: '1234.5' });
    const wrong = await preview(books, 'prices', file, { decimal: '.' });
    expect(said(wrong)).toEqual([[2, 'amount:not_a_number']]);
  });

  test('a foreign file is mapped by hand once; the next one with its headings is known', async () => {
    const file = 'Artikel;Bezeichnung;Einheit\nF1;Fremd;C62\n';
    const first = await items(file);
    expect(first.reading?.proposed.mapping).toEqual([null, null, null]);
    const { id: importId, version } = first.import;
    const map = (mapping: (string | null)[]) =>
      mapSheet(books.deps, boss, req({ importId, version, mapping, decimal: '.' as const, dates: 'ymd' as const }));
    expect(await map([null, 'name', 'unit'])).toMatchObject({
      error: { kind: 'columns_missing', columns: ['Number'] },
    });
    expect(await map(['number', 'name', 'name'])).toMatchObject({ error: { kind: 'column_twice' } });
    must(await map(['number', 'name', 'unit']));
    await work(books);
    expect(counts(await detail(books, importId))).toEqual([1, 0, 0, 0]);
    expect((await items(file)).reading).toMatchObject({
      known: true,
      proposed: { mapping: ['number', 'name', 'unit'] },
    });
  });

  test('what is exported with a leading = comes back as it was', async () => {
    const file = 'Number,Name,Unit,Note to the buyer\nE1,"\'=SUM(A1)",C62,\'-not a number\n';
    const previewed = await preview(books, 'items', file);
    const [row] = (await detail(books, previewed.import.id, 'new')).rows;
    expect(row?.values).toMatchObject({ name: '=SUM(A1)', buyer_note: '-not a number' });
  });

  test.each([
    ['an empty file', '', 'empty'],
    ['a heading alone', 'Number,Name\n', 'no_rows'],
    ['a picture', Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 1, 2, 3]), 'binary'],
    ['a thousand columns', `${Array.from({ length: 1000 }, (_, i) => `c${i}`).join(',')}\n1\n`, 'too_many_columns'],
    ['a quote that is never closed', `Number,Name\n1,"${'x,y\n'.repeat(80_000)}`, 'row_too_long'],
    ['an old workbook', Buffer.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]), 'old_format'],
    ['a broken workbook', Buffer.concat([Buffer.from('PK\u0003\u0004'), Buffer.alloc(400, 7)]), 'damaged'],
  ])('%s is refused with its reason', async (_, content, kind) => {
    const d = await bring(books, 'items', content);
    expect(d.refusal).toMatchObject({ file: { kind } });
    expect(d.import.state).toBe('refused');
  });

  test('a file that is too large is not taken in', async () => {
    const endless = async function* () {
      for (;;) yield Buffer.alloc(256 * 1024, 65);
    };
    const file = { kind: 'items', name: 'huge.csv', mostMegabytes: 3 };
    expect(await uploadSheet(books.deps, boss, file, endless())).toEqual({
      ok: false,
      error: { kind: 'file_too_large', mostMegabytes: 3 },
    });
    expect(
      await books.one(
        'SELECT COUNT(*) AS n FROM import_piece p JOIN import_run i ON i.id = p.import_id WHERE i.file_name = ?',
        ['huge.csv'],
      ),
    ).toEqual({ n: 0 });
  });
});

describe('what was brought is worked with', () => {
  test('a price less its discount, a lead time of its own, a barcode that is scanned', async () => {
    const prices = 'Item,Supplier,Valid from,Price,Pack,Discount %\n0702,OLM,2026-11-01,31.00,bag,12.5\n';
    await apply(books, await preview(books, 'prices', prices));
    const own = 'Item,Supplier,Pack,Lead time\n0702,OLM,bag,21\n';
    await apply(books, await preview(books, 'sources', own));
    const { id } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '0702'");
    const item = must(await readItem(books.deps, boss, id));
    expect(item.sources).toMatchObject([{ perPack: '27.125', each: '2.7125', source: { leadTimeDays: 21 } }]);
    await apply(books, await preview(books, 'barcodes', 'Code,Item,Pack\n4012345678901,0702,bag\nT-702,0702,\n'));
    for (const text of ['4012345678901', '04012345678901', 'T-702', 'M-2'])
      expect(must(await readFind(books.deps, boss, text)).items.map((i) => i.number)).toEqual(['0702']);
    const { list } = must(await openItems(books.deps, boss, { search: '', locationId: null, sort: 'number' }));
    const at = async (code: string) =>
      must(await findInList(books.deps, boss, 'items', { list, what: { code } })).entry;
    expect([await at('4012345678901'), await at('T-702')]).toEqual([await at('0702'), await at('0702')]);
    expect(await at('4012345678918')).toBe(-1);
  });

  test('deliveries from before are the record of their supplier', async () => {
    const file =
      'Supplier,Order,Item,Ordered on,Promised for,Received on,Ordered,Received\n' +
      'OLM,11,0701,2026-09-01,2026-09-08,2026-09-08,100,100\nOLM,12,0701,2026-09-15,2026-09-22,2026-09-26,100,90\n' +
      'OLM,12,0702,2026-09-15,,2026-09-24,50,50\nOLM,13,0702,2026-10-01,2026-10-08,2026-11-01,50,0\n';
    expect((await apply(books, await preview(books, 'deliveries', file))).import.newRows).toBe(4);
    const { id } = await books.one<{ id: number }>("SELECT id FROM supplier WHERE code = 'OLM'");
    const { record, sold, terms } = must(await readSupplier(books.deps, boss, id));
    // 7, 11 and 9 days; what never came has taken no time.
    expect(record).toMatchObject({ promised: 2, onTime: 1, days: { n: 3, mean: 9, median: 9 } });
    expect(terms).toMatchObject({ name: 'Olmbrücke Garne', orderMinimum: 15000, orderDays: 31 });
    expect(sold.find((s) => s.number === '0701')?.steps).toEqual([
      { from: 0, amount: '31', per: '1', each: '3.1000' },
      { from: 5_000_000, amount: '29.5', per: '1', each: '2.9500' },
    ]);
  });

  // 91 days, of which 61 are before the file begins and 29 are in it: 58 sold over 30 days (one after the opening).
  test('demand from before counts from the first day of its file, whatever was on hand then', async () => {
    const days = Array.from({ length: 29 }, (_, i) => `0905,ST,${addDays('2026-10-24', i)},2`);
    const written = await apply(
      books,
      await preview(books, 'demand', `Item,Location,Day,Quantity\n${days.join('\n')}\n`),
    );
    expect(written.import).toMatchObject({ state: 'applied', newRows: 29 });
    const rate = await books.one(
      `SELECT d.per_day AS perDay FROM demand_rate d JOIN item i ON i.id = d.item_id JOIN location l ON l.id = d.location_id
        WHERE i.number = '0905' AND l.code = 'ST'`,
    );
    expect(rate).toEqual({ perDay: '2.000000' });
    const state = await books.one(
      `SELECT s.cover_days AS days FROM item_location_state s JOIN item i ON i.id = s.item_id JOIN location l ON l.id = s.location_id
        WHERE i.number = '0905' AND l.code = 'ST'`,
    );
    expect(state).toEqual({ days: '4.5' });
  });

  test('an open order from a file is expected like any other, and not ordered twice', async () => {
    const file =
      'Order,Supplier,Ordered on,Item,Location,Packs,Pack,Price,Wanted on,Promised for\n' +
      'OLD-1,OLM,2026-11-10,0701,ST,4,bag,31.00,2026-11-27,2026-11-30\nOLD-1,OLM,2026-11-10,0702,ST,1,bag,31.00,2026-11-27,\n';
    expect((await apply(books, await preview(books, 'orders', file))).import.state).toBe('applied');
    await work(books);
    const order = await books.one(
      `SELECT o.state, COUNT(*) AS \`lines\`, MIN(d.promised_date) AS promised FROM purchase_order o
         JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id WHERE o.number = 'OLD-1' GROUP BY o.id, o.state`,
    );
    expect(order).toEqual({ state: 'sent', lines: 2, promised: '2026-11-30' });
    const need = await books.one(
      `SELECT n.state FROM need n JOIN item i ON i.id = n.item_id JOIN location l ON l.id = n.location_id
        WHERE i.number = '0701' AND l.code = 'ST'`,
    );
    expect(need).toEqual({ state: 'none' });
    const again = await preview(books, 'orders', file.replace(',4,bag,31.00', ',5,bag,31.00'));
    expect(again.rows[0]?.faults).toMatchObject([{ kind: 'not_changeable', why: 'order_entered' }]);
  });
});

describe('the worker', () => {
  const many = `Number,Name,Unit\n${Array.from({ length: 4500 }, (_, i) => `W${i},Work ${i},C62`).join('\n')}\n`;

  test('that dies while it checks is followed by one that goes on behind its last step', async () => {
    const { import: i, reading } = await bring(books, 'items', many);
    const mapping = reading?.proposed.mapping ?? [];
    const said = { importId: i.id, version: i.version, mapping, decimal: '.' as const, dates: 'ymd' as const };
    must(await mapSheet(books.deps, boss, req(said)));
    const jobId = (await books.one<{ id: number }>("SELECT id FROM job WHERE state = 'waiting'")).id;
    // The first worker is gone after two steps of rows: its lease ends, and the next one takes over.
    const dying = { 'check-sheet': dyingAfter(2) };
    await expect(workOnce({ id: 'first', deps: books.deps, kinds: dying })).resolves.toBeTruthy();
    const staged = await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM import_row WHERE import_id = ?', [i.id]);
    expect(staged.n).toBeGreaterThan(0);
    expect(staged.n).toBeLessThan(4500);
    await books.owner.query(
      "UPDATE job SET state = 'waiting', not_before = '2000-01-01', lease_by = NULL WHERE id = ?",
      [jobId],
    );
    await work(books);
    expect(counts(await detail(books, i.id))).toEqual([4500, 0, 0, 0]);
    const rows = await books.one(
      'SELECT COUNT(*) AS n, COUNT(DISTINCT row_no) AS distinctRows FROM import_row WHERE import_id = ?',
      [i.id],
    );
    expect(rows).toEqual({ n: 4500, distinctRows: 4500 });
  });

  test('is told to stop by letting the file go; nothing is left to be written', async () => {
    const { import: i, reading } = await bring(books, 'items', many.replaceAll('W', 'V'));
    const mapping = reading?.proposed.mapping ?? [];
    must(
      await mapSheet(
        books.deps,
        boss,
        req({ importId: i.id, version: i.version, mapping, decimal: '.' as const, dates: 'ymd' as const }),
      ),
    );
    const letGo: Handler = (deps, run) =>
      handlers['check-sheet'](deps, {
        ...run,
        step: async (progress) => {
          if (progress.done > 0) {
            const now = await detail(books, i.id);
            must(await cancelSheet(books.deps, boss, req({ importId: i.id, version: now.import.version })));
          }
          await run.step(progress);
        },
      });
    await workOnce({ id: 'stopped', deps: books.deps, kinds: { 'check-sheet': letGo } });
    expect((await detail(books, i.id)).import.state).toBe('cancelled');
    await work(books);
    expect((await detail(books, i.id)).import.state).toBe('cancelled');
    expect(await books.rows("SELECT id FROM item WHERE number LIKE 'V%'")).toEqual([]);
  });

  function dyingAfter(steps: number): Handler {
    let n = 0;
    return (deps, run) =>
      handlers['check-sheet'](deps, {
        ...run,
        step: async (progress) => {
          n += 1;
          if (n > steps) throw new Error('the worker died');
          await run.step(progress);
        },
      });
  }
});

test('the books are sound after all of it', async () => {
  await work(books);
  expect(await violations(books)).toEqual([]);
});
