import { fromDecimal } from '@/core/quantity';
import { readListExport } from '@/services/lists/readListExport';
import { readChanges } from '@/services/people/readChanges';
import { readOutlook } from '@/services/planning/readOutlook';
import { allocateStock } from '@/services/stock/allocateStock';
import { correctStock } from '@/services/stock/correctStock';
import { readMovementExport } from '@/services/stock/readMovementExport';
import { type MovementsAsked, readMovements } from '@/services/stock/readMovements';
import { readMoverExport } from '@/services/stock/readMoverExport';
import { readMovers } from '@/services/stock/readMovers';
import { openStock, readStockRows, type StockAsked } from '@/services/stock/readStock';
import { readStockReasons } from '@/services/stock/readStockReasons';
import { readStockValue } from '@/services/stock/readStockValue';
import { readStockValueExport } from '@/services/stock/readStockValueExport';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { csvOf } from './sheetSupport';
import { type Books, freshBooks, jun, mira, must, needOf, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const [HS, MH] = [1, 3] as const;
const units = (n: number) => fromDecimal(String(n));
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const onHand = async (item: number, place: number) =>
  Number(
    (
      await books.one<{ q: string }>('SELECT on_hand AS q FROM level WHERE item_id = ? AND location_id = ?', [
        item,
        place,
      ])
    ).q,
  );
const reason = async (name: string) =>
  must(await readStockReasons(books.deps, mira)).find((r) => r.name === name)?.id ?? 0;
const correct = async (item: number, how: 'by' | 'to', quantity: string, why = 'Damaged', place: number = HS) =>
  correctStock(
    books.deps,
    mira,
    req({ locationId: place, reasonId: await reason(why), note: 'wet', lines: [{ itemId: item, how, quantity }] }),
  );
const every: MovementsAsked = {
  ...{ search: '', itemId: null, locationId: null, userId: null, kind: null, reasonId: null },
  ...{ document: '', from: '', to: '', before: 0 },
};
const movements = async (asked: Partial<MovementsAsked>) =>
  must(await readMovements(books.deps, mira, { ...every, ...asked }));
const stock = async (asked: Partial<StockAsked>, actor = mira) => {
  const all: StockAsked = { search: '', locationId: null, sort: 'name', category: '', show: '', days: 90 };
  const head = must(await openStock(books.deps, actor, { ...all, ...asked }));
  const page = must(await readStockRows(books.deps, actor, { list: head.list, from: 0 }));
  return { head, rows: page.rows };
};

describe('corrections', () => {
  test('by so much, and to what is there: quantity, value at average, reason and document stand in the movements', async () => {
    const item = await itemId('10412-03');
    const before = await onHand(item, HS);
    const less = must(await correct(item, 'by', '-2'));
    expect(await onHand(item, HS)).toBe(before - 2);
    must(await correct(item, 'to', String(before), 'Found'));
    expect(await onHand(item, HS)).toBe(before);
    const { movements: rows, item: named } = await movements({ itemId: item, locationId: HS, kind: 'correction' });
    expect(named?.number).toBe('10412-03');
    expect(rows.map((m) => [Number(m.onHandChange), m.reason, m.note, m.who])).toEqual([
      [2, 'Found', 'wet', 'Mira Rook'],
      [-2, 'Damaged', 'wet', 'Mira Rook'],
    ]);
    // What comes in at the average is worth what the same quantity left with, to the cent.
    expect(Math.abs((rows[0]?.valueChange ?? 0) + (rows[1]?.valueChange ?? 0))).toBeLessThanOrEqual(1);
    expect(rows[1]?.documentNumber).toBe(less.correction);
    expect(less.correction).toMatch(/^K2611-\d{4}$/);
    const found = await movements({ document: less.correction });
    expect(found.movements.map((m) => m.itemNumber)).toEqual(['10412-03']);
    expect(await violations(books)).toEqual([]);
  });

  test('a level that is crossed is said at that moment; promises that can not be kept are named', async () => {
    const item = await itemId('10412-01');
    const state = await books.one<{ min: string; max: string }>(
      'SELECT level_quantity AS min, max_quantity AS max FROM item_location_state WHERE item_id = ? AND location_id = ?',
      [item, HS],
    );
    must(await correct(item, 'to', String(Number(state.max)), 'Found'));
    const over = must(await correct(item, 'by', '1', 'Found'));
    expect(over.crossed).toMatchObject([{ crossing: 'above_max', level: units(Number(state.max)) }]);
    must(
      await allocateStock(books.deps, mira, req({ itemId: item, locationId: HS, quantity: '5', promisedTo: 'Ada' })),
    );
    const low = must(await correct(item, 'to', String(Number(state.min))));
    expect(low.crossed).toMatchObject([{ crossing: 'below_min', now: units(Number(state.min)) }]);
    expect(low.released).toEqual([]);
    const out = must(await correct(item, 'to', '3'));
    expect(out.released).toMatchObject([{ promisedTo: 'Ada' }]);
    const below = must(await correct(item, 'by', '-4'));
    expect(below.crossed).toMatchObject([{ crossing: 'below_zero' }]);
    expect(await onHand(item, HS)).toBe(-1);
    expect((await stock({ show: 'negative', locationId: HS })).rows.map((r) => r.number)).toContain('10412-01');
    expect(await violations(books)).toEqual([]);
  });

  test('what makes no sense is said where it was typed and changes nothing', async () => {
    const item = await itemId('10412-03');
    const had = await onHand(item, HS);
    expect(await correct(item, 'to', '-3')).toMatchObject({ error: { kind: 'invalid_field', field: 'lines.0' } });
    expect(await correct(item, 'by', 'two')).toMatchObject({ error: { kind: 'invalid_field', field: 'lines.0' } });
    expect(await correct(item, 'to', String(had))).toMatchObject({
      error: { kind: 'invalid_field', field: 'lines.0' },
    });
    expect(await correct(item, 'by', '1', 'no such reason')).toMatchObject({ error: { kind: 'not_found' } });
    const elsewhere = {
      locationId: HS,
      reasonId: 1,
      note: '',
      lines: [{ itemId: item, how: 'by', quantity: '1' }],
    } as const;
    expect(await correctStock(books.deps, jun, req(elsewhere))).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
    expect(await onHand(item, HS)).toBe(had);
  });
});

describe('movements', () => {
  test('running quantity and value of an item at a place end in what is there; the balance of a day is the sum up to it', async () => {
    const item = await itemId('10412-07');
    const lines = [{ itemId: item, quantity: '3', allocationId: null }];
    must(await sellGoods(books.deps, mira, req({ locationId: HS, businessDate: '2026-11-20', lines })));
    const view = await movements({ itemId: item, locationId: HS });
    const level = await books.one<{ q: string; v: number }>(
      'SELECT on_hand AS q, value_minor AS v FROM level WHERE item_id = ? AND location_id = ?',
      [item, HS],
    );
    expect(Number(view.movements[0]?.runningQuantity)).toBe(Number(level.q));
    expect(view.movements[0]?.runningValue).toBe(level.v);
    expect(view.balance).toMatchObject([{ location: 'Harbour Street', value: level.v }]);
    const oldest = await movements({ itemId: item, locationId: HS, to: '2026-11-19' });
    expect(Number(oldest.balance[0]?.quantity)).toBe(Number(level.q) + 3);
    expect(view.movements[0]).toMatchObject({ kind: 'sale', businessDate: '2026-11-20' });
  });

  test('filters by place, person, kind, days; shop staff see those of their place', async () => {
    const all = await movements({});
    expect(new Set(all.movements.map((m) => m.location)).size).toBeGreaterThan(1);
    const own = must(await readMovements(books.deps, jun, every));
    expect(new Set(own.movements.map((m) => m.location))).toEqual(new Set(['Market Hall']));
    expect(await readMovements(books.deps, jun, { ...every, locationId: HS })).toMatchObject({
      error: { kind: 'forbidden' },
    });
    const sales = await movements({ kind: 'sale', from: '2026-11-20', to: '2026-11-20', userId: mira.userId });
    expect(sales.movements.map((m) => m.itemNumber)).toEqual(['10412-07']);
    expect((await movements({ reasonId: await reason('Own use') })).movements).toEqual([]);
    const second = await movements({ before: all.movements.at(-1)?.id ?? 0 });
    expect(second.movements.some((m) => all.movements.some((a) => a.id === m.id))).toBe(false);
  });

  test('the file has a line for each', async () => {
    const asked = { ...every, locationId: MH };
    const text = await csvOf(must(await readMovementExport(books.deps, mira, asked)));
    const { n } = await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM movement WHERE location_id = ?', [MH]);
    const lines = text.replace('\ufeff', '').trim().split('\r\n');
    expect(lines).toHaveLength(Number(n) + 1);
    expect(lines[0]).toMatch(/^Day,Item,Name,Where,What,Reason,Document,Change,Value,/);
  });
});

describe('what is there', () => {
  test('every term apart, adding up; value of the list = value in the books', async () => {
    const { head, rows } = await stock({ locationId: HS, search: 'merino' });
    expect(rows).toHaveLength(head.count);
    for (const { places } of rows)
      for (const p of places) expect(p.free).toBe(p.onHand - p.allocated - p.inspection - p.blocked);
    const all = await stock({});
    const books_ = await books.one<{ v: number }>(
      `SELECT CAST(SUM(l.value_minor) AS SIGNED) AS v FROM level l JOIN location p ON p.id = l.location_id
         JOIN item i ON i.id = l.item_id WHERE p.kind <> 'transit' AND i.stock_kept = 1`,
    );
    expect(all.head.value).toBe(Number(books_.v));
    expect((await stock({}, jun)).rows[0]?.places.map((p) => p.location)).toEqual(['Market Hall']);
  });

  test('below minimum and above maximum hold what the run says; nothing sold for n days', async () => {
    const below = await stock({ show: 'below', locationId: HS });
    expect(below.rows.map((r) => r.number)).toContain('10412-11');
    expect(below.rows.every((r) => r.places.some((p) => p.belowMin))).toBe(true);
    const item = await itemId('10412-05');
    const max = await books.one<{ max: string }>(
      'SELECT max_quantity AS max FROM item_location_state WHERE item_id = ? AND location_id = ?',
      [item, HS],
    );
    must(await correct(item, 'to', String(Number(max.max) + 500), 'Found'));
    const above = await stock({ show: 'above', locationId: HS });
    const line = above.rows.find((r) => r.number === '10412-05');
    expect(line?.places[0]?.excess).toBeGreaterThan(0);
    expect(line?.places[0]?.surplus).toBeGreaterThan(0);
    const sold = await stock({ show: 'idle', days: 30, locationId: HS });
    expect(sold.rows.map((r) => r.number)).not.toContain('10412-07');
  });

  test('value on a day by category and place adds up, and is what the books held then', async () => {
    const now = must(await readStockValue(books.deps, mira, { on: '' }));
    const held = await books.one<{ v: number }>('SELECT CAST(SUM(value_minor) AS SIGNED) AS v FROM level');
    expect(now.total).toBe(Number(held.v));
    expect(now.sums.reduce((a, b) => a + b, 0)).toBe(now.total);
    expect(now.rows.reduce((a, r) => a + r.sum, 0)).toBe(now.total);
    const then = must(await readStockValue(books.deps, mira, { on: '2026-11-19' }));
    const moved = await books.one<{ v: number }>(
      "SELECT CAST(SUM(value_change_minor) AS SIGNED) AS v FROM movement WHERE business_date > '2026-11-19'",
    );
    expect(now.total - then.total).toBe(Number(moved.v));
    const text = await csvOf(must(await readStockValueExport(books.deps, mira, { on: '' })));
    expect(text.trim().split('\r\n')).toHaveLength(now.rows.length + 1);
  });
});

describe('stock through time', () => {
  test('each day closes with what the day before left, plus receipts, less demand; levels are those of the plan', async () => {
    const item = await itemId('10412-11');
    const view = must(await readOutlook(books.deps, mira, { itemId: item, locationId: HS }));
    expect(view.days).toHaveLength(63);
    let stock = view.stock - view.owed;
    for (const d of view.days) {
      stock += d.receipts - d.demand;
      expect(d.closing).toBeCloseTo(stock, -1);
    }
    const need = await needOf(books, '10412-11', 'HS');
    expect(need.state).toBe('open');
    expect(view.runOut).not.toBeNull();
    expect(view.min).toBeGreaterThan(0);
    expect((await readOutlook(books.deps, jun, { itemId: item, locationId: HS })).ok).toBe(false);
    expect(await readOutlook(books.deps, mira, { itemId: 999_999, locationId: HS })).toMatchObject({
      error: { kind: 'not_found' },
    });
  });

  test('an order that is on its way stands on its day under its number', async () => {
    const { item, place } = await books.one<{ item: number; place: number }>(
      `SELECT l.item_id AS item, d.location_id AS place FROM order_line l JOIN delivery_part d ON d.order_line_id = l.id
         JOIN purchase_order o ON o.id = l.order_id WHERE o.state = 'sent' AND d.received_quantity < d.base_quantity AND l.item_id IS NOT NULL LIMIT 1`,
    );
    const view = must(await readOutlook(books.deps, mira, { itemId: item, locationId: place }));
    const open = view.receipts.filter((r) => r.kind === 'order');
    expect(open.length).toBeGreaterThan(0);
    for (const r of open) {
      expect(r.ref).toMatch(/^2611-|^26\d\d-/);
      expect(view.days.find((d) => d.date === r.date)?.receipts ?? r.quantity).toBeGreaterThanOrEqual(r.quantity);
    }
  });
});

describe('what a movement crosses is said with it, and stops nothing', () => {
  test('a sale down to the minimum, and one below zero', async () => {
    const item = await itemId('10412-09');
    const { min } = await books.one<{ min: string }>(
      'SELECT level_quantity AS min FROM item_location_state WHERE item_id = ? AND location_id = ?',
      [item, HS],
    );
    must(await correct(item, 'to', String(Number(min) + 1), 'Found'));
    const sell = async (quantity: string) => {
      const lines = [{ itemId: item, quantity, allocationId: null }];
      return must(await sellGoods(books.deps, mira, req({ locationId: HS, businessDate: '', lines }))).crossed;
    };
    expect(await sell('1')).toMatchObject([{ crossing: 'below_min', now: units(Number(min)) }]);
    expect(await sell('1')).toEqual([]);
    expect(await sell(String(Number(min) + 5))).toMatchObject([{ crossing: 'below_zero' }]);
    expect(await violations(books)).toEqual([]);
  });

  test('a transfer takes the sender to its minimum and the receiver over its maximum', async () => {
    const item = await itemId('10412-05');
    const level = async (place: number) =>
      books.one<{ min: string; max: string }>(
        'SELECT level_quantity AS min, max_quantity AS max FROM item_location_state WHERE item_id = ? AND location_id = ?',
        [item, place],
      );
    const [from, to] = [await level(HS), await level(MH)];
    must(await correct(item, 'to', String(Number(from.min) + 10), 'Found'));
    must(await correct(item, 'to', String(Number(to.max) - 1), 'Found', MH));
    const ship = { fromLocationId: HS, toLocationId: MH, lines: [{ itemId: item, quantity: '10' }] };
    const shipped = must(await shipTransfer(books.deps, mira, req(ship)));
    expect(shipped.crossed).toMatchObject([{ locationId: HS, crossing: 'below_min' }]);
    const lines = [{ lineNo: 1, received: '10', lost: '', reason: '' }];
    const received = must(await receiveTransfer(books.deps, mira, req({ transferId: shipped.transferId, lines })));
    expect(received.crossed).toMatchObject([{ locationId: MH, crossing: 'above_max' }]);
  });

  test('a correction is an issue at average: goods booked in for an earlier day change what it cost', async () => {
    const order = await books.one<{ order: number; part: number }>(
      `SELECT l.order_id AS \`order\`, d.id AS part FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id
         JOIN purchase_order o ON o.id = l.order_id
        WHERE o.state = 'sent' AND d.location_id = ? AND l.item_id IS NOT NULL AND d.received_quantity < d.base_quantity LIMIT 1`,
      [HS],
    );
    const { item: ordered } = await books.one<{ item: number }>(
      'SELECT l.item_id AS item FROM order_line l JOIN delivery_part d ON d.order_line_id = l.id WHERE d.id = ?',
      [order.part],
    );
    must(await correct(ordered, 'to', '9'));
    must(await correct(ordered, 'by', '-3'));
    const counted = [{ partId: order.part, quantity: '1', unit: 'pack' as const }];
    const input = { orderId: order.order, locationId: HS, deliveryNote: '', businessDate: '2026-11-20', counted };
    must(await receiveGoods(books.deps, mira, req(input)));
    const kinds = (await movements({ itemId: ordered, locationId: HS })).movements.map((m) => m.kind);
    expect(kinds.slice(0, 2)).toEqual(['cost_adjustment', 'receipt']);
    expect(await violations(books)).toEqual([]);
  });
});

test('every change of stock names its document in the list of changes', async () => {
  const asked = { area: 'stock' as const, userId: null, from: '', to: '', before: 0 };
  const { lines } = must(await readChanges(books.deps, mira, asked));
  const of = (entity: string) => lines.filter((l) => l.entity === entity);
  expect(of('stock_document').length).toBeGreaterThan(5);
  expect(of('stock_document').every((l) => /^[KSC]2611-\d{4}$/.test(l.name ?? ''))).toBe(true);
  expect(of('transfer').map((l) => l.name)).toContainEqual(expect.stringMatching(/^T2611-\d{4}$/));
});

test('movers: the sums of the books, the order asked for, and what has not sold at all', async () => {
  const asked = { order: 'sold' as const, days: 91, locationId: 1, category: '' };
  const fast = must(await readMovers(books.deps, mira, asked));
  expect(fast.lines.length).toBeGreaterThan(10);
  const costs = fast.lines.map((l) => l.costOfSales ?? 0);
  expect(costs).toEqual([...costs].sort((a, b) => b - a));
  const [first] = fast.lines as [(typeof fast.lines)[number], ...typeof fast.lines];
  const { sold } = await books.one<{ sold: string }>(
    `SELECT SUM(-on_hand_change) AS sold FROM movement WHERE item_id = ? AND location_id = 1 AND kind = 'sale'
        AND business_date >= DATE_SUB('2026-11-23', INTERVAL 91 DAY)`,
    [first.itemId],
  );
  expect(first.sold).toBe(Number(sold) * 1e6);
  expect(first.turns).toBeCloseTo(((first.costOfSales ?? 0) * 365) / 91 / first.value, 2);
  const slow = must(await readMovers(books.deps, mira, { ...asked, order: 'slow' }));
  const turns = slow.lines.map((l) => l.turns ?? 0);
  expect(turns).toEqual([...turns].sort((a, b) => a - b));
  const idle = must(await readMovers(books.deps, mira, { ...asked, order: 'idle' }));
  const moving = new Set(fast.lines.map((l) => l.itemId));
  expect(idle.lines.every((l) => !moving.has(l.itemId) && l.onHand > 0 && l.sold <= 0)).toBe(true);
  expect(must(await readMovers(books.deps, mira, asked, 3))).toMatchObject({ count: fast.count, lines: { length: 3 } });
  const file = must(await readMoverExport(books.deps, mira, asked));
  let rows = 0;
  for await (const some of file.rows) rows += some.length;
  expect(rows).toBe(fast.count);
});

test('the list of stock as a file: a row for each item and place, its figures those of the page', async () => {
  const asked = {
    search: '10412',
    locationId: null,
    sort: 'number' as const,
    category: '',
    show: '' as const,
    days: 0,
  };
  const head = must(await openStock(books.deps, mira, asked));
  const file = must(await readListExport(books.deps, mira, { name: 'stock', list: head.list }));
  const rows = [];
  for await (const some of file.rows) rows.push(...some);
  expect(rows.length).toBe(head.count * head.places.length);
  const page = must(await readStockRows(books.deps, mira, { list: head.list, from: 0 }));
  const [line] = page.rows;
  const [place] = line?.places ?? [];
  expect(rows[0]).toMatchObject({ item: line?.number, location: 'HS' });
  expect(Number(rows[0]?.on_hand)).toBe((place?.onHand ?? 0) / 1e6);
});

test('what is above its maximum says what of its worth is', async () => {
  const pair = await books.one<{ itemId: number; max: string }>(
    'SELECT item_id AS itemId, max_quantity AS max FROM item_location_state WHERE location_id = 2 AND max_quantity > 0 LIMIT 1',
  );
  const lines = [{ itemId: pair.itemId, how: 'to' as const, quantity: String(Number(pair.max) * 2 + 100) }];
  must(await correctStock(books.deps, mira, req({ locationId: 2, reasonId: 1, note: '', lines })));
  const asked = { search: '', locationId: 2, sort: 'name' as const, category: '', show: 'above' as const, days: 0 };
  const head = must(await openStock(books.deps, mira, asked));
  const all = await books.rows<{ excess: string; onHand: string; value: number }>(
    `SELECT s.excess, l.on_hand AS onHand, l.value_minor AS value FROM item_location_state s
       JOIN level l ON l.item_id = s.item_id AND l.location_id = s.location_id WHERE s.location_id = 2 AND s.excess > 0`,
  );
  const sum = all.reduce((a, e) => a + (e.value * Number(e.excess)) / Number(e.onHand), 0);
  expect(all.length).toBeGreaterThan(0);
  expect(head.excessValue).toBeGreaterThan(0);
  expect(Math.abs((head.excessValue ?? 0) - sum)).toBeLessThanOrEqual(all.length);
  expect(must(await openStock(books.deps, mira, { ...asked, show: '' })).excessValue).toBeNull();
});
