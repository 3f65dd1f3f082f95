import { measureAllDemand } from '@/services/demand/measureDemand';
import type { Failure } from '@/services/failure';
import { beginCount } from '@/services/stock/beginCount';
import { countStock } from '@/services/stock/countStock';
import { dropCount } from '@/services/stock/dropCount';
import { enterCount, setReasonOfCount } from '@/services/stock/enterCount';
import { enterCountRows } from '@/services/stock/enterCountRows';
import { planCount } from '@/services/stock/planCount';
import { postCount } from '@/services/stock/postCount';
import { readCountDifferences } from '@/services/stock/readCountDifferences';
import { readCountExport } from '@/services/stock/readCountExport';
import { readCount, readCounts } from '@/services/stock/readCounts';
import { removeCountPlan } from '@/services/stock/removeCountPlan';
import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, jun, MONDAY, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterEach(() => books.deps.setClock(MONDAY));
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const [HS, MH] = [1, 3] as const;
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
const scope = { what: 'marked' as const, category: '', shelf: '', name: 'A few' };
const begin = async (itemIds: readonly number[], more: { blind?: boolean; locationId?: number } = {}) =>
  must(await beginCount(books.deps, mira, req({ ...scope, itemIds, locationId: HS, blind: false, ...more }))).countId;
const enter = (
  countId: number,
  figures: Readonly<Record<number, string>>,
  round: 'first' | 'again' = 'first',
  countedAt = '',
) =>
  enterCount(
    books.deps,
    mira,
    req({
      ...{ countId, countedAt },
      lines: Object.entries(figures).map(([id, quantity]) => ({ itemId: Number(id), round, quantity })),
    }),
  );
const post = (countId: number, asCounted = false) => postCount(books.deps, mira, req({ countId, asCounted }));
const sell = async (item: number, quantity: string) =>
  must(
    await sellGoods(
      books.deps,
      mira,
      req({ locationId: HS, businessDate: '', lines: [{ itemId: item, quantity, allocationId: null }] }),
    ),
  );
const fault = (r: { ok: true } | { ok: false; error: Failure }) => (r.ok ? null : r.error);

test('what is sold between counting and posting does not blur the difference; one document is posted', async () => {
  const [a, b, c] = [await itemId('10412-02'), await itemId('10412-05'), await itemId('10412-06')];
  const before = [await onHand(a, HS), await onHand(b, HS), await onHand(c, HS)] as [number, number, number];
  const id = await begin([a, b, c]);
  const entered = must(await enter(id, { [a]: String(before[0] - 1), [b]: String(before[1]) }));
  const came = (item: number) => entered.lines.find((l) => l.itemId === item);
  expect([came(a), came(b)]).toMatchObject([
    { step: 'done', difference: -1e6 },
    { step: 'done', difference: 0 },
  ]);
  await sell(a, '2');
  await sell(b, '1');
  const posted = must(await post(id));
  expect(posted).toMatchObject({ counted: 2, differing: 1, released: [] });
  expect(posted.worth).toBeLessThan(0);
  // One missing and two sold; the other only sold; what was not counted stays.
  expect([await onHand(a, HS), await onHand(b, HS), await onHand(c, HS)]).toEqual([
    before[0] - 3,
    before[1] - 1,
    before[2],
  ]);
  const view = must(await readCount(books.deps, mira, id));
  expect(view).toMatchObject({ state: 'posted', lines: 3, counted: 2, mayCount: false, endedBy: 'Mira Rook' });
  const moved = await books.rows(
    "SELECT m.on_hand_change AS q FROM movement m WHERE m.document_kind = 'count' AND m.document_id = ?",
    [view.documentId],
  );
  expect(moved).toEqual([{ q: '-1.000000' }]);
  expect(fault(await enter(id, { [a]: '1' }))).toEqual({ kind: 'count_ended', state: 'posted' });
  expect(fault(await post(id))).toEqual({ kind: 'count_ended', state: 'posted' });
});

test('figures taken earlier are held against the books of that moment', async () => {
  const a = await itemId('10412-02');
  const before = await onHand(a, HS);
  const id = await begin([a]);
  books.deps.setClock('2026-11-23T10:30:00Z');
  await sell(a, '3');
  books.deps.setClock('2026-11-23T12:00:00Z');
  // Counted at 11:00 in the company's time, half an hour before the sale, typed in at one.
  const entered = must(await enter(id, { [a]: String(before) }, 'first', '11:00'));
  expect(entered.lines[0]).toMatchObject({ expected: before * 1e6, difference: 0 });
  const after = must(await enter(id, { [a]: String(before - 3) }, 'first', '11:45'));
  expect(after.lines[0]).toMatchObject({ expected: (before - 3) * 1e6, difference: 0 });
  expect(fault(await enter(id, { [a]: '1' }, 'first', 'noon'))).toMatchObject({
    field: 'countedAt',
    fault: { kind: 'not_a_time' },
  });
  expect(fault(await enter(id, { [a]: '1' }, 'first', '13:05'))).toMatchObject({ fault: { kind: 'time_to_come' } });
  must(await dropCount(books.deps, mira, req({ countId: id })));
  expect(await onHand(a, HS)).toBe(before - 3);
});

test('what is far off is counted again, or posted as counted when said so', async () => {
  const [a, b] = [await itemId('10412-05'), await itemId('10412-06')];
  const id = await begin([a, b]);
  const [wasA, wasB] = [await onHand(a, HS), await onHand(b, HS)];
  const entered = must(await enter(id, { [a]: '0', [b]: '0' }));
  expect(entered.lines.map((l) => l.step)).toEqual(['second', 'second']);
  expect(fault(await post(id))).toEqual({ kind: 'count_again', lines: 2 });
  expect(must(await enter(id, { [a]: String(wasA) }, 'again')).lines[0]).toMatchObject({ step: 'done', difference: 0 });
  expect(fault(await post(id))).toEqual({ kind: 'count_again', lines: 1 });
  // Another first figure is another count: the second figure goes.
  expect(must(await enter(id, { [a]: '1' })).lines[0]).toMatchObject({ step: 'second' });
  must(await enter(id, { [a]: '' }));
  must(
    await setReasonOfCount(books.deps, mira, req({ countId: id, itemId: b, reasonId: 2, note: ' under the stairs? ' })),
  );
  must(await post(id, true));
  expect([await onHand(a, HS), await onHand(b, HS)]).toEqual([wasA, 0]);
  const view = must(await readCount(books.deps, mira, id));
  expect(view.rows.find((r) => r.itemId === b)).toMatchObject({ difference: -wasB * 1e6, note: 'under the stairs?' });
  const asked = { from: '2026-11-23', to: '2026-11-23', locationId: null };
  const byReason = must(await readCountDifferences(books.deps, mira, { ...asked, by: 'reason' }));
  expect(byReason.rows.find((r) => r.name === 'Missing')?.lessValue ?? 0).toBeGreaterThan(0);
  const byItem = must(await readCountDifferences(books.deps, mira, { ...asked, by: 'item' }));
  expect(byItem.rows.find((r) => r.id === b)).toMatchObject({ less: wasB * 1e6, counted: 1, differing: 1 });
  // Whatever it is grouped by, the money is the same.
  for (const by of ['reason', 'place', 'month'] as const)
    expect(must(await readCountDifferences(books.deps, mira, { ...asked, by })).sum).toEqual(byItem.sum);
});

test('a blind count does not tell what is expected before it is posted, neither on the page nor in the file', async () => {
  const a = await itemId('10412-02');
  const id = await begin([a], { blind: true });
  expect(must(await enter(id, { [a]: '7' })).lines[0]).toMatchObject({ expected: null, difference: null, worth: 0 });
  expect(must(await readCount(books.deps, mira, id)).rows[0]).toMatchObject({ expected: null, difference: null });
  const keys = async () => must(await readCountExport(books.deps, mira, id)).columns.map((c) => c.key);
  expect(await keys()).not.toContain('expected');
  must(await post(id, true));
  expect(must(await readCount(books.deps, mira, id)).rows[0]?.expected).not.toBeNull();
  expect(await keys()).toContain('expected');
});

test('a list from a file or scanner: added up by item, whole or not at all, items that were not on the sheet too', async () => {
  const [a, b] = [await itemId('10412-02'), await itemId('10412-05')];
  const id = await begin([a]);
  const rows = (list: readonly [string, string][]) =>
    enterCountRows(
      books.deps,
      mira,
      req({
        ...{ countId: id, countedAt: '' },
        rows: list.map(([code, quantity], i) => ({ row: i + 1, code, quantity })),
      }),
    );
  const wrong = await rows([
    ['10412-02', '4'],
    ['no such thing', '1'],
    ['10412-05', 'many'],
  ]);
  expect(fault(wrong)).toEqual({
    kind: 'wrong_count_rows',
    of: 2,
    faults: [
      { row: 2, text: 'no such thing', why: 'unknown' },
      { row: 3, text: 'many', why: 'not_a_quantity' },
    ],
  });
  // A GTIN-13 as it is scanned, on file in its 14-digit form (GS1 General Specifications).
  const code = '9501101530003';
  await books.rows("INSERT INTO barcode (item_id, kind, code) VALUES (?, 'gtin', ?)", [b, `0${code}`]);
  must(
    await rows([
      ['10412-02', '4'],
      [code, '2'],
      ['10412-02', '3'],
    ]),
  );
  const view = must(await readCount(books.deps, mira, id));
  expect(view.rows.map((r) => [r.itemId, (r.counted ?? 0) / 1e6])).toEqual([
    [a, 7],
    [b, 2],
  ]);
  must(await dropCount(books.deps, mira, req({ countId: id })));
});

test('a rhythm: due, begun with what lies on the shelf now, due again a week later; a shop counts its own only', async () => {
  const [a, b] = [await itemId('10412-05'), await itemId('10412-02')];
  await books.rows("INSERT INTO item_place (item_id, location_id, shelf) VALUES (?, 3, 'A10'), (?, 3, 'A2')", [a, b]);
  const asked = { ...scope, what: 'shelf' as const, shelf: 'A', itemIds: [], locationId: MH, blind: true };
  const plan = { ...asked, name: 'Shelf A', everyDays: 7, firstOn: '2026-11-20' };
  const { planId } = must(await planCount(books.deps, jun, req(plan)));
  expect(fault(await planCount(books.deps, jun, req(plan)))).toEqual({ kind: 'name_taken', name: 'Shelf A' });
  expect(fault(await planCount(books.deps, jun, req({ ...plan, locationId: HS })))).toMatchObject({
    kind: 'forbidden',
  });
  expect(fault(await planCount(books.deps, jun, req({ ...plan, name: ' ' })))).toMatchObject({ field: 'name' });
  expect(must(await readCounts(books.deps, jun, { locationId: null })).plans).toMatchObject([
    { name: 'Shelf A', nextOn: '2026-11-20', location: 'Market Hall' },
  ]);
  const { countId } = must(await beginCount(books.deps, jun, req({ planId })));
  // A2 is passed before A10.
  expect(must(await readCount(books.deps, jun, countId)).rows.map((r) => r.itemId)).toEqual([b, a]);
  const view = must(await readCounts(books.deps, jun, { locationId: null }));
  expect(view.plans[0]?.nextOn).toBe('2026-11-27');
  expect(view.open.map((c) => c.name)).toEqual(['Shelf A']);
  must(await dropCount(books.deps, jun, req({ countId })));
  must(await removeCountPlan(books.deps, jun, req({ planId })));
  expect(must(await readCounts(books.deps, jun, { locationId: null })).plans).toEqual([]);
  expect(fault(await beginCount(books.deps, jun, req({ planId })))).toMatchObject({ kind: 'not_found' });
  const empty = { ...asked, name: 'Nothing', shelf: 'ZZ' };
  expect(fault(await beginCount(books.deps, mira, req(empty)))).toEqual({ kind: 'nothing_to_count' });
});

test('of an item whose use nobody records the difference is use, and its demand is measured between counts', async () => {
  const a = await itemId('10412-12');
  await books.rows('UPDATE item SET use_recorded = 0 WHERE id = ?', [a]);
  const counted = async (day: string, quantity: number) => {
    books.deps.setClock(`${day}T09:00:00Z`);
    const id = await begin([a]);
    must(await enter(id, { [a]: String(quantity) }));
    return must(await post(id, true));
  };
  const level = await onHand(a, HS);
  await counted('2026-11-24', level);
  await counted('2026-12-04', level - 20);
  expect(await onHand(a, HS)).toBe(level - 20);
  expect(
    await books.rows("SELECT kind, on_hand_change AS q FROM movement WHERE item_id = ? AND kind = 'use'", [a]),
  ).toEqual([{ kind: 'use', q: '-20.000000' }]);
  books.deps.setClock('2026-12-05T09:00:00Z');
  const asked = { by: 'item' as const, from: '2026-12-01', to: '', locationId: HS };
  expect(must(await readCountDifferences(books.deps, mira, asked)).rows[0]).toMatchObject({
    ...{ id: a, used: 20e6, less: 0, lessValue: 0 },
  });
  await measureAllDemand(books.deps, true);
  const rate = await books.one<{ perDay: string; days: number }>(
    'SELECT per_day AS perDay, days_counted AS days FROM demand_rate WHERE item_id = ? AND location_id = ?',
    [a, HS],
  );
  const sold = await books.one<{ n: string }>(
    `SELECT COALESCE(SUM(-on_hand_change), 0) AS n FROM movement WHERE item_id = ? AND location_id = ? AND kind = 'sale'
        AND business_date >= '2026-09-05'`,
    [a, HS],
  );
  const brought = await books.one<{ n: string }>(
    "SELECT COALESCE(SUM(quantity), 0) AS n FROM daily_demand WHERE item_id = ? AND location_id = ? AND day >= '2026-09-05'",
    [a, HS],
  );
  const used = 20 + Number(sold.n) + Number(brought.n);
  expect(Number(rate.perDay)).toBeCloseTo(used / rate.days, 4);
});

test('a count in one step books use as use as well', async () => {
  const a = await itemId('10412-11');
  await books.rows('UPDATE item SET use_recorded = 0 WHERE id = ?', [a]);
  const level = await onHand(a, 2);
  const lines = [{ itemId: a, quantity: String(level - 1) }];
  must(await countStock(books.deps, mira, req({ locationId: 2, note: '', lines })));
  expect(
    await books.rows('SELECT kind, on_hand_change AS q FROM movement WHERE item_id = ? ORDER BY id DESC LIMIT 1', [a]),
  ).toEqual([{ kind: 'use', q: '-1.000000' }]);
});
