import { fromDecimal } from '@/core/quantity';
import { acceptNeed } from '@/services/planning/acceptNeed';
import type { PolicyEdit } from '@/services/planning/policyEdits';
import { previewPolicies } from '@/services/planning/previewPolicies';
import { allPolicies, openPolicies, readPolicyLines } from '@/services/planning/readPolicies';
import { readPolicyChoices } from '@/services/planning/readPolicyChoices';
import { readPolicyDetail } from '@/services/planning/readPolicyDetail';
import { readRuleValues } from '@/services/planning/readRuleValues';
import { fullNeedRun, markChanged } from '@/services/planning/recompute';
import { savePolicies } from '@/services/planning/savePolicies';
import { saveRecords } from '@/services/sheets/saveRecords';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { cancelTransfer } from '@/services/stock/cancelTransfer';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { refuseTransfer } from '@/services/stock/refuseTransfer';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, jun, MONDAY, mira, must, needOf, otto, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const [HS, OM, WY] = [1, 2, 4] as const;
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
type Cells = Record<string, string>;
const save = (item: number, locationId: number | null, now: Cells, was: Cells = {}) => {
  const seen = Object.fromEntries(Object.keys(now).map((k) => [k, was[k] ?? '']));
  return savePolicies(books.deps, mira, req({ edits: [{ itemId: item, locationId, was: seen, now }] }));
};
const linesOf = async (search: string) => {
  const head = must(await openPolicies(books.deps, mira, { ...allPolicies, search }));
  return must(await readPolicyLines(books.deps, mira, { list: head.list, from: 0 })).rows;
};
const lineOf = async (number: string, locationId: number | null) => {
  const line = (await linesOf(number)).find((l) => l.locationId === locationId);
  if (!line) throw new Error('no such line');
  return line;
};
const stateOf = (item: number, locationId: number) =>
  books.one<Record<string, string | null>>('SELECT * FROM item_location_state WHERE item_id = ? AND location_id = ?', [
    item,
    locationId,
  ]);
/** Nothing differs from a full run: what each command recomputed was all that it changed. */
const settled = async () => {
  expect((await markChanged(books.deps)).changed).toBe(0);
  expect(await violations(books)).toEqual([]);
};
const at = (iso: string) => books.deps.setClock(iso);
const q = (text: string | null | undefined) => Number(text ?? 'NaN');

describe('each kind of policy in use', () => {
  test('fixed order quantity: the fewest multiples, then whole packs', async () => {
    const item = await itemId('10412-07');
    const before = await lineOf('10412-07', HS);
    must(await save(item, HS, { kind: 'fixed_quantity', min: '60', fixed: '7' }, { ...before.own }));
    const state = await stateOf(item, HS);
    const missing = 60 - q(state.position_quantity);
    const multiples = Math.floor(missing / 7) + 1;
    expect(q(state.shortage)).toBe(multiples * 7);
    const line = await lineOf('10412-07', HS);
    expect(line).toMatchObject({
      kind: 'fixed_quantity',
      values: { min: '60', fixed: '7' },
      from: { fixed: 'location' },
    });
    expect(line.reckoning?.steps[0]).toMatchObject({ label: 'fixed_multiples', times: multiples });
    expect(line.need).toBe(line.reckoning?.quantity);
    await settled();
  });

  test('days of cover and periodic follow demand; what is reckoned stands in the line', async () => {
    const item = await itemId('10412-11');
    const every = (await lineOf('10412-11', null)).own;
    if (every.max) must(await save(item, null, { max: '' }, every));
    const before = await lineOf('10412-11', HS);
    must(await save(item, HS, { kind: 'days_of_cover', coverDays: '21', min: '', max: '' }, { ...before.own }));
    const line = await lineOf('10412-11', HS);
    const state = await stateOf(item, HS);
    expect(q(line.values.min)).toBe(q(state.level_quantity));
    expect(q(line.values.max)).toBe(q(state.max_quantity));
    const cover = q(state.max_quantity) - q(state.level_quantity);
    expect(Math.abs(cover - (21 * line.perDay) / 1e6)).toBeLessThan(1.1);
    must(await save(item, HS, { kind: 'periodic', coverDays: '' }, { kind: 'days_of_cover', coverDays: '21' }));
    const periodic = await lineOf('10412-11', HS);
    expect(periodic.reckoning?.terms.map((t) => t.label)).toContain('lead_time_demand');
    expect(periodic.values.min).toBe('');
    await settled();
  });

  test('a periodic need that was decided stays away until the next order day', async () => {
    const item = await itemId('10412-11');
    must(await save(item, HS, { max: '500' }, {}));
    const need = await needOf(books, '10412-11', 'HS');
    expect(need.state).toBe('open');
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '1' })));
    expect((await needOf(books, '10412-11', 'HS')).state).toBe('decided');
    await settled();
    // Nobody waits for a pack more: only the next order day opens it.
    const lines = [{ itemId: item, quantity: '12', allocationId: null }];
    must(await sellGoods(books.deps, mira, req({ locationId: HS, businessDate: '', lines })));
    expect((await needOf(books, '10412-11', 'HS')).state).toBe('decided');
    at('2026-11-24T09:00:00Z');
    await fullNeedRun(books.deps);
    expect((await needOf(books, '10412-11', 'HS')).state).toBe('open');
    at(MONDAY);
    await fullNeedRun(books.deps);
    await settled();
  });

  test('lot-for-lot looks ahead; per demand, phase-out and not carried raise none', async () => {
    const item = await itemId('10530-03');
    const before = await lineOf('10530-03', HS);
    must(
      await save(item, HS, { kind: 'lot_for_lot', min: '', max: '', safety: '9', windowDays: '30' }, { ...before.own }),
    );
    const line = await lineOf('10530-03', HS);
    if (line.reckoning) expect(line.reckoning.kind).toBe('lot_for_lot');
    expect(fromDecimal((await stateOf(item, HS)).suggested ?? '0')).toBe(line.reckoning?.quantity ?? 0);
    await settled();
    let kind = 'lot_for_lot';
    for (const next of ['per_demand', 'phase_out', 'not_carried']) {
      must(await save(item, HS, { kind: next }, { kind }));
      expect(q((await stateOf(item, HS)).suggested)).toBe(0);
      kind = next;
    }
    await settled();
  });

  test('a season is in force on its days and no others', async () => {
    const item = await itemId('10688-02');
    must(
      await saveRecords(books.deps, mira, {
        ...req({
          sheet: 'seasons',
          decimal: '.' as const,
          records: [
            {
              seen: '',
              cells: {
                ...{
                  item: '10688-02',
                  location: 'HS',
                  from_day: '2025-11-24',
                  to_day: '2026-02-28',
                  every_year: 'yes',
                },
                ...{ min: '100', max: '200' },
              },
            },
          ],
        }),
      }),
    );
    expect(q((await stateOf(item, HS)).level_quantity)).not.toBe(100);
    at('2026-11-24T09:00:00Z');
    await fullNeedRun(books.deps);
    expect(q((await stateOf(item, HS)).level_quantity)).toBe(100);
    expect(await lineOf('10688-02', HS)).toMatchObject({ season: true, values: { min: '100', max: '200' } });
    at(MONDAY);
    await fullNeedRun(books.deps);
    await settled();
  });

  test('company and category say what items leave open; each value says where it comes from', async () => {
    const item = await itemId('22290-02');
    expect(await lineOf('22290-02', HS)).toMatchObject({ kind: 'none', origin: 'none' });
    const records = (category: string, cells: Cells) => ({
      sheet: 'policy-defaults',
      decimal: '.' as const,
      records: [{ seen: '', cells: { category, ...cells } }],
    });
    must(
      await saveRecords(
        books.deps,
        mira,
        req(records('', { policy: 'days of cover', cover_days: '30', target_percent: '97.5' })),
      ),
    );
    // Everything is marked; the worker takes it.
    await fullNeedRun(books.deps);
    expect(await lineOf('22290-02', HS)).toMatchObject({ kind: 'days_of_cover', origin: 'company', missing: [] });
    const category = await books.one<{ name: string }>(
      'SELECT c.name FROM category c JOIN item i ON i.category_id = c.id WHERE i.id = ?',
      [item],
    );
    must(await saveRecords(books.deps, mira, req(records(category.name, { policy: 'min/max', min: '3', max: '8' }))));
    await fullNeedRun(books.deps);
    expect(await lineOf('22290-02', HS)).toMatchObject({
      ...{ kind: 'min_max', origin: 'category', values: { min: '3', max: '8' } },
      from: { min: 'category', coverDays: 'company' },
    });
    const detail = must(await readPolicyDetail(books.deps, mira, { itemId: item, locationId: HS }));
    expect([detail.values.targetThousandths, detail.from.targetThousandths]).toEqual(['97.5', 'company']);
    must(await save(item, null, { min: '5' }));
    expect(await lineOf('22290-02', HS)).toMatchObject({
      kind: 'min_max',
      values: { min: '5', max: '8' },
      from: { min: 'item', max: 'category' },
    });
    await settled();
  });
});

describe('the policy sheet', () => {
  test('what changes would do is known before they are saved, and is what they do', async () => {
    const item = await itemId('10412-07');
    const line = await lineOf('10412-07', OM);
    const edit = {
      ...{ itemId: item, locationId: OM },
      was: { kind: line.own.kind ?? '', min: line.own.min ?? '', max: line.own.max ?? '' },
      now: { kind: 'min_max', min: '900', max: '1000' },
    };
    const effect = must(await previewPolicies(books.deps, mira, [edit]));
    expect(effect.needs.after).toBe(effect.needs.before + (line.needState === 'open' ? 0 : 1));
    expect(effect.tied.after).toBeGreaterThan(effect.tied.before);
    expect(effect.faults).toEqual([]);
    const open = () =>
      books.one<{ n: number }>("SELECT COUNT(*) AS n FROM need WHERE state = 'open' AND item_id = ?", [item]);
    expect((await open()).n).toBe(effect.needs.before);
    const request = req({ edits: [edit] });
    must(await savePolicies(books.deps, mira, request));
    expect((await open()).n).toBe(effect.needs.after);
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect((await lineOf('10412-07', OM)).own).toEqual(line.own);
    await settled();
  });

  test('faults are said per cell, and one fault saves nothing', async () => {
    const item = await itemId('10412-07');
    const edits: PolicyEdit[] = [
      { itemId: item, locationId: WY, was: { min: '' }, now: { min: 'some' } },
      { itemId: item, locationId: OM, was: { targetThousandths: '' }, now: { targetThousandths: '120' } },
    ];
    const effect = must(await previewPolicies(books.deps, mira, edits));
    expect(effect.faults.map((f) => [f.row, f.column, f.fault.kind])).toEqual([
      [0, 'min', 'not_a_number'],
      [1, 'targetThousandths', 'not_percent'],
    ]);
    const was = (await lineOf('10412-07', WY)).own.min ?? '';
    const sound = { itemId: item, locationId: HS, was: { reserve: '' }, now: { reserve: '2' } };
    expect(
      await savePolicies(books.deps, mira, req({ edits: [sound, { ...(edits[0] as PolicyEdit), was: { min: was } }] })),
    ).toMatchObject({ error: { kind: 'wrong_cells', faults: [{ row: 1, column: 'min' }] } });
    expect((await lineOf('10412-07', HS)).own.reserve).toBeUndefined();
  });

  test('filters: below minimum, without a policy, class, kind, supplier', async () => {
    const numbers = async (asked: Partial<typeof allPolicies>) => {
      const head = must(await openPolicies(books.deps, mira, { ...allPolicies, ...asked }));
      const { rows } = must(await readPolicyLines(books.deps, mira, { list: head.list, from: 0 }));
      return { head, rows };
    };
    const below = await numbers({ show: 'below' });
    const flagged = await books.rows<{ id: number }>(
      'SELECT DISTINCT item_id AS id FROM item_location_state WHERE below_min = 1',
    );
    expect(below.head.items).toBe(flagged.length);
    expect((await numbers({ show: 'days_of_cover' })).head.items).toBe(0);
    const fixed = await numbers({ show: 'fixed_quantity' });
    expect(fixed.rows.filter((r) => r.own.kind === 'fixed_quantity').map((r) => [r.number, r.locationId])).toEqual([
      ['10412-07', HS],
    ]);
    const a = await numbers({ abcXyz: 'A', locationId: HS });
    expect(a.rows.filter((r) => r.locationId === HS).every((r) => r.classes.startsWith('A'))).toBe(true);
    expect(a.head.items).toBeGreaterThan(0);
    expect((await numbers({ supplier: 'HOL' })).head.items).toBeGreaterThan(
      (await numbers({ supplier: 'HOL', search: 'merino' })).head.items,
    );
  });

  test('whose items: by the nearest who is named, oneself first among those to choose from', async () => {
    const who = async (buyerId: number | null) => {
      const head = must(await openPolicies(books.deps, mira, { ...allPolicies, buyerId }));
      return head.items;
    };
    const all = await who(null);
    await books.owner.query("UPDATE category SET buyer_id = 2 WHERE name = 'Needles' AND parent_id IS NULL");
    const [needle] = await books.rows<{ id: number }>(
      `SELECT i.id FROM item i JOIN category c ON c.id = i.category_id LEFT JOIN category p ON p.id = c.parent_id
        WHERE 'Needles' IN (c.name, p.name) LIMIT 1`,
    );
    await books.owner.query('UPDATE item SET buyer_id = 1 WHERE id = ?', [needle?.id]);
    const [theirs, mine] = [await who(2), await who(1)];
    expect(theirs).toBeGreaterThan(3);
    expect(mine).toBeGreaterThanOrEqual(1);
    expect(theirs + mine).toBeLessThanOrEqual(all);
    expect(await who(4)).toBe(0);
    const { buyers } = must(await readPolicyChoices(books.deps, mira));
    expect(buyers.map((b) => b.name)).toEqual(['Mira Rook', 'Otto Quillon']);
    await books.owner.query('UPDATE category SET buyer_id = NULL WHERE buyer_id = 2');
    await books.owner.query('UPDATE item SET buyer_id = NULL WHERE buyer_id = 1');
  });

  test('set by rule: so many days of demand, rounded up to packs, for the lines asked', async () => {
    const head = must(await openPolicies(books.deps, mira, { ...allPolicies, search: 'merino' }));
    const { rows } = must(await readPolicyLines(books.deps, mira, { list: head.list, from: 0 }));
    const rule = { column: 'min' as const, basis: 'days_of_demand' as const, amount: 10, round: 'packs' as const };
    const found = must(await readRuleValues(books.deps, mira, { list: head.list, from: 0, end: 10, rule }));
    expect(found.values.length + found.left).toBeLessThanOrEqual(10);
    expect(found.values.length).toBeGreaterThan(0);
    for (const v of found.values) {
      const line = rows[v.index] as (typeof rows)[number];
      expect([v.itemId, v.locationId]).toEqual([line.itemId, line.locationId]);
      const pack = line.packMicro / 1e6;
      expect(q(v.now)).toBe(Math.ceil(((line.perDay / 1e6) * 10) / pack - 1e-9) * pack);
    }
  });

  test('the advised minimum names its method and adds up', async () => {
    const item = await itemId('10412-04');
    const { advice } = must(await readPolicyDetail(books.deps, mira, { itemId: item, locationId: HS }));
    if (!advice) throw new Error('no advice');
    expect(advice.leadTimeDemand + advice.safety + advice.undershoot).toBe(advice.minimum);
    expect(advice.rounded).toBeGreaterThanOrEqual(advice.minimum);
    expect(advice.rounded % 10_000_000).toBe(0);
    expect(advice.method).toMatch(/counts|normal/);
  });
});

describe('a network of places', () => {
  const send = { supply: 'place' };

  test('a shop’s suggestion is planned demand at the warehouse, which buys in the same run', async () => {
    const item = await itemId('10412-01');
    const before = await lineOf('10412-01', HS);
    must(
      await save(
        item,
        HS,
        { ...send, kind: 'min_max', min: '100', max: '190', supplyPlace: String(WY) },
        { ...before.own },
      ),
    );
    const shop = await stateOf(item, HS);
    const asked = 190 - q(shop.position_quantity);
    expect(q(shop.suggested)).toBe(asked);
    expect(shop.supply_location_id).toBe(WY);
    const warehouse = await stateOf(item, WY);
    expect(q(warehouse.planned)).toBe(asked);
    expect(q(warehouse.position_quantity)).toBe(
      q(warehouse.on_hand) -
        q(warehouse.blocked) +
        q(warehouse.on_the_way) +
        q(warehouse.in_trays) -
        q(warehouse.owed) -
        asked,
    );
    expect(await lineOf('10412-01', HS)).toMatchObject({ sentFrom: 'Wendel Yard' });
    await settled();
    // Less is asked for when more is there: the warehouse follows at once.
    const lines = [{ itemId: item, quantity: '3', allocationId: null }];
    must(await sellGoods(books.deps, mira, req({ locationId: HS, businessDate: '', lines })));
    expect(q((await stateOf(item, WY)).planned)).toBe(asked + 3);
    await settled();
  });

  test('accepted, it is promised there on one transfer, sent and received; undone, all is as before', async () => {
    const item = await itemId('10412-01');
    const need = await needOf(books, '10412-01', 'HS');
    const request = req({ needId: need.id, fingerprint: need.fingerprint, packs: '20' });
    const accepted = must(await acceptNeed(books.deps, mira, request));
    expect(accepted).toMatchObject({ supplier: 'Wendel Yard', trayLineId: null });
    expect(q((await stateOf(item, HS)).on_the_way)).toBe(20);
    expect(q((await stateOf(item, WY)).owed)).toBe(20);
    expect(q((await stateOf(item, WY)).planned)).toBe(0);
    await settled();
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect((await needOf(books, '10412-01', 'HS')).state).toBe('open');
    expect(q((await stateOf(item, WY)).owed)).toBe(0);
    await settled();
    const again = await needOf(books, '10412-01', 'HS');
    const second = must(
      await acceptNeed(books.deps, mira, req({ needId: again.id, fingerprint: again.fingerprint, packs: '20' })),
    );
    expect(second.transfer?.number).toBe(accepted.transfer?.number);
    const transferId = second.transfer?.id ?? 0;
    const { version } = await books.one<{ version: number }>('SELECT version FROM transfer WHERE id = ?', [transferId]);
    const shipped = { transferId, version, lines: [{ lineNo: 2, quantity: '18' }] };
    must(await shipApproved(books.deps, mira, req(shipped)));
    expect(q((await stateOf(item, WY)).owed)).toBe(0);
    expect(q((await stateOf(item, HS)).on_the_way)).toBe(18);
    const came = { transferId, lines: [{ lineNo: 2, received: '17', lost: '1', reason: 'torn' }] };
    must(await receiveTransfer(books.deps, mira, req(came)));
    expect(await books.one('SELECT state FROM transfer WHERE id = ?', [transferId])).toEqual({ state: 'received' });
    await settled();
  });

  test('a category that is sent from one of our places: from the one that usually supplies each', async () => {
    const item = await itemId('10412-09');
    const { category } = await books.one<{ category: number }>(
      'SELECT category_id AS category FROM item WHERE id = ?',
      [item],
    );
    const usual = (by: number | null) =>
      books.owner.query('UPDATE location SET supplied_by_id = ? WHERE id IN (?)', [by, [HS, OM]]);
    await usual(WY);
    await books.owner.query("INSERT INTO policy_default (category_id, supply) VALUES (?, 'place')", [category]);
    await fullNeedRun(books.deps);
    const sender = async (place: number) => (await stateOf(item, place)).supply_location_id;
    // The warehouse itself has nobody above it: it buys, as does the place that nobody usually supplies.
    expect([await sender(HS), await sender(OM), await sender(3), await sender(WY)]).toEqual([WY, WY, null, null]);
    expect(await lineOf('10412-09', HS)).toMatchObject({ sentFrom: 'Wendel Yard' });
    await settled();
    await books.owner.query('DELETE FROM policy_default WHERE category_id = ?', [category]);
    await usual(null);
    await fullNeedRun(books.deps);
    expect(await sender(HS)).toBeNull();
  });

  test('places in a circle are refused and spelled out', async () => {
    const item = await itemId('10412-01');
    expect(await save(item, WY, { supply: 'place', supplyPlace: String(OM) })).toMatchObject({ ok: true });
    expect(await save(item, OM, { supply: 'place', supplyPlace: String(HS) })).toMatchObject({
      ok: false,
      error: { kind: 'supply_loop', through: ['Harbour Street', 'Wendel Yard', 'Old Mill', 'Harbour Street'] },
    });
    must(await save(item, WY, { supply: '', supplyPlace: '' }, { supply: 'place', supplyPlace: String(OM) }));
    await settled();
  });

  test('the reserve is never promised', async () => {
    const item = await itemId('10412-08');
    const { free } = await books.one<{ free: string }>(
      'SELECT on_hand - blocked - inspection - allocated AS free FROM level WHERE item_id = ? AND location_id = ?',
      [item, WY],
    );
    must(await save(item, WY, { reserve: free.replace('.000000', '') }));
    const asked = must(
      await requestTransfer(
        books.deps,
        mira,
        req({
          fromLocationId: WY,
          toLocationId: HS,
          wantedDate: 'fri',
          note: 'market',
          lines: [{ itemId: item, quantity: '2' }],
        }),
      ),
    );
    const approve = { transferId: asked.transferId, version: 1, lines: [{ lineNo: 1, approved: '2' }] };
    expect(await approveTransfer(books.deps, mira, req(approve))).toMatchObject({
      error: { kind: 'not_free', free: 0 },
    });
    must(await save(item, WY, { reserve: '' }, { reserve: free.replace('.000000', '') }));
    must(await approveTransfer(books.deps, mira, req(approve)));
    await settled();
  });
});

describe('transfers asked for', () => {
  const ask = async (quantity: string, actor = jun) => {
    const item = await itemId('10412-04');
    const input = {
      fromLocationId: WY,
      toLocationId: 3,
      wantedDate: '',
      note: '',
      lines: [{ itemId: item, quantity }],
    };
    return must(await requestTransfer(books.deps, actor, req(input)));
  };

  test('a request is planned where it is asked for; approved in part it is promised; the rest is not', async () => {
    const item = await itemId('10412-04');
    const before = await stateOf(item, WY);
    const { transferId } = await ask('12');
    expect(q((await stateOf(item, WY)).planned)).toBe(q(before.planned) + 12);
    await settled();
    const lines = (approved: string) => ({ transferId, version: 1, lines: [{ lineNo: 1, approved }] });
    // Jun works at Market Hall, which asks; the warehouse decides.
    expect(await approveTransfer(books.deps, jun, req(lines('5')))).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await approveTransfer(books.deps, mira, req(lines('13')))).toMatchObject({ error: { field: 'lines.1' } });
    expect(await approveTransfer(books.deps, mira, req(lines('0')))).toMatchObject({
      error: { kind: 'nothing_counted' },
    });
    must(await approveTransfer(books.deps, mira, req(lines('5'))));
    expect(q((await stateOf(item, WY)).owed)).toBe(q(before.owed) + 5);
    expect(q((await stateOf(item, WY)).planned)).toBe(q(before.planned));
    expect(await approveTransfer(books.deps, mira, req(lines('5')))).toMatchObject({
      error: { kind: 'transfer_not_in_this_state', state: 'approved' },
    });
    must(await cancelTransfer(books.deps, mira, req({ transferId, version: 2 })));
    expect(q((await stateOf(item, WY)).owed)).toBe(q(before.owed));
    await settled();
  });

  test('refused with a reason, or taken back by the place that asked; nobody works on an old version', async () => {
    const one = await ask('3');
    expect(await refuseTransfer(books.deps, mira, req({ ...one, version: 9, reason: 'x' }))).toMatchObject({
      error: { kind: 'changed_meanwhile', what: 'transfer' },
    });
    must(
      await refuseTransfer(books.deps, otto, req({ transferId: one.transferId, version: 1, reason: 'needed here' })),
    );
    expect(await books.one('SELECT state, refused_because FROM transfer WHERE id = ?', [one.transferId])).toEqual({
      state: 'refused',
      refused_because: 'needed here',
    });
    const two = await ask('3');
    must(await cancelTransfer(books.deps, jun, req({ transferId: two.transferId, version: 1 })));
    await settled();
  });

  test('nothing free is promised twice: two requests for all of it', async () => {
    const item = await itemId('10412-04');
    const { free } = await books.one<{ free: string }>(
      'SELECT on_hand - blocked - inspection - allocated AS free FROM level WHERE item_id = ? AND location_id = ?',
      [item, WY],
    );
    const whole = String(Number(free));
    const [a, b] = [await ask(whole), await ask(whole)];
    const approve = (transferId: number) =>
      approveTransfer(books.deps, mira, req({ transferId, version: 1, lines: [{ lineNo: 1, approved: whole }] }));
    const results = await Promise.all([approve(a.transferId), approve(b.transferId)]);
    expect(results.map((r) => r.ok).sort()).toEqual([false, true]);
    expect(results.find((r) => !r.ok)).toMatchObject({ error: { kind: 'not_free' } });
    await settled();
  });
});
