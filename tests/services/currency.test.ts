import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { readItemFile } from '@/services/catalogue/readItemFile';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { fullNeedRun } from '@/services/planning/recompute';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { openTrays } from '@/services/purchase/readTrays';
import { sendOrder } from '@/services/purchase/sendOrder';
import { readImports } from '@/services/sheets/readImports';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { startJob } from '@/services/work/startJob';
import { rateFile } from '@/standins/rateFile';
import { apply, counts, preview, work } from './sheetSupport';
import { type Books, freshBooks, mira, must, needOf, needsOf, otto, req, violations } from './support';

/* Hollinmere is paid in dollars here: 32.80 USD a bag of ten. */
let books: Books;
beforeAll(async () => {
  books = await freshBooks();
  await books.owner.query("UPDATE supplier SET currency = 'USD' WHERE code = 'HOL'");
  await fullNeedRun(books.deps);
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const rate = (day: string, direction: string, figure: string) =>
  books.owner.query('INSERT INTO currency_rate (currency, valid_from, direction, rate) VALUES (?, ?, ?, ?)', [
    'USD',
    day,
    direction,
    figure,
  ]);
const open = async () =>
  (await books.one<{ id: number }>("SELECT MAX(id) AS id FROM purchase_order WHERE state = 'draft'")).id;
const view = async (id: number) => must(await readOrder(books.deps, mira, id));

test('without a rate nothing is taken for 1: the sum leaves it out, approval says what is missing', async () => {
  const before = await needsOf(books, mira);
  const moss = before.needs.find((n) => n.itemNumber === '10412-07');
  expect([moss?.currency, moss?.net, moss?.rate]).toEqual(['USD', null, null]);
  const need = await needOf(books, '10412-07', 'HS');
  must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '10' })));
  const [tray] = must(await openTrays(books.deps, mira)).trays;
  expect([tray?.currency, tray?.net, tray?.netInBase]).toEqual(['USD', 31_400, null]);
  must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
  const order = await view(await open());
  expect(order.findings.find((f) => f.kind === 'rate_missing')).toMatchObject({ blocks: true, currency: 'USD' });
});

test('the limit is in our currency; the order keeps its rate as quoted, the receipt has that of its day', async () => {
  await rate('2026-11-02', 'foreign_per_base', '1.25');
  const id = await open();
  // 314.00 USD at 1.25 for one of ours: 251.20 EUR.
  expect((await view(id)).netInBase).toBe(25_120);
  const tight = { ...mira, approvalLimit: 25_119 };
  const version = async () => (await view(id)).head.version;
  expect(await approveOrder(books.deps, tight, req({ orderId: id, version: await version() }))).toMatchObject({
    error: { kind: 'above_limit', limit: 25_119, currency: 'EUR' },
  });
  must(
    await approveOrder(books.deps, { ...mira, approvalLimit: 25_120 }, req({ orderId: id, version: await version() })),
  );
  expect(await books.one('SELECT rate, rate_direction, rate_date FROM purchase_order WHERE id = ?', [id])).toEqual({
    ...{ rate: '1.2500000000', rate_direction: 'foreign_per_base', rate_date: '2026-11-02' },
  });
  must(await sendOrder(books.deps, mira, req({ orderId: id, version: await version(), how: 'printed' as const })));

  const part = (await view(id)).lines[0]?.parts[0]?.id ?? 0;
  const receive = (quantity: string) =>
    receiveGoods(
      books.deps,
      mira,
      req({
        orderId: id,
        locationId: 1,
        deliveryNote: '',
        businessDate: '',
        counted: [{ partId: part, quantity, unit: 'pack' as const }],
      }),
    );
  const level = () =>
    books.one<{ v: number }>('SELECT value_minor AS v FROM level WHERE item_id = 7 AND location_id = 1');
  const start = (await level()).v;
  const first = must(await receive('4'));
  // 4 of 10 bags: 125.60 USD, 100.48 EUR.
  expect((await level()).v - start).toBe(10_048);
  await rate('2026-11-23', 'foreign_per_base', '1.60');
  must(await receive('6'));
  // The other 188.40 USD at 1.60: 117.75 EUR; the parts add up to the line in dollars.
  expect((await level()).v - start).toBe(10_048 + 11_775);
  expect(await books.one('SELECT received_value_minor AS v FROM delivery_part WHERE id = ?', [part])).toEqual({
    v: 31_400,
  });
  must(await reverseReceipt(books.deps, mira, req({ receiptId: first.receiptId, reason: 'wrong order' })));
  expect(await books.one('SELECT received_value_minor AS v FROM delivery_part WHERE id = ?', [part])).toEqual({
    v: 18_840,
  });
});

test('landed: goods at the rate of the day, freight by the supplier’s terms, duty by code and origin', async () => {
  await books.owner.query("UPDATE supplier SET freight_fixed = 8 WHERE code = 'HOL'");
  await books.owner.query(
    "UPDATE item SET weight_kg = 0.05, hs_code = '510910', origin = 'GB' WHERE number = '10412-07'",
  );
  await books.owner.query(
    "INSERT INTO duty_rate (hs_prefix, origin, percent, valid_from) VALUES ('51', '', 8, '2026-01-01'), ('5109', 'GB', 5, '2026-01-01')",
  );
  await books.owner.query(
    "INSERT INTO charge_type (supplier_id, position, name, amount_kind, on_charges) VALUES (1, 1, 'Duty', 'duty', '')",
  );
  const file = must(await readItemFile(books.deps, mira, 7, '.'));
  const hol = file.sources.find((s) => s.supplier === 'Hollinmere Spinners')?.estimate;
  // A bag: 32.80 USD at 1.60 is 20.50 EUR; freight 8 USD is 5.00; duty 5 % of the goods 1.025, half up 1.03.
  expect([hol?.net, hol?.goods, hol?.shares.map((s) => [s.name, s.minor]), hol?.landed, hol?.each]).toEqual([
    ...[
      3280,
      2050,
      [
        ['Freight', 500],
        ['Duty', 103],
      ],
      2653,
      '2.6530',
    ],
  ]);
});

describe('a line added by hand', () => {
  test('of an item without a price takes standard cost or last price, and says so; a typed price counts', async () => {
    const need = await needOf(books, '10412-11', 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '1' })));
    must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
    const id = await open();
    const shawl = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '40933-01'");
    const add = (packs: string, price = '') =>
      addOrderLine(books.deps, mira, req({ orderId: id, itemId: shawl.id, locationId: 1, packs, price }));
    expect(await add('none')).toMatchObject({ error: { kind: 'invalid_field', field: 'packs' } });
    await books.owner.query("UPDATE item SET standard_cost = 4 WHERE number = '40933-01'");
    must(await add('5'));
    must(await add('5', '7.25'));
    const lines = (await view(id)).lines.slice(-2);
    // 4.00 EUR a piece at 1.60: 6.40 USD.
    expect(lines.map((l) => [l.price, l.origin, l.net])).toEqual([
      ['6.4', 'standard_cost', 3200],
      ['7.25', null, 3625],
    ]);
    expect(await books.rows('SELECT supplier_id FROM source WHERE item_id = ?', [shawl.id])).toEqual([
      { supplier_id: 1 },
    ]);
    const line = lines[0];
    must(
      await editOrder(
        books.deps,
        mira,
        req({ orderId: id, field: 'price' as const, lineId: line?.id ?? 0, was: '6.4', now: '6.10' }),
      ),
    );
    expect((await view(id)).lines.at(-2)?.origin).toBeNull();
  });

  test('breaks count over a price group when the source says so, also when a quantity changes', async () => {
    await books.owner.query("INSERT INTO item_family (name, option_1, price_group) VALUES ('Fen', 'colour', 'FEN')");
    await books.owner.query(
      "UPDATE item SET family_id = (SELECT MAX(id) FROM item_family) WHERE number LIKE '10412-%'",
    );
    await books.owner.query(
      "UPDATE source s JOIN item i ON i.id = s.item_id SET s.break_scope = 'price_group' WHERE i.number LIKE '10412-%'",
    );
    for (const [number, packs] of [
      ['10412-01', '5'],
      ['10412-02', '4'],
    ] as const) {
      const item = await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number]);
      must(
        await addOrderLine(
          books.deps,
          mira,
          req({ orderId: await open(), itemId: item.id, locationId: 2, packs, price: '' }),
        ),
      );
    }
    const id = await open();
    const prices = async () =>
      (await view(id)).lines.filter((l) => l.itemNumber?.startsWith('10412')).map((l) => [l.itemNumber, l.price]);
    // The draft has one bag of 10412-11 from before: 1 + 5 + 4 are ten, from which the break holds for all of them.
    const at = (price: string) => ['10412-11', '10412-01', '10412-02'].map((number) => [number, price]);
    expect(await prices()).toEqual(at('31.4'));
    const [line] = (await view(id)).lines.filter((l) => l.itemNumber === '10412-02');
    const packs = async (was: string, now: string) =>
      must(
        await editOrder(
          books.deps,
          mira,
          req({ orderId: id, field: 'packs' as const, partId: line?.parts[0]?.id ?? 0, was, now }),
        ),
      );
    await packs('4', '3');
    expect(await prices()).toEqual(at('32.8'));
    await packs('3', '5');
    expect(await prices()).toEqual(at('31.4'));
    // Without it six are left; its price, and a price that somebody set, are as they were.
    const [first] = (await view(id)).lines.filter((l) => l.itemNumber === '10412-11');
    const typed = { orderId: id, field: 'price' as const, lineId: first?.id ?? 0, was: '31.4', now: '30' };
    must(await editOrder(books.deps, mira, req(typed)));
    must(
      await editOrder(books.deps, mira, req({ orderId: id, field: 'remove' as const, lineId: line?.id ?? 0, was: '' })),
    );
    expect(await prices()).toEqual([
      ['10412-11', '30'],
      ['10412-01', '32.8'],
    ]);
  });

  test('a line by the base unit follows the breaks of its pack', async () => {
    const id = await open();
    const { id: itemId } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10688-02'");
    const add = { orderId: id, itemId, locationId: 2, packs: '12', price: '', packId: null };
    must(await addOrderLine(books.deps, mira, req(add)));
    const line = async () => (await view(id)).lines.find((l) => l.itemId === itemId);
    const before = await line();
    const { source } = await books.one<{ source: number }>(
      'SELECT id AS source FROM source WHERE item_id = ? ORDER BY preference LIMIT 1',
      [itemId],
    );
    await books.rows('DELETE FROM price WHERE source_id = ?', [source]);
    for (const [from, amount] of [
      [0, 25],
      [10, 20],
    ])
      await books.rows("INSERT INTO price (source_id, from_packs, valid_from, amount) VALUES (?, ?, '2026-01-01', ?)", [
        ...[source, from, amount],
      ]);
    const edit = (was: string, now: string) => ({
      ...{ orderId: id, field: 'packs' as const, partId: before?.parts[0]?.id ?? 0, was, now },
    });
    // Bags of five: fifteen are three, fifty are ten.
    must(await editOrder(books.deps, mira, req(edit('12', '15'))));
    expect((await line())?.expected).toBe('25');
    must(await editOrder(books.deps, mira, req(edit('15', '50'))));
    expect((await line())?.expected).toBe('20');
  });
});

test('the rate file is fetched by the worker and shown before it counts', async () => {
  expect(rateFile('2026-11-23', 1)).toBe(rateFile('2026-11-23', 1));
  const server = createServer((_, response) => response.end(rateFile('2026-11-20', 3)));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  process.env.VORRAT_RATES_URL = `http://127.0.0.1:${(server.address() as AddressInfo).port}/rates.csv`;
  try {
    must(await startJob(books.deps, otto, req({ kind: 'fetch-rates' as const })));
    await work(books);
    const [brought] = must(await readImports(books.deps, otto)).imports;
    expect(brought).toMatchObject({ kind: 'rates', state: 'to_map' });
    const previewed = await preview(books, 'rates', rateFile('2026-11-20', 3));
    expect(counts(previewed)).toEqual([12, 0, 0, 0]);
    await apply(books, previewed);
    expect(
      await books.rows("SELECT currency FROM currency_rate WHERE valid_from = '2026-11-20' ORDER BY currency"),
    ).toHaveLength(4);
  } finally {
    delete process.env.VORRAT_RATES_URL;
    server.close();
  }
});
