import { addDays } from '@/core/calendar';
import { measureAllDemand, measureDemand } from '@/services/demand/measureDemand';
import { beginDay } from '@/services/planning/recompute';
import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, mira, must, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const TODAY = '2026-11-23';
type Rate = { itemId: number; locationId: number; perDay: string };
const rates = () =>
  books.rows<Rate>(
    'SELECT item_id AS itemId, location_id AS locationId, per_day AS perDay FROM demand_rate ORDER BY 1, 2',
  );

test('the stored use per day of every pair is the mean of 91 days, counted day by day from the movements', async () => {
  const movements = await books.rows<{ itemId: number; locationId: number; date: string; kind: string; q: string }>(
    `SELECT item_id AS itemId, location_id AS locationId, DATE_FORMAT(business_date, '%Y-%m-%d') AS date, kind,
            on_hand_change AS q FROM movement`,
  );
  const expected = new Map<string, number>();
  for (const key of new Set(movements.map((m) => `${m.itemId}/${m.locationId}`))) {
    const own = movements.filter((m) => `${m.itemId}/${m.locationId}` === key);
    let [sold, days] = [0, 0];
    for (let day = addDays(TODAY, -91); day < TODAY; day = addDays(day, 1)) {
      const opening = own.filter((m) => m.date < day).reduce((sum, m) => sum + Number(m.q), 0);
      const here = own
        .filter((m) => m.date === day && m.kind === 'sale')
        .reduce((sum, m) => sum - Math.round(Number(m.q) * 1e6), 0);
      if (Math.round(opening * 1e6) <= 0 && here === 0) continue;
      sold += here;
      days += 1;
    }
    if (sold > 0) expected.set(key, Math.round(sold / days) / 1e6);
  }
  expect(expected.size).toBeGreaterThan(250);
  expect(new Map((await rates()).map((r) => [`${r.itemId}/${r.locationId}`, Number(r.perDay)]))).toEqual(expected);
});

test('a sale counts from the next day on; days of cover follow; a second look on the same day changes nothing', async () => {
  const state = () =>
    books.one<{ onHand: string; cover: string }>(
      'SELECT on_hand AS onHand, cover_days AS cover FROM item_location_state WHERE item_id = 1 AND location_id = 1',
    );
  const rate = async () => Number((await rates()).find((r) => r.itemId === 1 && r.locationId === 1)?.perDay);
  const [before, was] = [await rate(), await state()];
  const cover = (onHand: string, perDay: number) => (Math.floor((Number(onHand) * 10) / perDay) / 10).toFixed(1);
  expect(was.cover).toBe(cover(was.onHand, before));
  must(
    await sellGoods(
      books.deps,
      mira,
      req({ locationId: 1, businessDate: '', lines: [{ itemId: 1, quantity: '20', allocationId: null }] }),
    ),
  );
  const sold = await state();
  expect(Number(sold.onHand)).toBe(Number(was.onHand) - 20);
  expect(sold.cover).toBe(cover(sold.onHand, before));
  expect(await measureDemand(books.deps, [1], TODAY)).toBe(0);
  books.deps.setClock('2026-11-24T09:00:00Z');
  await beginDay(books.deps);
  const after = await rate();
  expect(after).toBeGreaterThan(before);
  expect((await state()).cover).toBe(cover(sold.onHand, after));
  const all = await rates();
  await measureAllDemand(books.deps);
  expect(await rates()).toEqual(all);
});

test('what has sold nothing for 91 days has no use any more, and no days of cover', async () => {
  books.deps.setClock('2027-03-01T09:00:00Z');
  await beginDay(books.deps);
  expect(await rates()).toEqual([]);
  expect(await books.rows('SELECT 1 FROM item_location_state WHERE cover_days IS NOT NULL')).toEqual([]);
});
