import { workOnce } from '@/jobs/worker';
import { measureAllDemand } from '@/services/demand/measureDemand';
import { readMovements } from '@/services/stock/readMovements';
import { sellGoods } from '@/services/stock/sellGoods';
import { takeTillDay } from '@/services/stock/takeTillDay';
import { takeTillSales } from '@/services/work/takeTillSales';
import { startTill } from '@/standins/till';
import { type Books, freshBooks, jun, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks({ whole: true });
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const HS = 1;
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const onHand = async (item: number) =>
  Number(
    (await books.one<{ q: string }>('SELECT on_hand AS q FROM level WHERE item_id = ? AND location_id = ?', [item, HS]))
      .q,
  );

test('a kit that is sold takes its components, on lines of theirs', async () => {
  const [kit, yarn, needle] = [await itemId('60010-01'), await itemId('10412-07'), await itemId('31080-04')];
  const before = [await onHand(yarn), await onHand(needle)] as const;
  const lines = [
    { itemId: kit, quantity: '2', allocationId: null },
    { itemId: needle, quantity: '1', allocationId: null },
  ];
  const sold = must(await sellGoods(books.deps, mira, req({ locationId: HS, businessDate: '', lines })));
  expect([await onHand(yarn), await onHand(needle)]).toEqual([before[0] - 8, before[1] - 3]);
  const all = await books.rows<{ lineNo: number; itemId: number; q: string; moves: number; kit: number | null }>(
    `SELECT l.line_no AS lineNo, l.item_id AS itemId, l.quantity AS q, l.moves_stock AS moves, l.kit_line AS kit
       FROM stock_document_line l JOIN stock_document d ON d.id = l.document_id WHERE d.number = ? ORDER BY l.line_no`,
    [sold.sale],
  );
  expect(all.slice(0, 2).map((l) => [l.itemId, l.moves, l.kit])).toEqual([
    [kit, 0, null],
    [needle, 1, null],
  ]);
  expect(all.slice(2).every((l) => l.kit === 1 && l.moves === 1)).toBe(true);
  expect(all.find((l) => l.itemId === yarn)?.q).toBe('8.000000');
});

test('history of kits that was brought counts as use of their components', async () => {
  const [kit, needle] = [await itemId('60010-03'), await itemId('31300-01')];
  const rate = async () =>
    Number(
      (
        await books.one<{ r: string }>(
          'SELECT COALESCE(MAX(per_day), 0) AS r FROM demand_rate WHERE item_id = ? AND location_id = ?',
          [needle, HS],
        )
      ).r,
    );
  const before = await rate();
  await books.rows(
    "INSERT INTO daily_demand (item_id, location_id, day, quantity) VALUES (?, 1, '2026-09-01', 50), (?, 1, '2026-10-01', 41)",
    [kit, kit],
  );
  await measureAllDemand(books.deps, true);
  expect(await rate()).toBeGreaterThan(before + 0.9);
});

test('a day of a till is taken once; what nobody knows takes nothing', async () => {
  const yarn = await itemId('10412-05');
  const before = await onHand(yarn);
  const day = (rows: { row: number; code: string; quantity: string }[]) =>
    takeTillDay(books.deps, mira, req({ place: 'HS', day: '2026-11-18', rows }));
  expect(await day([{ row: 2, code: 'nothing', quantity: '1' }])).toMatchObject({
    error: { kind: 'wrong_count_rows' },
  });
  const taken = must(
    await day([
      { row: 2, code: '10412-05', quantity: '2' },
      { row: 3, code: '10412-05', quantity: '1' },
    ]),
  );
  expect(taken.sale).toMatch(/^S2611-/);
  expect(must(await day([{ row: 2, code: '10412-05', quantity: '9' }]))).toEqual({ sale: null, crossed: 0 });
  expect(await onHand(yarn)).toBe(before - 3);
  expect(await takeTillDay(books.deps, jun, req({ place: 'HS', day: '2026-11-17', rows: [] }))).toMatchObject({
    error: { kind: 'forbidden' },
  });
});

test('the worker plays a span of days of all tills, also a second time without harm', async () => {
  const till = await startTill(0);
  process.env.VORRAT_TILL_URL = till.url;
  try {
    const span = { from: '2026-11-19', to: '2026-11-21' };
    expect(await takeTillSales(books.deps, mira, req({ from: '2026-11-21', to: '2026-11-19' }))).toMatchObject({
      error: { field: 'to', fault: { kind: 'not_a_span' } },
    });
    expect(await takeTillSales(books.deps, mira, req({ from: '2026-12-01', to: '' }))).toMatchObject({
      error: { fault: { kind: 'in_the_future' } },
    });
    const run = async () => {
      must(await takeTillSales(books.deps, mira, req(span)));
      for (let job = await workOnce({ id: 'w1', deps: books.deps }); job; )
        job = await workOnce({ id: 'w1', deps: books.deps });
    };
    await run();
    const sales = () =>
      books.rows<{ place: number; day: string; n: number }>(
        `SELECT MIN(d.location_id) AS place, MIN(d.business_date) AS day, COUNT(*) AS n FROM stock_document d
           JOIN stock_document_line l ON l.document_id = d.id
          WHERE d.note = 'till' AND d.business_date >= '2026-11-19' GROUP BY d.id ORDER BY d.id`,
      );
    const first = await sales();
    // Three days of three shops and the warehouse.
    expect(first.length).toBe(12);
    expect(first.every((s) => s.n > 5)).toBe(true);
    await run();
    expect(await sales()).toEqual(first);
    const asked = {
      ...{
        search: '',
        itemId: null,
        locationId: HS,
        userId: null,
        kind: 'sale' as const,
        reasonId: null,
        document: '',
      },
      ...{ from: '2026-11-20', to: '2026-11-20', before: 0 },
    };
    expect(must(await readMovements(books.deps, mira, asked)).movements.length).toBeGreaterThan(5);
  } finally {
    delete process.env.VORRAT_TILL_URL;
    await till.close();
  }
});
