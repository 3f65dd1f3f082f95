import { acceptNeed } from '@/services/planning/acceptNeed';
import { savePolicies } from '@/services/planning/savePolicies';
import { takeBack } from '@/services/planning/takeBack';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import {
  acceptSome,
  type Books,
  cellsOf,
  freshBooks,
  mira,
  must,
  needOf,
  otto,
  req,
  setMinMax,
  violations,
} from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const accept = async (number: string, code: string, packs: string) => {
  const need = await needOf(books, number, code);
  return { need, input: { needId: need.id, fingerprint: need.fingerprint, packs } };
};
const trayLines = async () => (await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM tray_line')).n;

describe('one command, one effect', () => {
  test('the same key again gives the same result and no second effect', async () => {
    const { input } = await accept('10412-07', 'HS', '6');
    const request = req(input);
    const first = must(await acceptNeed(books.deps, mira, request));
    const before = await trayLines();
    expect(must(await acceptNeed(books.deps, mira, request))).toEqual(first);
    expect(await trayLines()).toBe(before);
  });

  test('twice at the same moment: one effect, both told the same', async () => {
    const { input } = await accept('10412-11', 'HS', '8');
    const request = req(input);
    const before = await trayLines();
    const [a, b] = await Promise.all([acceptNeed(books.deps, mira, request), acceptNeed(books.deps, mira, request)]);
    expect(must(a)).toEqual(must(b));
    expect(await trayLines()).toBe(before + 1);
  });

  test('the same key with other content is refused', async () => {
    const { input } = await accept('10412-01', 'OM', '4');
    const request = req(input);
    must(await acceptNeed(books.deps, mira, request));
    expect(await acceptNeed(books.deps, mira, { ...request, input: { ...input, packs: '5' } })).toEqual({
      ok: false,
      error: { kind: 'key_reused' },
    });
  });

  test('a refused command leaves nothing behind, not even its key', async () => {
    const need = await needOf(books, '40933-01', 'HS');
    const request = req({ needId: need.id, fingerprint: need.fingerprint, packs: '10' });
    expect(await acceptNeed(books.deps, mira, request)).toEqual({ ok: false, error: { kind: 'no_supplier' } });
    expect(await books.rows('SELECT 1 FROM idempotency_key WHERE idem_key = ?', [request.key])).toEqual([]);
    expect((await needOf(books, '40933-01', 'HS')).state).toBe('open');
  });
});

describe('two buyers', () => {
  test('accept the same need at once: one wins, the other is told who and what', async () => {
    const { input } = await accept('10688-02', 'HS', '6');
    const results = await Promise.all([
      acceptNeed(books.deps, mira, req(input)),
      acceptNeed(books.deps, otto, req({ ...input, packs: '7' })),
    ]);
    const won = results.findIndex((r) => r.ok);
    const lost = results[1 - won];
    expect(results.filter((r) => r.ok)).toHaveLength(1);
    const kinds = ['already_decided', 'changed_meanwhile'];
    if (!lost || lost.ok) throw new Error('both won');
    expect(kinds).toContain(lost.error.kind);
    if (lost.error.kind === 'already_decided') {
      expect(lost.error).toMatchObject({
        who: won === 0 ? 'Mira Rook' : 'Otto Quillon',
        supplier: 'Hollinmere Spinners',
      });
    }
  });

  test('a need that changed meanwhile is not accepted on the old figure', async () => {
    const { need, input } = await accept('10530-03', 'MH', '3');
    const was = await cellsOf(books, need.itemId, need.locationId);
    must(
      await setMinMax(
        books.deps,
        otto,
        req({ itemId: need.itemId, locationId: need.locationId, min: '20', max: '80', was }),
      ),
    );
    expect(await acceptNeed(books.deps, mira, req(input))).toMatchObject({
      error: { kind: 'changed_meanwhile', what: 'need' },
    });
    expect((await needOf(books, '10530-03', 'MH')).suggested).toBe('80.000000');
  });

  test('the same policy cell: the second is told what it is now', async () => {
    const need = await needOf(books, '10530-03', 'MH');
    const cell = { itemId: need.itemId, locationId: need.locationId, min: '21', max: '81' };
    const meanwhile = { ok: false, error: { kind: 'changed_meanwhile', what: 'policy', who: null, now: '20 / 80' } };
    for (const was of [null, { min: '20', max: '79' }, { min: '', max: '' }]) {
      expect(await setMinMax(books.deps, mira, req({ ...cell, was }))).toEqual(meanwhile);
    }
    // Reset by one and set again by the other: what was seen before is not what is there now.
    const twenty = { min: '20', max: '80' };
    must(await setMinMax(books.deps, otto, req({ ...cell, min: '', max: '', was: twenty })));
    must(await setMinMax(books.deps, otto, req({ ...cell, min: '30', max: '90', was: null })));
    expect(await setMinMax(books.deps, mira, req({ ...cell, was: twenty }))).toMatchObject({
      error: { kind: 'changed_meanwhile', now: '30 / 90' },
    });
    must(await setMinMax(books.deps, mira, req({ ...cell, ...twenty, was: { min: '30', max: '90' } })));
  });

  test('many approvals at once: numbers without gap or double, deadlocks absorbed', async () => {
    for (const [number, code] of [
      ['22017-01', 'WY'],
      ['25100-04', 'HS'],
      ['28305-02', 'OM'],
      ['29000-01', 'HS'],
      ['31080-03', 'HS'],
    ] as const) {
      const { input } = await accept(number, code, '3');
      must(await acceptNeed(books.deps, mira, req(input)));
    }
    const made = must(await makeOrders(books.deps, otto, req({ supplierIds: [1, 2, 3, 4, 5, 6, 7] })));
    expect(made.length).toBeGreaterThanOrEqual(6);
    const before = (
      await books.one<{ n: number }>(
        "SELECT last_number AS n FROM number_counter WHERE pattern = 'PO' AND period = '2611'",
      )
    ).n;
    const approved = await Promise.all(
      made.map(async (m) => {
        const { head } = must(await readOrder(books.deps, otto, m.orderId));
        return approveOrder(books.deps, otto, req({ orderId: m.orderId, version: head.version }));
      }),
    );
    const numbers = approved.map((a) => must(a).number).sort();
    expect(numbers).toEqual(made.map((_, i) => `2611-${String(before + 1 + i).padStart(4, '0')}`));
    expect(await violations(books)).toEqual([]);
  });

  test('the same tray turned into orders by both at once: each line is ordered once', async () => {
    await acceptSome(books, '3');
    const made = await Promise.all(
      [mira, otto, mira, otto].map((actor) =>
        makeOrders(books.deps, actor, req({ supplierIds: [1, 2, 3, 4, 5, 6, 7, 8] })),
      ),
    );
    expect(made.filter((m) => m.ok)).toHaveLength(1);
    expect(made.filter((m) => !m.ok && m.error.kind === 'not_found')).toHaveLength(3);
    expect(await violations(books)).toEqual([]);
  });
});

describe('taking a line out of its tray', () => {
  test('the need is open again with its reckoning; a second time is refused', async () => {
    const { input } = await accept('31300-02', 'OM', '2');
    const { trayLineId } = must(await acceptNeed(books.deps, mira, req(input)));
    expect((await needOf(books, '31300-02', 'OM')).state).toBe('none');
    must(await takeBack(books.deps, mira, req({ trayLineId: trayLineId as number })));
    expect(await needOf(books, '31300-02', 'OM')).toMatchObject({ state: 'open', suggested: '12.000000' });
    expect(await takeBack(books.deps, mira, req({ trayLineId: trayLineId as number }))).toMatchObject({
      error: { kind: 'changed_meanwhile', what: 'tray' },
    });
    expect(await violations(books)).toEqual([]);
  });
});

describe('what a person types in', () => {
  test.each([
    ['six', 'not_a_number'],
    ['-1', 'negative'],
    ['0', 'zero_quantity'],
    ['0.1234567', 'too_many_decimals'],
    ['4006381333931', 'absurd_quantity'],
    ['1.250', 'ambiguous'],
  ])('%s packs is refused as %s and changes nothing', async (packs, kind) => {
    const { need, input } = await accept('40950-01', 'OM', packs);
    const before = await trayLines();
    expect(await acceptNeed(books.deps, mira, req(input))).toMatchObject({
      error: { kind: 'invalid_field', field: 'packs', fault: { kind } },
    });
    expect(await trayLines()).toBe(before);
    expect((await needOf(books, '40950-01', 'OM')).fingerprint).toBe(need.fingerprint);
  });

  test('minimum above maximum, whichever was typed; an unknown item or place', async () => {
    const cell = { itemId: 1, locationId: 1, min: '70', max: '45', was: await cellsOf(books, 1, 1) };
    expect(await setMinMax(books.deps, mira, req(cell))).toMatchObject({
      error: { kind: 'wrong_cells', faults: [{ row: 0, column: 'min', fault: { kind: 'min_above_max' } }] },
    });
    const alone = { itemId: 1, locationId: 1, was: { max: cell.was?.max ?? '' }, now: { max: '1' } };
    expect(await savePolicies(books.deps, mira, req({ edits: [alone] }))).toMatchObject({
      error: { kind: 'wrong_cells', faults: [{ column: 'max' }] },
    });
    expect(await setMinMax(books.deps, mira, req({ ...cell, min: '1', itemId: 999_999 }))).toMatchObject({
      error: { kind: 'not_found', what: 'item' },
    });
    expect(await setMinMax(books.deps, mira, req({ ...cell, min: '1', locationId: 77 }))).toMatchObject({
      error: { kind: 'not_found', what: 'location' },
    });
  });

  test('an emptied location goes back to what the item says', async () => {
    const every = { itemId: 1, locationId: null, min: '40', max: '50', was: null };
    must(await setMinMax(books.deps, mira, req(every)));
    must(
      await setMinMax(
        books.deps,
        mira,
        req({ ...every, locationId: 1, min: '', max: '', was: await cellsOf(books, 1, 1) }),
      ),
    );
    expect(await books.rows('SELECT location_id FROM policy WHERE item_id = 1 AND location_id = 1')).toEqual([]);
    const state = await books.one<{ shortage: string }>(
      'SELECT shortage FROM item_location_state WHERE item_id = 1 AND location_id = 1',
    );
    expect(Number(state.shortage)).toBe(0);
  });
});
