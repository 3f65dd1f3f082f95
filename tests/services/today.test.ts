import { acceptNeed } from '@/services/planning/acceptNeed';
import { setAside } from '@/services/planning/setAside';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { openPromises } from '@/services/promise/readPromises';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readToday, type TodayMatter, todayMatters } from '@/services/today/readToday';
import { setToday } from '@/services/today/setToday';
import { type Books, edda, freshBooks, jun, mira, must, needsOf, req } from './support';

// What Today counts agrees with the lists it leads to. Source: calculations 10.
let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(() => books.close());

const view = async (actor = mira) => must(await readToday(books.deps, actor, { locationId: null }));
const line = async (matter: TodayMatter, actor = mira) => {
  const found = (await view(actor)).lines.find((l) => l.matter === matter);
  if (!found) throw new Error(`no line ${matter}`);
  return found;
};

test('needs, what comes too late and what is put off are those of the list', async () => {
  const { needs, head } = await needsOf(books, mira);
  expect(await line('needs')).toMatchObject({ count: needs.length, money: head.status.net, next: '2026-11-23' });
  const late = needs.filter((n) => (n.slackDays ?? 0) < 0);
  expect(await line('late_needs')).toMatchObject({ count: late.length });
  const own = needs.find((n) => n.boughtFor === null);
  const needed = [{ needId: own?.id ?? 0, fingerprint: own?.fingerprint ?? '' }];
  must(
    await setAside(books.deps, mira, req({ needs: needed, kind: 'put_off' as const, until: '2026-12-04', reason: '' })),
  );
  expect(await line('put_off')).toMatchObject({ count: 1, next: '2026-12-04' });
  expect(await line('needs')).toMatchObject({ count: needs.length - 1 });
});

test('a tray counts once, with its value; as a draft it is money planned on the day it is to be paid', async () => {
  const before = await view();
  const need = (await needsOf(books, mira)).needs.find((n) => n.warnings.length === 0 && n.sentFrom === null);
  if (!need) throw new Error('no clear need');
  await books.owner.query('UPDATE supplier SET payment_days = 14 WHERE id = ?', [need.supplierId]);
  const packs = String(need.packs / 1e6);
  must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs })));
  expect(await line('trays')).toMatchObject({ count: 1, money: need.net });
  const planned = (v: Awaited<ReturnType<typeof view>>) => (v.weeks ?? []).map((w) => w.planned);
  const inTray = planned(await view());
  const added = inTray.map((p, w) => p - (planned(before)[w] ?? 0));
  expect(added.reduce((a, b) => a + b, 0)).toBe(need.net);
  // It arrives on its day and is paid fourteen days later.
  const days = (Date.parse(need.arrives ?? '') - Date.parse('2026-11-23')) / 86_400_000 + 14;
  expect(added[Math.floor(days / 7)]).toBe(need.net);
  must(await makeOrders(books.deps, mira, req({ supplierIds: [need.supplierId ?? 0] })));
  expect(await line('trays')).toMatchObject({ count: 0, money: 0 });
  expect(planned(await view()).reduce((a, b) => a + b, 0)).toBe(inTray.reduce((a, b) => a + b, 0));
});

/** Of the orders of the books: 5 and 6 overdue, 7 approved in three parts of 32.80 a bag: 1, 6 and 1. */
const wanted = (partId: number, day: string) =>
  books.rows('UPDATE delivery_part SET wanted_date = ?, promised_date = NULL, confirmed_date = NULL WHERE id = ?', [
    ...[day, partId],
  ]);

test('orders that are late, and what comes from today until within a week, each once with what is still to come, in our money', async () => {
  // Order 5 is half here: 25 of 50 and 50 of 100 are to come of 47.40; 6 is in pounds, at 1.20.
  expect(await line('late_orders')).toMatchObject({ count: 2, money: 2370 + 48350, next: '2026-11-16' });
  await books.rows("UPDATE purchase_order SET currency = 'GBP' WHERE id = 6");
  await books.rows("DELETE FROM currency_rate WHERE currency = 'GBP'");
  await books.rows(
    "INSERT INTO currency_rate (currency, valid_from, direction, rate) VALUES ('GBP', '2026-11-01', 'base_per_foreign', 1.2)",
  );
  // A draft is not late, whatever it wants.
  await books.rows("UPDATE purchase_order SET state = 'draft' WHERE id = 5");
  expect(await line('late_orders')).toMatchObject({ count: 1, money: 58020, next: '2026-11-19' });
  await wanted(14, '2026-11-23');
  await wanted(15, '2026-11-29');
  await wanted(16, '2026-11-30');
  expect(await line('arriving')).toMatchObject({ count: 1, money: 3280 + 6 * 3280, next: '2026-11-23' });
});

test('money out: what is ordered on the day it is to be paid, what is overdue as if it came today, what came as long as it is not due', async () => {
  await books.rows('UPDATE supplier SET payment_days = IF(id = 1, 14, 0)');
  await books.rows("UPDATE purchase_order SET state = 'closed' WHERE id NOT IN (6, 7)");
  await books.rows("UPDATE goods_receipt SET business_date = '2026-10-01'");
  await wanted(14, '2026-11-23');
  await wanted(15, '2026-11-29');
  await wanted(16, '2026-11-30');
  const ordered = async () => ((await view()).weeks ?? []).map((w) => w.ordered);
  // Order 6 would come today and be paid at once; of order 7 what comes on the 23rd and 29th is paid by 13 December, the rest on the 14th.
  expect(await ordered()).toEqual([48350, 0, 7 * 3280, 3280, 0, 0]);
  await books.rows(
    'UPDATE supplier SET payment_days = 14 WHERE id = (SELECT supplier_id FROM purchase_order WHERE id = 6)',
  );
  expect(await ordered()).toEqual([0, 0, 48350 + 7 * 3280, 3280, 0, 0]);
  // 40 and 30 balls at 3.28 and 40 more came with order 1; received on the 10th they are due on the 24th, on the 8th they are paid.
  await books.rows("UPDATE goods_receipt SET business_date = '2026-11-10' WHERE order_id = 1");
  const [first] = await ordered();
  expect(first).toBe(110 * 328);
  await books.rows("UPDATE goods_receipt SET business_date = '2026-11-08' WHERE order_id = 1");
  expect((await ordered())[0]).toBe(0);
});

test('over the maximum: by what lies there beyond it, at its cost; to complete: without what is stopped', async () => {
  await books.rows('UPDATE item_location_state SET excess = 0');
  const pairs = await books.rows<{ itemId: number; locationId: number }>(
    'SELECT item_id AS itemId, location_id AS locationId FROM level WHERE location_id IN (1, 2) ORDER BY item_id, location_id LIMIT 3',
  );
  // Five of ten worth 10.00; thirty too many with what is coming, of which ten lie there, worth 7.00; what owes nothing lies there.
  const stock = [
    [5, 10, 1000],
    [30, 10, 700],
    [8, -2, -300],
  ] as const;
  for (const [i, p] of pairs.entries()) {
    const [excess, onHand, value] = stock[i] as readonly [number, number, number];
    const at = [p.itemId, p.locationId];
    await books.rows('UPDATE item_location_state SET excess = ? WHERE item_id = ? AND location_id = ?', [
      excess,
      ...at,
    ]);
    await books.rows('UPDATE level SET on_hand = ?, value_minor = ? WHERE item_id = ? AND location_id = ?', [
      ...[onHand, value, ...at],
    ]);
  }
  expect(await line('over_max')).toMatchObject({ count: 3, money: 500 + 700 });
  const before = (await line('to_complete')).count;
  await books.rows('UPDATE item SET to_complete = 1 WHERE id IN (1, 2)');
  await books.rows("UPDATE item SET status = 'stopped' WHERE id = 2");
  expect((await line('to_complete')).count).toBe(before + 1);
});

test('customers at risk are the late lines of the list of promises', async () => {
  const before = (await line('at_risk')).count;
  const { id } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-07'");
  const ask = (quantity: string, wantedDate: string) => ({
    ...{ itemId: id, packId: null, quantity, locationId: 1, way: 'collect' as const, wantedDate },
    ...{ shipBy: '', holdUntil: '' },
  });
  must(
    await enterCustomerOrder(
      books.deps,
      mira,
      req({
        ...{ customerId: null, customer: { name: 'Ada Fenwright', mail: '', phone: '', address: '' }, reference: '' },
        ...{ channel: 'counter' as const, delivers: null, priority: null, note: '' },
        lines: [ask('1', '2026-11-23'), ask('900', '2026-11-25')],
      }),
    ),
  );
  const risk = await line('at_risk');
  expect(risk).toMatchObject({ count: before + 1, next: '2026-11-25' });
  const asked = { show: 'late' as const, sort: 'ship_by' as const, search: '', locationId: null, itemId: null };
  expect(must(await openPromises(books.deps, mira, asked)).count).toBe(risk.count);
});

test('what runs short stands in the week it does, apart from what has something coming', async () => {
  await books.rows('UPDATE item_location_state SET cover_days = NULL');
  const pairs = await books.rows<{ itemId: number; locationId: number }>(
    'SELECT item_id AS itemId, location_id AS locationId FROM item_location_state WHERE location_id IN (1, 2) ORDER BY item_id, location_id LIMIT 5',
  );
  // Days of cover, and what is on the way: this week twice, the second with something coming, the third, the last, beyond the six.
  const states = [
    ['0.0', 0],
    ['6.9', 10],
    ['14.0', 0],
    ['41.9', 0],
    ['42.0', 0],
  ] as const;
  for (const [i, p] of pairs.entries())
    await books.rows(
      'UPDATE item_location_state SET cover_days = ?, on_the_way = ?, in_trays = 0 WHERE item_id = ? AND location_id = ?',
      [...(states[i] as readonly [string, number]), p.itemId, p.locationId],
    );
  const weeks = (await view()).weeks ?? [];
  expect(weeks.map((w) => w.from)).toEqual([
    ...['2026-11-23', '2026-11-30', '2026-12-07', '2026-12-14', '2026-12-21', '2026-12-28'],
  ]);
  expect(weeks.map((w) => w.shortNothing)).toEqual([1, 0, 1, 0, 0, 1]);
  expect(weeks.map((w) => w.shortComing)).toEqual([1, 0, 0, 0, 0, 0]);
});

test('everybody sees the lines of what they may see, and hides what they like', async () => {
  const of = async (actor: typeof mira) => (await view(actor)).lines.map((l) => l.matter);
  expect(await of(mira)).toEqual(Object.keys(todayMatters));
  expect(await of(jun)).toEqual(['arriving', 'at_risk', 'alerts', 'to_complete', 'over_max']);
  expect(await of(edda)).not.toContain('needs');
  expect((await view(jun)).weeks).toBeNull();
  must(await setToday(books.deps, mira, req({ hidden: ['alerts', 'over_max', 'rain'] })));
  expect((await view()).lines.filter((l) => l.hidden).map((l) => l.matter)).toEqual(['alerts', 'over_max']);
  expect((await view(jun)).lines.some((l) => l.hidden)).toBe(false);
  must(await setToday(books.deps, mira, req({ hidden: [] })));
  expect((await view()).lines.some((l) => l.hidden)).toBe(false);
});
