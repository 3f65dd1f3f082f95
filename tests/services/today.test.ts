import { acceptNeed } from '@/services/planning/acceptNeed';
import { setAside } from '@/services/planning/setAside';
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
