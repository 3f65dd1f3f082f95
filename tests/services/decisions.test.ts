import { fromDecimal } from '@/core/quantity';
import { makeItem } from '@/services/catalogue/makeItem';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { acceptShown } from '@/services/planning/acceptShown';
import { askByHand } from '@/services/planning/askByHand';
import { bringBack } from '@/services/planning/bringBack';
import { needOrders } from '@/services/planning/needList';
import { openDecisions, readDecisionRows } from '@/services/planning/readDecisions';
import { openNeeds, readNeedChanges, readNeedRows } from '@/services/planning/readNeeds';
import { readReckonings } from '@/services/planning/readReckonings';
import { readWays } from '@/services/planning/readWays';
import { beginDay, markChanged } from '@/services/planning/recompute';
import { savePolicies } from '@/services/planning/savePolicies';
import { setAside } from '@/services/planning/setAside';
import { takeBack } from '@/services/planning/takeBack';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { saveRecords } from '@/services/sheets/saveRecords';
import { correctStock } from '@/services/stock/correctStock';
import { sellGoods } from '@/services/stock/sellGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, needOf, needsOf, otto, req, violations } from './support';

// What can be decided on a need besides accepting it. Source: calculations 3 and 6.
let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
  await books.close();
});

/** An open need of ordinary demand that a supplier covers. */
async function someNeed(where = 'TRUE') {
  const row = await books.one<{ number: string; code: string; itemId: number; locationId: number; pack: string }>(
    `SELECT i.number, l.code, n.item_id AS itemId, n.location_id AS locationId FROM need n JOIN item i ON i.id = n.item_id
       JOIN location l ON l.id = n.location_id JOIN source s ON s.id = n.source_id
      WHERE n.state = 'open' AND n.peg = 0 AND n.supply_location_id IS NULL AND i.tracking = 'none' AND ${where}
      ORDER BY n.id LIMIT 1`,
  );
  const need = await needOf(books, row.number, row.code);
  return { ...row, need, now: () => needOf(books, row.number, row.code) };
}
const seen = (need: { id: number; fingerprint: string }) => [{ needId: need.id, fingerprint: need.fingerprint }];
const putOff = (need: { id: number; fingerprint: string }, until: string) =>
  req({ needs: seen(need), kind: 'put_off' as const, until, reason: '' });

describe('put off', () => {
  test('it is away until its day and comes back by itself; undo brings it back at once', async () => {
    const { need, now } = await someNeed();
    const request = putOff(need, '2026-11-26');
    expect(must(await setAside(books.deps, mira, request))).toEqual({ until: '2026-11-26' });
    expect((await now()).state).toBe('aside');
    const { list } = must(
      await openDecisions(books.deps, mira, { show: 'put_off', search: '', locationId: null, itemId: null }),
    );
    const { rows } = must(await readDecisionRows(books.deps, mira, { list, from: 0 }));
    expect(rows).toMatchObject([
      { needId: need.id, kind: 'put_off', until: '2026-11-26', stands: true, who: 'Mira Rook' },
    ]);
    expect(rows[0]?.reckoning).not.toBeNull();

    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect((await now()).state).toBe('open');

    must(await setAside(books.deps, mira, putOff(await now(), '2026-11-26')));
    books.deps.setClock('2026-11-25T09:00:00Z');
    await beginDay(books.deps);
    expect((await now()).state).toBe('aside');
    books.deps.setClock('2026-11-26T09:00:00Z');
    await beginDay(books.deps);
    expect((await now()).state).toBe('open');
  });

  test('a day that has come, no day, another’s need, one that has changed: each is refused, nothing happens', async () => {
    const { need, now } = await someNeed();
    expect(await setAside(books.deps, mira, putOff(need, '2026-11-23'))).toMatchObject({
      error: { kind: 'invalid_field', field: 'until', fault: { kind: 'not_to_come' } },
    });
    expect(await setAside(books.deps, mira, putOff(need, 'soon'))).toMatchObject({
      error: { kind: 'invalid_field', field: 'until', fault: { kind: 'not_a_date' } },
    });
    expect(await setAside(books.deps, mira, putOff({ ...need, fingerprint: 'x' }, 'fri'))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    const both = { needs: [...seen(need), { needId: 999_999, fingerprint: 'x' }], kind: 'put_off' as const };
    expect(await setAside(books.deps, mira, req({ ...both, until: 'fri', reason: '' }))).toMatchObject({
      error: { kind: 'not_found' },
    });
    expect((await now()).state).toBe('open');
  });

  test('it comes back earlier once the shortage has grown by a pack', async () => {
    const { need, now, itemId, locationId } = await someNeed('i.sale_decimals = 0');
    must(await setAside(books.deps, mira, putOff(need, '2026-12-23')));
    const sale = { locationId, businessDate: '2026-11-23', lines: [{ itemId, quantity: '300', allocationId: null }] };
    must(await sellGoods(books.deps, mira, req(sale)));
    expect((await now()).state).toBe('open');
  });

  test('it comes back earlier when another customer waits', async () => {
    const { need, now, itemId, locationId } = await someNeed('i.sale_decimals = 0 AND n.shortage > 5');
    must(await setAside(books.deps, mira, putOff(need, '2026-12-23')));
    const line = { itemId, packId: null, quantity: '400', locationId, way: 'collect' as const };
    must(
      await enterCustomerOrder(
        books.deps,
        mira,
        req({
          ...{
            customerId: null,
            customer: { name: 'Ada Quill', mail: '', phone: '', address: '' },
            channel: 'counter',
          },
          ...{ reference: '', delivers: null, priority: null, note: '' },
          lines: [{ ...line, wantedDate: '', shipBy: '', holdUntil: '' }],
        }) as never,
      ),
    );
    expect((await now()).state).toBe('open');
    expect((await now()).cause).toContain('customer_waits');
  });
});

describe('left out', () => {
  test('with a reason, for good; brought back by hand, and that undone', async () => {
    const { need, now } = await someNeed();
    const input = { needs: seen(need), kind: 'leave_out' as const, until: '', reason: ' ' };
    expect(await setAside(books.deps, mira, req(input))).toMatchObject({
      error: { kind: 'invalid_field', field: 'reason' },
    });
    must(await setAside(books.deps, mira, req({ ...input, reason: 'Discontinued in spring' })));
    await beginDay(books.deps);
    expect((await now()).state).toBe('aside');
    const back = req({ needIds: [need.id] });
    must(await bringBack(books.deps, mira, back));
    expect((await now()).state).toBe('open');
    expect(await bringBack(books.deps, mira, req({ needIds: [need.id] }))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    must(await undoCommand(books.deps, mira, req({ undoKey: back.key })));
    expect((await now()).state).toBe('aside');
  });
});

describe('by hand', () => {
  test('on top of a need, and where there is no policy; taken up when accepted, asked again when taken back', async () => {
    const bare = await books.one<{ itemId: number; locationId: number; number: string; code: string }>(
      `SELECT i.id AS itemId, l.id AS locationId, i.number, l.code FROM item i JOIN location l ON l.code = 'OM'
        WHERE i.stock_kept = 1 AND EXISTS (SELECT 1 FROM source s JOIN price p ON p.source_id = s.id WHERE s.item_id = i.id)
          AND NOT EXISTS (SELECT 1 FROM need n WHERE n.item_id = i.id) ORDER BY i.id LIMIT 1`,
    );
    const ask = (quantity: string) =>
      req({ itemId: bare.itemId, locationId: bare.locationId, quantity, packId: null, note: 'window' });
    const first = ask('3');
    must(await askByHand(books.deps, mira, first));
    const now = () => needOf(books, bare.number, bare.code);
    expect(await now()).toMatchObject({ state: 'open', cause: 'by_hand', shortage: '3.000000' });
    must(await askByHand(books.deps, mira, ask('5')));
    expect(await now()).toMatchObject({ shortage: '5.000000' });
    expect(await undoCommand(books.deps, mira, req({ undoKey: first.key }))).toMatchObject({
      error: { kind: 'not_undoable' },
    });

    const { id: needId, fingerprint } = await now();
    const { trayLineId } = must(await acceptNeed(books.deps, mira, req({ needId, fingerprint, packs: '5' })));
    expect((await now()).state).toBe('none');
    expect(await books.rows('SELECT * FROM hand_need')).toEqual([]);
    must(await takeBack(books.deps, mira, req({ trayLineId: trayLineId as number })));
    expect(await now()).toMatchObject({ state: 'open', shortage: '5.000000' });
    must(await askByHand(books.deps, mira, ask('0')));
    expect((await now()).state).toBe('none');
  });

  test('its part stands in the row and in the sum', async () => {
    const { itemId, locationId, need } = await someNeed('i.sale_decimals = 0');
    must(await askByHand(books.deps, mira, req({ itemId, locationId, quantity: '7', packId: null, note: 'a class' })));
    const { list } = must(await openNeeds(books.deps, mira, { locationId: null, cause: 'by_hand' }));
    const { rows } = must(await readNeedRows(books.deps, mira, { list, from: 0 }));
    const row = rows.find((r) => r.kind === 'need');
    if (row?.kind !== 'need') throw new Error('no row');
    expect(row).toMatchObject({ id: need.id, byHand: { quantity: 7_000_000, note: 'a class' } });
    const [sum] = must(await readReckonings(books.deps, mira, [need.id]));
    expect(sum?.reckoning?.terms.find((t) => t.label === 'by_hand')?.quantity).toBe(7_000_000);
    expect(sum?.reckoning?.quantity).toBe(row.base);
  });
});

describe('split', () => {
  test('over two suppliers: a line in each tray, what is left is what neither covers; undone as one', async () => {
    const { need, now } = await someNeed(
      '(SELECT COUNT(DISTINCT q.supplier_id) FROM source q JOIN price p ON p.source_id = q.id WHERE q.item_id = n.item_id) > 1',
    );
    const { ways } = must(await readWays(books.deps, mira, need.id));
    const sources = [
      ...new Set(ways.flatMap((w) => w.deliveries.flatMap((d) => (d.sourceId === null ? [] : [d.sourceId])))),
    ];
    const [a, b] = sources as [number, number];
    const request = req({
      ...{ needId: need.id, fingerprint: need.fingerprint, packs: '1', way: { sourceId: a } },
      also: [{ packs: '100', way: { sourceId: b } }],
    });
    const taken = must(await acceptNeed(books.deps, mira, request));
    expect(taken.also).toHaveLength(1);
    const lines = await books.rows<{ sourceId: number; base: string; shortage: string }>(
      `SELECT t.source_id AS sourceId, t.base_quantity AS base, d.shortage FROM tray_line t JOIN decision d ON d.id = t.decision_id
        WHERE d.need_id = ? ORDER BY d.id`,
      [need.id],
    );
    expect(lines.map((l) => l.sourceId)).toEqual([a, b]);
    const left = Math.max(0, fromDecimal(need.shortage) - fromDecimal(lines[0]?.base ?? '0'));
    expect(fromDecimal(lines[1]?.shortage ?? '0')).toBe(left);
    expect((await now()).state).toBe('none');
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect(await now()).toMatchObject({ state: 'open', shortage: need.shortage });
    expect(
      await books.rows(
        "SELECT id FROM tray_line WHERE state = 'in_tray' AND decision_id IN (SELECT id FROM decision WHERE need_id = ?)",
        [need.id],
      ),
    ).toEqual([]);
  });
});

describe('all that is shown', () => {
  test('is accepted as suggested, except what has a warning or has changed; one undo takes it back', async () => {
    const head = must(await openNeeds(books.deps, mira, { locationId: null }));
    const before = (await needsOf(books, mira)).needs;
    const warned = before.filter((n) => n.warnings.length > 0);
    expect(warned.length).toBeGreaterThan(1);
    const changed = before.find((n) => n.warnings.length === 0 && n.sentFrom === null && n.boughtFor === null);
    if (!changed) throw new Error('no clear need');
    const own = { itemId: changed.itemId, locationId: changed.locationId, quantity: '500', packId: null, note: '' };
    must(await askByHand(books.deps, mira, req(own)));
    const request = req({ list: head.list });
    const done = must(await acceptShown(books.deps, mira, request));
    expect([done.changed, done.left]).toEqual([1, 0]);
    expect(done.accepted.length + done.warned + done.changed).toBe(before.length);
    expect(done.warned).toBeGreaterThanOrEqual(warned.length);
    const open = (await needsOf(books, mira)).needs.map((n) => n.id);
    for (const n of warned) expect(open).toContain(n.id);
    expect(open).toContain(changed.id);
    for (const { needId } of done.accepted) expect(open).not.toContain(needId);
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect((await needsOf(books, mira)).needs.map((n) => n.id).sort()).toEqual(before.map((n) => n.id).sort());
  });

  test('of what another place sends the last free pieces go once; who comes later stays', async () => {
    const thing = { name: 'Sent thing', unit: 'piece', price: '4', number: '', code: '' };
    const { itemId } = must(await makeItem(books.deps, otto, req(thing)));
    const [HS, MH, WY] = [1, 3, 4] as const;
    const lines = [{ itemId, how: 'to' as const, quantity: '5' }];
    must(await correctStock(books.deps, mira, req({ locationId: WY, reasonId: 3, note: '', lines })));
    for (const locationId of [HS, MH]) {
      const now = { min: '4', max: '4', supply: 'place', supplyPlace: String(WY) };
      const was = { min: '', max: '', supply: '', supplyPlace: '' };
      must(await savePolicies(books.deps, mira, req({ edits: [{ itemId, locationId, was, now }] })));
    }
    const head = must(await openNeeds(books.deps, mira, { locationId: null }));
    const own = async () => (await needsOf(books, mira)).needs.filter((n) => n.itemId === itemId);
    const needs = await own();
    // Five are free: enough for each of them, not for both.
    expect(needs.map((n) => [n.sentFrom?.location, n.base, n.warnings])).toEqual([
      ['Wendel Yard', fromDecimal('4'), []],
      ['Wendel Yard', fromDecimal('4'), []],
    ]);
    const done = must(await acceptShown(books.deps, mira, req({ list: head.list, needIds: needs.map((n) => n.id) })));
    expect([done.accepted.length, done.warned, done.changed]).toEqual([1, 1, 0]);
    expect((await own()).map((n) => n.warnings)).toEqual([['not_free']]);
  });

  test('only what is marked, and only of the list that is shown', async () => {
    const head = must(await openNeeds(books.deps, mira, { locationId: null }));
    const [one] = (await needsOf(books, mira)).needs.filter((n) => n.warnings.length === 0);
    const done = must(await acceptShown(books.deps, mira, req({ list: head.list, needIds: [one?.id ?? 0] })));
    expect(done.accepted.map((a) => a.needId)).toEqual([one?.id]);
    expect(await acceptShown(books.deps, mira, req({ list: 'never' }))).toMatchObject({ error: { kind: 'list_gone' } });
  });
});

describe('what is in the way', () => {
  /** A need without a warning, bought from a supplier, as its row shows it. */
  async function clear() {
    const found = (await needsOf(books, mira)).needs.find(
      (n) => n.warnings.length === 0 && n.sentFrom === null && n.boughtFor === null,
    );
    if (!found) throw new Error('no clear need');
    const now = async () => (await needsOf(books, mira)).needs.find((n) => n.id === found.id);
    return { found, supplierId: found.supplierId as number, now };
  }
  const acceptAll = async () => {
    const head = must(await openNeeds(books.deps, mira, { locationId: null }));
    return must(await acceptShown(books.deps, mira, req({ list: head.list }))).accepted.map((a) => a.needId);
  };
  /** Needs under the filter “with a warning”. */
  const warned = async () => {
    const head = must(await openNeeds(books.deps, mira, { locationId: null, show: 'warned' }));
    const { rows } = must(await readNeedRows(books.deps, mira, { list: head.list, from: 0 }));
    return rows.flatMap((r) => (r.kind === 'need' ? [r.id] : []));
  };

  test('without a price it stays, marked, and has no value; said in its form, it is clear at once', async () => {
    const { found, supplierId, now } = await clear();
    const supplier = await books.one<{ code: string }>('SELECT code FROM supplier WHERE id = ?', [supplierId]);
    await books.rows(
      'DELETE p FROM price p JOIN source s ON s.id = p.source_id WHERE s.item_id = ? AND s.supplier_id = ?',
      [found.itemId, supplierId],
    );
    expect(await now()).toMatchObject({ warnings: ['no_price'], net: null });
    expect(await acceptAll()).not.toContain(found.id);
    const pack: Record<string, string> = found.packName === found.unit ? {} : { pack: found.packName };
    const cells = {
      item: found.itemNumber,
      supplier: supplier.code,
      amount: '12.50',
      valid_from: '2026-11-23',
      ...pack,
    };
    must(await saveRecords(books.deps, mira, req({ sheet: 'prices', records: [{ cells, seen: '' }], decimal: '.' })));
    expect(await now()).toMatchObject({ warnings: [], net: Math.round((1250 * found.packs) / 1e6) });
  });

  test('a blocked supplier, an item that is not refilled any more: it stays and says so', async () => {
    const { found, supplierId, now } = await clear();
    expect(await warned()).not.toContain(found.id);
    await books.rows("UPDATE supplier SET status = 'blocked' WHERE id = ?", [supplierId]);
    expect((await now())?.warnings).toEqual(['supplier_blocked']);
    expect(await warned()).toContain(found.id);
    expect(await acceptAll()).not.toContain(found.id);
    await books.rows("UPDATE item SET status = 'stopped' WHERE id = ?", [found.itemId]);
    expect((await now())?.warnings).toEqual(['supplier_blocked', 'item_stopped']);
    expect(await acceptAll()).not.toContain(found.id);
    await books.rows("UPDATE supplier SET status = 'active' WHERE id = ?", [supplierId]);
    await books.rows("UPDATE item SET status = 'active' WHERE id = ?", [found.itemId]);
    expect((await now())?.warnings).toEqual([]);
  });

  test('without a supplier it can’t be accepted; with one it can', async () => {
    const { itemId, number } = await books.one<{ itemId: number; number: string }>(
      "SELECT id AS itemId, number FROM item i WHERE stock_kept = 1 AND status = 'active' AND NOT EXISTS (SELECT 1 FROM source s WHERE s.item_id = i.id) ORDER BY id LIMIT 1",
    );
    const own = { itemId, locationId: 1, quantity: '3', packId: null, note: '' };
    must(await askByHand(books.deps, mira, req(own)));
    const now = async () => (await needsOf(books, mira)).needs.find((n) => n.itemId === itemId);
    const need = await now();
    expect(need).toMatchObject({ warnings: ['no_supplier'], supplierId: null });
    const asked = { needId: need?.id ?? 0, fingerprint: need?.fingerprint ?? '', packs: '3' };
    expect(await acceptNeed(books.deps, mira, req(asked))).toMatchObject({ error: { kind: 'no_supplier' } });
    const cells = { item: number, supplier: 'HOL', preference: '1' };
    must(await saveRecords(books.deps, mira, req({ sheet: 'sources', records: [{ cells, seen: '' }], decimal: '.' })));
    const mended = await now();
    expect(mended).toMatchObject({ warnings: ['no_price'], supplierId: 1 });
    must(await acceptNeed(books.deps, mira, req({ ...asked, fingerprint: mended?.fingerprint ?? '' })));
  });
});

describe('the list', () => {
  test('in every order it holds the same needs, each once; urgent first has the least slack first and no heads', async () => {
    const all = (await needsOf(books, mira)).needs.map((n) => n.id).sort();
    for (const order of needOrders) {
      const head = must(await openNeeds(books.deps, mira, { locationId: null, order }));
      const { rows } = must(await readNeedRows(books.deps, mira, { list: head.list, from: 0 }));
      const needs = rows.flatMap((r) => (r.kind === 'need' ? [r] : []));
      expect(needs.map((n) => n.id).sort()).toEqual(all);
      expect(head.shown).toBe(all.length);
      if (order !== 'urgent') continue;
      expect(rows.some((r) => r.kind === 'group')).toBe(false);
      const slack = needs.map((n) => n.slackDays ?? Number.MAX_SAFE_INTEGER);
      expect(slack).toEqual([...slack].sort((a, b) => a - b));
    }
  });

  test('its head counts needs and their items, and what is put off, at the place that is asked for', async () => {
    const all = async (locationId: number | null) => must(await openNeeds(books.deps, mira, { locationId }));
    // The item of one is asked for at another place too.
    const [first] = (await needsOf(books, mira)).needs;
    const elsewhere = { itemId: first?.itemId ?? 0, locationId: first?.locationId === 2 ? 1 : 2 };
    must(await askByHand(books.deps, mira, req({ ...elsewhere, quantity: '500', packId: null, note: '' })));
    const { needs } = await needsOf(books, mira);
    const { status } = await all(null);
    const items = new Set(needs.map((n) => n.itemId)).size;
    expect(items).toBeLessThan(needs.length);
    expect(status).toMatchObject({ needs: needs.length, items });
    const [need] = needs.filter((n) => n.boughtFor === null);
    const other = needs.find((n) => n.locationId !== need?.locationId);
    must(await setAside(books.deps, mira, putOff(need ?? { id: 0, fingerprint: '' }, '2026-11-26')));
    expect((await all(null)).aside).toEqual({ putOff: 1, leftOut: 0 });
    expect((await all(need?.locationId ?? 0)).aside).toEqual({ putOff: 1, leftOut: 0 });
    expect((await all(other?.locationId ?? 0)).aside).toEqual({ putOff: 0, leftOut: 0 });
  });

  test('narrowed by words in any column, by cause, to what is late, warned, new or mine', async () => {
    const shown = async (asked: object) => {
      const head = must(await openNeeds(books.deps, mira, { locationId: null, ...asked }));
      const { rows } = must(await readNeedRows(books.deps, mira, { list: head.list, from: 0 }));
      return rows.flatMap((r) => (r.kind === 'need' ? [r] : []));
    };
    const all = await shown({});
    const [some] = all;
    for (const n of await shown({ search: `${some?.location} ${some?.itemNumber}` }))
      expect([n.location, n.itemNumber]).toEqual([some?.location, some?.itemNumber]);
    expect((await shown({ search: some?.supplier?.name ?? '' })).map((n) => n.id)).toContain(some?.id);
    expect(await shown({ search: 'nothing like that' })).toEqual([]);
    for (const n of await shown({ cause: 'customer_waits' })) expect(n.causes).toContain('customer_waits');
    expect((await shown({ show: 'late' })).every((n) => (n.slackDays ?? 0) < 0)).toBe(true);
    expect((await shown({ show: 'warned' })).map((n) => n.id).sort()).toEqual(
      all
        .filter((n) => n.warnings.length > 0)
        .map((n) => n.id)
        .sort(),
    );
    const mine = await shown({ mine: true });
    expect(mine.length).toBeLessThanOrEqual(all.length);
    const old = all.map((n) => n.id);
    await books.owner.query(`UPDATE need SET first_seen = '2026-11-10 08:00:00' WHERE id <> ${old[3]}`);
    expect((await shown({ show: 'new' })).map((n) => n.id)).toEqual([old[3]]);
  });

  test('what came is counted as changed only where the list asks for it', async () => {
    const head = must(await openNeeds(books.deps, mira, { locationId: null, cause: 'by_hand' }));
    const { itemId, locationId, need } = await someNeed();
    expect(must(await readNeedChanges(books.deps, mira, head.list)).changed).toEqual([]);
    must(await askByHand(books.deps, mira, req({ itemId, locationId, quantity: '7', packId: null, note: '' })));
    expect(must(await readNeedChanges(books.deps, mira, head.list)).changed).toEqual([need.id]);
  });
});

test('every decision is kept with its reckoning as it was', async () => {
  const { need, itemId } = await someNeed();
  const { reckoning } = (await needsOf(books, mira)).needs.find((n) => n.id === need.id) as { reckoning: unknown };
  const { trayLineId } = must(
    await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '1' })),
  );
  must(await takeBack(books.deps, mira, req({ trayLineId: trayLineId as number })));
  const { list, count } = must(
    await openDecisions(books.deps, mira, { show: 'all', search: '', locationId: null, itemId }),
  );
  const { rows } = must(await readDecisionRows(books.deps, mira, { list, from: 0 }));
  expect(count).toBe(rows.length);
  const [back, accepted] = rows;
  expect([back?.kind, accepted?.kind, accepted?.packs]).toEqual(['take_back', 'accept', 1_000_000]);
  expect(accepted?.reckoning).toEqual(reckoning);
});
