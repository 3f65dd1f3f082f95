import type { Actor } from '@/core/people';
import { readItemExport } from '@/services/catalogue/readItemExport';
import { openItems, readItemRows } from '@/services/catalogue/readItems';
import { findInList } from '@/services/lists/findInList';
import { readListExport } from '@/services/lists/readListExport';
import { readChangeExport } from '@/services/people/readChangeExport';
import { readFrame } from '@/services/people/readFrame';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { openNeeds, readNeedChanges, readNeedRows } from '@/services/planning/readNeeds';
import { allPolicies, openPolicies, readPolicyLines } from '@/services/planning/readPolicies';
import { takeBack } from '@/services/planning/takeBack';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { openOrders, readOrderRows } from '@/services/purchase/readOrders';
import { openTrays, readTrayRows } from '@/services/purchase/readTrays';
import { readArrivalExport } from '@/services/stock/readArrivalExport';
import { counts, csvOf, preview } from './sheetSupport';
import { type Books, freshBooks, MONDAY, mira, must, needOf, needsOf, otto, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const items = (filter: { search?: string; sort?: 'name' | 'number' | 'value' } = {}, actor: Actor = mira) =>
  openItems(books.deps, actor, { search: '', locationId: null, sort: 'name', ...filter });
const rowsOf = async (list: string, from = 0, actor: Actor = mira) => readItemRows(books.deps, actor, { list, from });

test('an open list is its person’s alone, of its kind alone, and gone after a day', async () => {
  const { list } = must(await items());
  const gone = { ok: false, error: { kind: 'list_gone' } };
  expect((await rowsOf(list)).ok).toBe(true);
  expect(await rowsOf(list, 0, otto)).toEqual(gone);
  expect(await rowsOf('none')).toEqual(gone);
  expect(await readOrderRows(books.deps, mira, { list, from: 0 })).toEqual(gone);
  books.deps.setClock('2026-11-24T09:00:01Z');
  must(await items());
  expect(await rowsOf(list)).toEqual(gone);
  books.deps.setClock(MONDAY);
});

test('pages are 200 rows from any row on; rows stay in their places when others are added', async () => {
  await books.owner.query(
    `INSERT INTO item (number, name, category_id, base_unit, unit_name, status)
     SELECT CONCAT('Z', seq), CONCAT('zz ', LPAD(seq, 4, '0')), i.category_id, i.base_unit, i.unit_name, 'active'
       FROM seq_1_to_500 JOIN item i ON i.id = 1`,
  );
  const { list, count } = must(await items());
  expect(count).toBe(581);
  const page = must(await rowsOf(list, 300)).rows;
  expect(page).toHaveLength(200);
  expect([page[0]?.item.name, page[199]?.item.name]).toEqual(['zz 0220', 'zz 0419']);
  expect(must(await rowsOf(list, 580)).rows.map((r) => r.item.name)).toEqual(['zz 0500']);
  expect(must(await rowsOf(list, 600)).rows).toEqual([]);
  await books.owner.query("UPDATE item SET name = 'Aa, renamed' WHERE number = 'Z500'");
  expect(must(await rowsOf(list, 580)).rows.map((r) => r.item.name)).toEqual(['Aa, renamed']);
  expect(must(await items()).list).not.toBe(list);
  expect(must(await rowsOf(must(await items()).list)).rows[0]?.item.name).toBe('Aa, renamed');
});

test('items by number and by value; orders by supplier and number', async () => {
  const sorted = async (sort: 'number' | 'value') => must(await rowsOf(must(await items({ sort })).list)).rows;
  const numbers = (await sorted('number')).map((r) => r.item.number);
  expect(numbers).toEqual([...numbers].sort());
  const values = (await sorted('value')).map((r) => r.value);
  expect(values).toEqual([...values].sort((a, b) => b - a));
  const orders = async (sort: 'supplier' | 'number') => {
    const { list } = must(await openOrders(books.deps, mira, { show: 'all', search: '', sort }));
    return must(await readOrderRows(books.deps, mira, { list, from: 0 })).rows;
  };
  const suppliers = (await orders('supplier')).map((o) => o.supplier);
  expect(suppliers).toEqual([...suppliers].sort());
  const ofOrders = (await orders('number')).map((o) => o.number);
  expect(ofOrders).toEqual([...ofOrders].sort());
});

test('the policy sheet: item by item its line for everywhere, then its places, across pages', async () => {
  const head = must(await openPolicies(books.deps, mira, { ...allPolicies, search: '', sort: 'name' }));
  expect(head.count).toBe(head.items * 5);
  const lines = [];
  for (let from = 0; from < head.count; from += 200)
    lines.push(...must(await readPolicyLines(books.deps, mira, { list: head.list, from })).rows);
  expect(lines).toHaveLength(head.count);
  expect(lines.filter((l, i) => (l.locationId === null) !== (i % 5 === 0))).toEqual([]);
  const odd = must(await readPolicyLines(books.deps, mira, { list: head.list, from: 203 })).rows;
  expect(odd).toHaveLength(200);
  expect(odd[0]).toEqual(lines[203]);
});

test('a scanned code: the first row of that item, or of that order, in the list as it is open', async () => {
  const find = async (kind: Parameters<typeof findInList>[2], list: string, code: string) =>
    must(await findInList(books.deps, mira, kind, { list, what: { code } })).entry;
  const needs = must(await openNeeds(books.deps, mira, { locationId: null }));
  const { rows } = must(await readNeedRows(books.deps, mira, { list: needs.list, from: 0 }));
  const at = await find('needs', needs.list, '10412-07');
  expect(rows[at]).toMatchObject({ kind: 'need', itemNumber: '10412-07' });
  expect(await find('needs', needs.list, 'no such code')).toBe(-1);
  const byId = async (id: number) =>
    must(await findInList(books.deps, mira, 'needs', { list: needs.list, what: { id } })).entry;
  const row = rows[at];
  expect(await byId(row?.kind === 'need' ? row.id : 0)).toBe(at);
  expect(await byId(999_999)).toBe(-1);
  const orders = must(await openOrders(books.deps, mira, { show: 'all', search: '', sort: 'newest' }));
  const number = must(await readOrderRows(books.deps, mira, { list: orders.list, from: 0 })).rows[2]?.number ?? '';
  expect(await find('orders', orders.list, number)).toBe(2);
  const policies = must(await openPolicies(books.deps, mira, { ...allPolicies, search: 'merino', sort: 'number' }));
  const item = await find('policies', policies.list, '10412-07');
  const sheet = must(await readPolicyLines(books.deps, mira, { list: policies.list, from: item * 5 })).rows;
  expect(sheet[0]).toMatchObject({ number: '10412-07', locationId: null });
  expect(await findInList(books.deps, otto, 'needs', { list: needs.list, what: { code: 'x' } })).toMatchObject({
    ok: false,
  });
});

test('needs stand under their suppliers; what changes is named while the list stays as it was', async () => {
  const { head, groups, needs } = await needsOf(books, mira);
  expect(head.count).toBe(groups.length + needs.length);
  for (const g of groups) {
    const own = needs.filter((n) => n.supplierId === g.supplierId);
    expect(own).toHaveLength(g.count);
    expect(
      must(await readNeedRows(books.deps, mira, { list: head.list, from: g.start })).rows.slice(0, 2),
    ).toMatchObject([
      { kind: 'group', group: g },
      { kind: 'need', id: own[0]?.id, fingerprint: own[0]?.fingerprint },
    ]);
  }
  expect(needs.reduce((sum, n) => sum + (n.net ?? 0), 0)).toBe(head.status.net);
  expect(needs.filter((n) => n.net === null)).toHaveLength(head.status.unpriced);
  const { items } = await books.one<{ items: number }>("SELECT COUNT(*) AS items FROM item WHERE status <> 'stopped'");
  expect(head.status).toMatchObject({
    ...{ needs: needs.length, items: new Set(needs.map((n) => n.itemId)).size, itemsOfAll: items },
  });
  expect((await readFrame(books.deps, mira)).counts.needs).toBe(needs.length);
  const changes = async () => must(await readNeedChanges(books.deps, mira, head.list));
  expect(await changes()).toEqual({ changed: [], status: head.status });

  const need = await needOf(books, '10412-07', 'HS');
  const accepted = must(
    await acceptNeed(books.deps, otto, req({ needId: need.id, fingerprint: need.fingerprint, packs: '6' })),
  );
  const after = await changes();
  expect(after.changed).toEqual([need.id]);
  expect(after.status).toMatchObject({ needs: head.status.needs - 1, trays: [{ supplierId: 1, net: 19_680 }] });
  const row = must(await readNeedRows(books.deps, mira, { list: head.list, from: 0 })).rows.find(
    (r) => r.kind === 'need' && r.id === need.id,
  );
  expect(row).toMatchObject({ open: false });

  // The line in its tray, priced; taken back, its place in the opened trays says so.
  const trays = must(await openTrays(books.deps, mira));
  expect(trays).toMatchObject({ count: 2, trays: [{ supplierId: 1, net: 19_680, start: 0, lines: 1 }] });
  const trayRows = async () => must(await readTrayRows(books.deps, mira, { list: trays.list, from: 0 })).rows;
  const [line] = await books.rows<{ id: number }>("SELECT id FROM tray_line WHERE state = 'in_tray'");
  expect(await trayRows()).toMatchObject([{ kind: 'tray' }, { kind: 'line', id: line?.id, net: 19_680, each: '3.28' }]);
  must(await takeBack(books.deps, mira, req({ trayLineId: line?.id ?? 0 })));
  expect((await trayRows())[1]).toEqual({ kind: 'gone', id: line?.id });
  expect(accepted.supplier).toBe('Hollinmere Spinners');
  expect((await changes()).status.needs).toBe(head.status.needs);
});

test('a list as a file: what it shows, row by row; what is on file in it imports again unchanged', async () => {
  const exported = async (name: 'needs' | 'trays' | 'orders' | 'policies', list: string) =>
    csvOf(must(await readListExport(books.deps, mira, { name, list })));
  const lines = (text: string) => text.replace('\ufeff', '').trim().split('\r\n');

  const first = must(await openNeeds(books.deps, mira, { locationId: null }));
  const needs = (await needsOf(books, mira)).needs.length;
  const [heads, ...rows] = lines(await exported('needs', first.list));
  expect(heads).toMatch(/^Supplier,Item,Name,Location,Why,Free,/);
  expect(rows).toHaveLength(needs);
  expect(rows.find((r) => r.includes('10412-07') && r.includes('Harbour Street'))).toMatch(
    /^Hollinmere Spinners,10412-07,/,
  );
  const { id: needId, fingerprint } = await needOf(books, '10412-07', 'HS');
  must(await acceptNeed(books.deps, mira, req({ needId, fingerprint, packs: '6' })));
  const trays = must(await openTrays(books.deps, mira));
  expect(lines(await exported('trays', trays.list))[1]).toMatch(/^Hollinmere Spinners,10412-07,.*,196\.80,EUR$/);
  const orders = must(await openOrders(books.deps, mira, { show: 'all', search: '', sort: 'number' }));
  expect(lines(await exported('orders', orders.list))).toHaveLength(orders.count + 1);

  const sheet = must(await openPolicies(books.deps, mira, { ...allPolicies, search: 'merino', sort: 'number' }));
  const policies = await preview(books, 'policies', await exported('policies', sheet.list));
  expect(counts(policies)).toEqual([0, 0, lines(await exported('policies', sheet.list)).length - 1, 0]);
  expect(policies.import.unchangedRows).toBeGreaterThan(20);
  const found = must(await items({ search: 'merino' }));
  const asked = { list: found.list, columns: ['free', 'value', 'shelf'] };
  const itemFile = await csvOf(must(await readItemExport(books.deps, mira, asked)));
  expect(lines(itemFile)[0]).toMatch(/,Free in all \(figure\),Stock value \(figure\),Shelf \(figure\)$/);
  expect(counts(await preview(books, 'items', itemFile))).toEqual([0, 0, found.count, 0]);
  const expected = lines(await csvOf(must(await readArrivalExport(books.deps, mira, { locationId: null }))));
  expect(expected[0]).toMatch(/^Expected,Where,Supplier,Order,Item,/);
  expect(expected.length).toBeGreaterThan(4);
  const every = { area: null, userId: null, from: '', to: '' } as const;
  const { n } = await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM change_record');
  const changes = lines(await csvOf(must(await readChangeExport(books.deps, otto, every))));
  expect(changes).toHaveLength(Number(n) + 1);
  expect(changes[1]).toContain('Mira Rook');
  // The need that was accepted above says of which item it is.
  expect(changes.find((c) => c.includes(',need,'))).toMatch(/,Mira Rook,need,"?Fen merino 4-ply, moss"?,accepted,/);
  expect(await readListExport(books.deps, otto, { name: 'needs', list: first.list })).toMatchObject({
    error: { kind: 'list_gone' },
  });
});

test('a supplier that wants an order for each place gets one, priced by itself; terms go with it', async () => {
  await books.owner.query(
    `INSERT INTO shipping_way (name, note) VALUES ('parcel of tests', '')
       ON DUPLICATE KEY UPDATE note = VALUES(note)`,
  );
  await books.owner.query(
    `UPDATE supplier SET tray_rule = 'per_location', order_text = 'Please no paper.', payment_terms = '', payment_days = 45,
            delivery_terms = '', incoterm = 'FCA', incoterm_place = 'Torvaig', freight_payer = 'collect',
            shipping_way_id = (SELECT id FROM shipping_way WHERE name = 'parcel of tests') WHERE id = 1`,
  );
  await books.owner.query(
    "UPDATE location SET address = '', invoice_address = 'Mill office\\nMill Lane 1' WHERE code = 'OM'",
  );
  // Together they would reach the break of ten bags; apart they don't.
  for (const [number, code] of [
    ['10412-07', 'HS'],
    ['10412-01', 'OM'],
  ] as const) {
    const need = await needOf(books, number, code);
    if (need.state === 'open')
      must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '6' })));
  }
  const { trays } = must(await openTrays(books.deps, mira));
  expect(trays.map((t) => [t.supplier, t.lines, t.net])).toEqual([['Hollinmere Spinners', 2, 12 * 3_280]]);
  const made = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
  expect(made.map((m) => m.lines)).toEqual([1, 1]);
  const orders = [];
  for (const { orderId } of made) orders.push(must(await readOrder(books.deps, mira, orderId)));
  expect(orders.map((o) => o.lines.flatMap((l) => l.parts.map((p) => p.location)))).toEqual([
    ['Old Mill'],
    ['Harbour Street'],
  ]);
  expect(orders.map((o) => [o.net, o.head.shippingWay, o.head.orderText])).toEqual([
    [6 * 3_280, 'parcel of tests', 'Please no paper.'],
    [6 * 3_280, 'parcel of tests', 'Please no paper.'],
  ]);
  expect([orders[0]?.head.paymentTerms, orders[0]?.head.deliveryTerms]).toEqual([
    '45 days net',
    'FCA Torvaig, freight collect',
  ]);
  // Old Mill has its own invoices and no address of its own for goods; the rest is the company's.
  const [{ office } = { office: '' }] = await books.rows<{ office: string }>(
    'SELECT invoice_address AS office FROM company',
  );
  expect(office).not.toBe('');
  expect(orders.map((o) => o.invoiceTo)).toEqual(['Mill office\nMill Lane 1', office]);
  const deliver = orders.map((o) => o.lines[0]?.parts[0]?.address);
  expect([deliver[0], deliver[1] === office]).toEqual([office, false]);
});
