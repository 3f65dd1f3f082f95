import { openItems, readItem, readItemRows } from '@/services/catalogue/readItems';
import { allPolicies, openPolicies, readPolicyLines } from '@/services/planning/readPolicies';
import { readStockCourse } from '@/services/planning/readStockCourse';
import { fullNeedRun } from '@/services/planning/recompute';
import { openOrders, readOrderRows } from '@/services/purchase/readOrders';
import { readArrivals } from '@/services/stock/readArrivals';
import { seedDemo } from '../../scripts/demoData/seed';
import { type Books, freshBooks, jun, MONDAY, mira, must, otto, violations } from './support';

const tables = [
  'item',
  'pack',
  'source',
  'price',
  'policy',
  'level',
  'movement',
  'purchase_order',
  'order_line',
  'delivery_part',
  'goods_receipt_line',
  'need',
];
/** Everything that is not a time of writing or a password. */
const dump = async (books: Books) => {
  const all: Record<string, unknown> = {};
  for (const table of tables) all[table] = await books.rows(`SELECT * FROM ${table} ORDER BY 1, 2`);
  return all;
};

describe('demo data', () => {
  test('the same day gives the same data; a later day the same company, moved along', async () => {
    const [first, second, later] = [
      await freshBooks(),
      await freshBooks({ seed: false }),
      await freshBooks({ seed: false }),
    ];
    await seedDemo(second.owner, new Date(MONDAY), { small: true });
    expect(await dump(second)).toEqual(await dump(first));
    await seedDemo(later.owner, new Date('2027-02-10T09:00:00Z'), { small: true });
    const newest = (b: Books) => b.one<{ d: string }>('SELECT MAX(business_date) AS d FROM movement');
    expect([(await newest(first)).d, (await newest(later)).d]).toEqual(['2026-11-16', '2027-02-03']);
    const stock = (b: Books) => b.rows('SELECT item_id, location_id, on_hand FROM level ORDER BY 1, 2');
    expect(await stock(later)).toEqual(await stock(first));
    expect(await violations(later)).toEqual([]);
    for (const books of [first, second, later]) await books.close();
  });
});

describe('what pages read', () => {
  let books: Books;
  beforeAll(async () => {
    books = await freshBooks();
  });
  afterAll(() => books.close());

  test('items: by name or number, all places or one; a stock total is the sum of its places', async () => {
    const read = async (search: string, locationId: number | null = null) => {
      const head = must(await openItems(books.deps, mira, { search, locationId, sort: 'name' }));
      const { rows } = must(await readItemRows(books.deps, mira, { list: head.list, from: 0 }));
      expect(rows).toHaveLength(head.count);
      expect(rows.reduce((sum, r) => sum + r.value, 0)).toBe(head.value);
      return rows;
    };
    expect(await read('')).toHaveLength(81);
    expect((await read('10412-07')).map((i) => i.item.name)).toEqual(['Fen merino 4-ply, moss']);
    expect((await read('MOSS')).map((i) => i.item.number)).toEqual(['10412-07']);
    expect(await read('100%_no_such')).toEqual([]);
    for (const i of await read('needle')) {
      expect(i.byPlace.reduce((sum, p) => sum + p.free, 0)).toBe(i.gauge.free);
      expect([i.gauge.min, i.gauge.max]).toEqual([null, null]);
    }
    const [here] = await read('10412-07', 1);
    expect(here?.gauge).toMatchObject({ free: 12_000_000, coming: 10_000_000, min: 28_000_000, max: 76_000_000 });
    expect((await read('Row counter'))[0]).toMatchObject({ supplier: 'Ishimura-dai Needles', each: null });
    expect((await read('Shawl pin'))[0]).toMatchObject({ supplier: null });
  });

  test('an item: its movements run up to its stock, with packs, sources and purchases', async () => {
    const view = must(await readItem(books.deps, mira, 7));
    for (const place of view.places) {
      const last = view.movements.find((m) => m.locationId === place.locationId);
      expect(Math.round(Number(last?.runningOnHand) * 1e6)).toBe(place.gauge.onHand);
    }
    expect(view.packs.map((p) => [p.name, Number(p.content.num / p.content.den)])).toEqual([
      ['bag', 10],
      ['carton', 60],
    ]);
    expect(view.sources.map((s) => [s.source.supplierName, s.perPack, s.each])).toEqual([
      ['Hollinmere Spinners', '32.800000', '3.2800'],
      ['Narrowick Wool', '222.600000', '3.7100'],
    ]);
    expect(view.bought.map((b) => b.number)).toEqual(['2611-0002', '2610-0001', '2609-0001']);
    expect(must(await readItem(books.deps, jun, 7)).places.map((p) => p.location)).toEqual(['Market Hall']);
    expect(await readItem(books.deps, mira, 999_999)).toMatchObject({ error: { kind: 'not_found' } });
  });

  test('policies: what is in force and where it comes from', async () => {
    const all = allPolicies;
    const head = must(await openPolicies(books.deps, mira, all));
    expect(head).toMatchObject({ count: 81 * 5, items: 81, locations: 4, without: 4 });
    const page = async (from: number) => must(await readPolicyLines(books.deps, mira, { list: head.list, from })).rows;
    const lines = [...(await page(0)), ...(await page(200)), ...(await page(400))];
    expect(lines).toHaveLength(head.count);
    expect(await page(397)).toEqual(lines.slice(397));
    // Somebody else's list, or one that is gone, is opened again.
    expect(await readPolicyLines(books.deps, otto, { list: head.list, from: 0 })).toMatchObject({
      error: { kind: 'list_gone' },
    });
    const rows = lines.filter((l) => l.locationId !== null).map((r) => ({ item: r.number, ...r }));
    expect(rows.filter((r) => r.kind === 'none').map((r) => r.item)).toEqual(Array(4).fill('22290-02'));
    expect(rows.filter((r) => r.kind === 'not_carried').map((r) => [r.item, r.location])).toEqual([
      ['70002-01', 'Market Hall'],
      ['70002-02', 'Market Hall'],
    ]);
    const inherited = rows.filter((r) => r.origin === 'item');
    expect(inherited.length).toBeGreaterThan(10);
    for (const r of inherited) {
      const every = lines.find((l) => l.number === r.item && l.locationId === null);
      expect([r.values.min, r.values.max]).toEqual([every?.values.min, every?.values.max]);
    }
  });

  test('the course of stock: its last day is today’s stock, a day further back what movements say', async () => {
    const course = must(await readStockCourse(books.deps, mira, { itemId: 7, locationId: 1 }));
    expect(course).toMatchObject({ from: '2026-09-28', today: '2026-11-23', arrives: '2026-12-01' });
    expect(course.days).toHaveLength(57);
    const sumTo = async (date: string) =>
      Number(
        (
          await books.one<{ q: string }>(
            'SELECT SUM(on_hand_change) AS q FROM movement WHERE item_id = 7 AND location_id = 1 AND business_date <= ?',
            [date],
          )
        ).q,
      ) * 1_000_000;
    expect([course.days[0], course.days[30], course.days[56]]).toEqual([
      await sumTo('2026-09-28'),
      await sumTo('2026-10-28'),
      await sumTo('2026-11-23'),
    ]);
    expect(course.expected).toEqual([{ date: '2026-11-30', quantity: 10_000_000 }]);
    expect((await readStockCourse(books.deps, jun, { itemId: 7, locationId: 1 })).ok).toBe(false);
  });

  test('orders and arrivals: open ones first asked for, late ones first expected', async () => {
    const read = async (all: boolean) => {
      const head = must(await openOrders(books.deps, mira, { show: all ? 'all' : 'open', search: '', sort: 'newest' }));
      return must(await readOrderRows(books.deps, mira, { list: head.list, from: 0 })).rows;
    };
    const open = await read(false);
    expect(open.map((o) => [o.number, o.state, o.came])).toEqual([
      ['2611-0002', 'approved', 'nothing'],
      ['2611-0001', 'sent', 'part'],
      ['2610-0003', 'sent', 'nothing'],
    ]);
    expect(await read(true)).toHaveLength(7);
    const dates = must(await readArrivals(books.deps, mira, { locationId: null })).arrivals.map(
      (a) => a.expectedDate ?? '',
    );
    expect(dates).toEqual([...dates].sort());
  });

  test('a stopped item is never bought again', async () => {
    await books.owner.query("UPDATE item SET status = 'stopped' WHERE number = '10412-11'");
    await fullNeedRun(books.deps);
    const state = await books.one(
      "SELECT n.state FROM need n JOIN item i ON i.id = n.item_id WHERE i.number = '10412-11'",
    );
    expect(state).toEqual({ state: 'none' });
  });

  test('a blocked supplier gives way to the next source', async () => {
    await books.owner.query("UPDATE supplier SET status = 'blocked' WHERE code = 'HOL'");
    await fullNeedRun(books.deps);
    const need = await books.one(
      `SELECT s.code, n.suggested FROM need n JOIN item i ON i.id = n.item_id JOIN source q ON q.id = n.source_id
         JOIN supplier s ON s.id = q.supplier_id WHERE i.number = '10412-07' AND n.location_id = 1`,
    );
    // Cartons of 60 cover what bags of 10 did.
    expect(need).toEqual({ code: 'NAR', suggested: '60.000000' });
  });
});
