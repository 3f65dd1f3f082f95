import { classifyDemand } from '@/services/demand/classifyDemand';
import { measureLeadTimes } from '@/services/demand/measureLeadTimes';
import { readPolicyDetail } from '@/services/planning/readPolicyDetail';
import { beginDay } from '@/services/planning/recompute';
import { readLimitSettings, setLimits } from '@/services/setup/setLimits';
import { type Books, freshBooks, mira, must, otto, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks({ whole: true });
});
afterAll(() => books.close());

type Row = {
  itemId: number;
  locationId: number;
  annual: number | null;
  variation: number | null;
  abc: string;
  xyz: string;
};
const rows = () =>
  books.rows<Row>(
    `SELECT item_id AS itemId, location_id AS locationId, annual_minor AS annual, variation_thousandths AS variation, abc, xyz
       FROM demand_rate ORDER BY location_id, annual_minor DESC, item_id`,
  );

describe('classes of what is sold', () => {
  test('A is what makes the first eight tenths of a year’s cost at a place, in order; X, Y, Z follow the weekly variation', async () => {
    const all = await rows();
    expect(all.length).toBeGreaterThan(250);
    for (const place of new Set(all.map((r) => r.locationId))) {
      const here = all.filter((r) => r.locationId === place && r.annual !== null);
      const sum = here.reduce((a, r) => a + Number(r.annual), 0);
      let above = 0;
      for (const r of here) {
        // Common practice: what begins before the limit belongs to the class.
        const share = above / sum;
        const expected = share < 0.8 ? 'A' : share < 0.95 ? 'B' : 'C';
        // Equal values may stand in either order at the limit.
        if (Math.abs(share - 0.8) > 0.01 && Math.abs(share - 0.95) > 0.01)
          expect([r.itemId, r.abc]).toEqual([r.itemId, expected]);
        above += Number(r.annual);
      }
    }
    for (const r of all)
      if (r.variation !== null)
        expect([r.itemId, r.xyz]).toEqual([r.itemId, r.variation <= 500 ? 'X' : r.variation <= 1000 ? 'Y' : 'Z']);
  });

  test('other limits make other classes; a second look changes nothing', async () => {
    expect(await classifyDemand(books.deps)).toBe(0);
    const before = await rows();
    await books.owner.query('UPDATE company SET abc_a = 500, abc_b = 600, xyz_x = 1, xyz_y = 2');
    const changed = await classifyDemand(books.deps);
    expect(changed).toBeGreaterThan(0);
    const after = await rows();
    const count = (of: readonly Row[], abc: string) => of.filter((r) => r.abc === abc).length;
    expect(count(after, 'A')).toBeLessThan(count(before, 'A'));
    expect(count(after, 'C')).toBeGreaterThan(count(before, 'C'));
    expect(after.filter((r) => r.xyz === 'Z').length).toBeGreaterThan(before.filter((r) => r.xyz === 'Z').length);
    expect(await classifyDemand(books.deps)).toBe(0);
    await books.owner.query('UPDATE company SET abc_a = 800, abc_b = 950, xyz_x = 500, xyz_y = 1000');
    expect(await classifyDemand(books.deps)).toBe(changed);
    expect(await rows()).toEqual(before);
  });
});

describe('lead times as they were', () => {
  type Figures = { n: number; mean: string; median: string; observed: string };
  const figures = (supplierId: number) =>
    books.one<Figures>(
      'SELECT n, mean_days AS mean, median_days AS median, observed FROM supplier_lead_time WHERE supplier_id = ?',
      [supplierId],
    );

  test('each delivery counts, from order to receipt in calendar days; the latest sixty are kept as they were', async () => {
    const came = await books.rows<{ supplierId: number; days: number }>(
      `SELECT supplier_id AS supplierId, DATEDIFF(received_on, ordered_on) AS days FROM past_delivery
       UNION ALL
       SELECT o.supplier_id, DATEDIFF(r.business_date, o.order_date) FROM goods_receipt r
         JOIN goods_receipt_line g ON g.receipt_id = r.id JOIN purchase_order o ON o.id = r.order_id
        WHERE NOT EXISTS (SELECT 1 FROM receipt_reversal v WHERE v.receipt_id = r.id)`,
    );
    const supplierId = came[0]?.supplierId ?? 0;
    const days = came.filter((d) => d.supplierId === supplierId).map((d) => d.days);
    await measureLeadTimes(books.deps, '2026-11-23');
    const measured = await figures(supplierId);
    expect(measured.n).toBe(days.length);
    expect(Number(measured.mean)).toBeCloseTo(days.reduce((a, b) => a + b, 0) / days.length, 3);
    const sorted = [...days].sort((a, b) => a - b);
    const middle = (sorted.length - 1) / 2;
    expect(Number(measured.median)).toBeCloseTo(
      ((sorted[Math.floor(middle)] ?? 0) + (sorted[Math.ceil(middle)] ?? 0)) / 2,
      3,
    );
    expect(JSON.parse(measured.observed)).toHaveLength(Math.min(60, days.length));
  });

  test('the advised minimum names whose lead times it used', async () => {
    const { itemId } = await books.one<{ itemId: number }>(
      `SELECT s.item_id AS itemId FROM source s JOIN supplier p ON p.id = s.supplier_id JOIN demand_rate r ON r.item_id = s.item_id
        WHERE p.code = 'HOL' AND r.location_id = 1 AND r.per_day > 0 LIMIT 1`,
    );
    const at = { itemId, locationId: 1 };
    const measured = must(await readPolicyDetail(books.deps, mira, at)).advice;
    expect(measured).toMatchObject({ leadFrom: 'measured' });
    await books.owner.query('DELETE FROM supplier_lead_time');
    const stated = must(await readPolicyDetail(books.deps, mira, at)).advice;
    expect(stated).toMatchObject({ leadFrom: 'stated', observed: 0 });
  });
});

test('limits are set as typed; classes follow when the worker has measured again', async () => {
  const view = must(await readLimitSettings(books.deps, otto));
  expect(view).toMatchObject({ may: true, currency: 'EUR', typed: { a: '80', b: '95', recountAmount: '50.00' } });
  expect(must(await readLimitSettings(books.deps, mira)).may).toBe(false);
  const set = (change: Partial<typeof view.typed>, was = view.typed) =>
    setLimits(books.deps, otto, req({ ...view.typed, ...change, was }));
  for (const [change, field] of [
    [{ a: 'x' }, 'a'],
    [{ y: '0.1' }, 'y'],
    [{ least: '0' }, 'least'],
    [{ empirical: '2' }, 'empirical'],
    [{ recountShare: '101' }, 'recountShare'],
    [{ recountAmount: 'much' }, 'recountAmount'],
    [{ promiseDays: 'soon' }, 'promiseDays'],
    [{ carrying: '120' }, 'carrying'],
    [{ orderCost: 'some' }, 'orderCost'],
    [{ transport: '1.250' }, 'transport'],
  ] as const)
    expect(await set(change)).toMatchObject({ error: { kind: 'invalid_field', field } });
  const before = (await rows()).filter((r) => r.abc === 'A').length;
  must(await set({ a: '40', recountShare: '10', recountAmount: '20', promiseDays: '21', promiseRule: 'stock' }));
  expect(await set({ a: '50' })).toMatchObject({ error: { kind: 'changed_meanwhile' } });
  await beginDay(books.deps);
  expect((await rows()).filter((r) => r.abc === 'A').length).toBeLessThan(before);
  const now = must(await readLimitSettings(books.deps, otto)).typed;
  expect(now).toMatchObject({
    a: '40',
    recountShare: '10',
    recountAmount: '20.00',
    promiseDays: '21',
    promiseRule: 'stock',
  });
  must(await set({}, now));
});
