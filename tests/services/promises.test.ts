import { makeItem } from '@/services/catalogue/makeItem';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { acceptNeeds } from '@/services/planning/acceptNeeds';
import { markChanged, recomputeDirty } from '@/services/planning/recompute';
import { savePolicies } from '@/services/planning/savePolicies';
import { cancelCustomerLines } from '@/services/promise/cancelCustomerLines';
import { addCustomerLines, type EnterCustomerOrder, enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { handOver } from '@/services/promise/handOver';
import { holdForCustomer } from '@/services/promise/holdForCustomer';
import type { CustomerLineInput } from '@/services/promise/postLines';
import { giveWhatIsFree, releaseExpired } from '@/services/promise/promiseByTime';
import { readCustomerOrder } from '@/services/promise/readCustomerOrder';
import { readEntry } from '@/services/promise/readEntry';
import { openPromises, type PromiseShow, readPromiseRows } from '@/services/promise/readPromises';
import { readShort } from '@/services/promise/readShort';
import { tellCustomer } from '@/services/promise/tellCustomer';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { correctStock } from '@/services/stock/correctStock';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { undoCommand } from '@/services/undo/undoCommand';
import { startJob } from '@/services/work/startJob';
import { startWebShop } from '@/standins/webShop';
import { apply, counts, preview, work } from './sheetSupport';
import { type Books, freshBooks, jun, MONDAY, mira, must, needOf, otto, req, setMinMax, violations } from './support';

// Who waits and what is put by for whom. Sources: calculations 2 and 3; common practice of customers' orders in a shop.
let books: Books;
const [HS, OM, MH] = [1, 2, 3] as const;
let made = 0;

beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());
beforeEach(() => books.deps.setClock(MONDAY));
/** Whatever was done: the books add up, and nothing differs from a full run. */
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

/** An item of its own, with so many at Harbour Street. */
async function itemWith(stock: number, locationId: number = HS): Promise<number> {
  made += 1;
  const { itemId } = must(
    await makeItem(
      books.deps,
      otto,
      req({ name: `Ordered thing ${made}`, unit: 'piece', price: '4', number: '', code: '' }),
    ),
  );
  if (stock !== 0) await correct(itemId, stock, locationId);
  return itemId;
}
const correct = async (itemId: number, to: number, locationId: number = HS) =>
  must(
    await correctStock(
      books.deps,
      mira,
      req({ locationId, reasonId: 3, note: '', lines: [{ itemId, how: 'to', quantity: String(to) }] }),
    ),
  );
const line = (itemId: number, quantity: string, over: Partial<CustomerLineInput> = {}): CustomerLineInput => ({
  ...{ itemId, packId: null, quantity, locationId: HS, way: 'collect', wantedDate: '', shipBy: '', holdUntil: '' },
  ...over,
});
const order = (lines: readonly CustomerLineInput[], over: Partial<EnterCustomerOrder> = {}) =>
  enterCustomerOrder(
    books.deps,
    mira,
    req({
      ...{
        customerId: null,
        customer: { name: 'Ada Fenwright', mail: 'ada@fenwright.example', phone: '', address: '' },
      },
      ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '', lines },
      ...over,
    }),
  );
type Line = { lineNo: number; open: number; ready: number; state: string; byHand: number };
/** Lines of an order with what of them lies ready, from the rows themselves. */
const linesOf = (orderId: number) =>
  books.rows<Line>(
    `SELECT l.line_no AS lineNo, CAST(l.base_quantity - l.handed_over - l.cancelled AS DOUBLE) AS open, l.by_hand AS byHand,
            CAST(MIN(IF(a.state = 'held', a.quantity - a.taken, 0) / d.per_set) AS DOUBLE) AS ready, o.state
       FROM customer_line l JOIN customer_order o ON o.id = l.order_id JOIN customer_demand d ON d.line_id = l.id
       LEFT JOIN allocation a ON a.id = d.allocation_id WHERE l.order_id = ? GROUP BY l.id, l.line_no, l.base_quantity, l.handed_over, l.cancelled, l.by_hand, o.state ORDER BY l.line_no`,
    [orderId],
  );
const ready = async (orderId: number) => (await linesOf(orderId)).map((l) => l.ready);
const versionOf = async (orderId: number) =>
  (await books.one<{ version: number }>('SELECT version FROM customer_order WHERE id = ?', [orderId])).version;
const state = (itemId: number, locationId: number = HS) =>
  books.one<{ owed: number; backordered: number; position: number }>(
    `SELECT CAST(owed AS DOUBLE) AS owed, CAST(backordered AS DOUBLE) AS backordered, CAST(position_quantity AS DOUBLE) AS position
       FROM item_location_state WHERE item_id = ? AND location_id = ?`,
    [itemId, locationId],
  );
const needs = (itemId: number) =>
  books.rows<{ state: string; cause: string; shortage: number }>(
    "SELECT state, cause, CAST(shortage AS DOUBLE) AS shortage FROM need WHERE item_id = ? AND state <> 'none'",
    [itemId],
  );
/** What the worker does as time goes on. */
const worker = async () => {
  await giveWhatIsFree(books.deps);
  await recomputeDirty(books.deps, 200);
};
const give = async (orderId: number, lines: { lineNo: number; quantity: string }[] = [], locationId: number = HS) =>
  handOver(books.deps, mira, req({ orderId, version: await versionOf(orderId), locationId, lines }));

describe('stock that is put by', () => {
  test('12 ordered, 5 there: 5 are put by, 7 are owed and raise a need although nobody has set a policy', async () => {
    const item = await itemWith(5);
    const { orderId, order: number } = must(await order([line(item, '12')]));
    expect(number).toMatch(/^CO2611-\d{4}$/);
    expect(await linesOf(orderId)).toMatchObject([{ open: 12, ready: 5, state: 'open' }]);
    expect(await state(item)).toEqual({ owed: 12, backordered: 7, position: -7 });
    expect(await needs(item)).toEqual([{ state: 'open', cause: 'customer_waits', shortage: 7 }]);
    // What is not carried, or phased out, is not bought for anybody.
    const edit = { itemId: item, locationId: HS, min: '4', max: '6', was: null };
    must(await setMinMax(books.deps, mira, req(edit)));
    expect(await needs(item)).toEqual([{ state: 'open', cause: 'below_min,customer_waits', shortage: 13 }]);
  });

  test('first wanted, first served, whoever came first; what one gives back goes to the next, and undo takes it again', async () => {
    const item = await itemWith(8);
    const later = must(await order([line(item, '6', { wantedDate: '2026-11-30' })])).orderId;
    const sooner = must(await order([line(item, '6', { wantedDate: '2026-11-25' })])).orderId;
    // What was promised stays promised; the second gets what is left.
    expect([await ready(later), await ready(sooner)]).toEqual([[6], [2]]);
    const cancel = req({ orderId: later, version: await versionOf(later), lines: 'all' as const });
    must(await cancelCustomerLines(books.deps, mira, cancel));
    expect([await linesOf(later), await ready(sooner)]).toMatchObject([[{ open: 0, state: 'cancelled' }], [6]]);
    must(await undoCommand(books.deps, mira, req({ undoKey: cancel.key })));
    expect([await linesOf(later), await ready(sooner)]).toMatchObject([[{ open: 6, ready: 2, state: 'open' }], [6]]);
  });

  test('what comes goes to those who wait, in their turn, in the transaction that books it in', async () => {
    const { id: item } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-07'");
    const stock = await books.one<{ free: string }>(
      'SELECT on_hand - blocked - inspection - allocated AS free FROM level WHERE item_id = ? AND location_id = ?',
      [item, HS],
    );
    const all = must(await order([line(item, String(Number(stock.free)), { wantedDate: '2026-11-24' })])).orderId;
    const first = must(await order([line(item, '7', { wantedDate: '2026-11-25' })])).orderId;
    const second = must(await order([line(item, '7', { wantedDate: '2026-11-26' })], { priority: 1 })).orderId;
    expect([await ready(first), await ready(second)]).toEqual([[0], [0]]);
    const need = await needOf(books, '10412-07', 'HS');
    expect((await needs(item)).some((n) => n.cause.includes('customer_waits'))).toBe(true);
    must(await acceptNeed(books.deps, otto, req({ needId: need.id, fingerprint: need.fingerprint, packs: '1' })));
    const [po] = must(await makeOrders(books.deps, otto, req({ supplierIds: [1, 2, 3, 4, 5, 6, 7, 8] })));
    const orderId = po?.orderId ?? 0;
    const { head, lines } = must(await readOrder(books.deps, otto, orderId));
    must(await approveOrder(books.deps, otto, req({ orderId, version: head.version })));
    const partId = lines[0]?.parts[0]?.id ?? 0;
    const booked = must(
      await receiveGoods(
        books.deps,
        mira,
        req({
          ...{ orderId, locationId: HS, deliveryNote: '', businessDate: '' },
          counted: [{ partId, quantity: '10', unit: 'base' as const }],
        }),
      ),
    );
    expect(booked.putBy.map((p) => p.orderId)).toEqual([first, second]);
    expect([await ready(first), await ready(second)]).toEqual([[7], [3]]);
    // Booked in by mistake: the newest promises are released, and wait again.
    must(await reverseReceipt(books.deps, mira, req({ receiptId: booked.receiptId, reason: 'not ours' })));
    const left = (await ready(first))[0] as number;
    expect([left + ((await ready(second))[0] as number), (await state(item)).backordered]).toEqual([0, 14]);
    for (const id of [all, first, second])
      must(
        await cancelCustomerLines(
          books.deps,
          mira,
          req({ orderId: id, version: await versionOf(id), lines: 'all' as const }),
        ),
      );
  });

  test('what another place sends is put by when it is received', async () => {
    const item = await itemWith(9, OM);
    const { orderId } = must(await order([line(item, '4')]));
    expect(await ready(orderId)).toEqual([0]);
    const { transferId } = must(
      await shipTransfer(
        books.deps,
        mira,
        req({ fromLocationId: OM, toLocationId: HS, lines: [{ itemId: item, quantity: '5', allocationId: null }] }),
      ),
    );
    must(
      await receiveTransfer(
        books.deps,
        mira,
        req({ transferId, lines: [{ lineNo: 1, received: '5', lost: '', reason: '' }] }),
      ),
    );
    expect(await ready(orderId)).toEqual([4]);
  });

  test('stock that turns up is given by the worker, orders far ahead wait until they are within the days of the company', async () => {
    const item = await itemWith(0);
    const near = must(await order([line(item, '3')])).orderId;
    const far = must(await order([line(item, '5', { wantedDate: '2026-12-21' })])).orderId;
    await correct(item, 6);
    expect([await ready(near), await ready(far)]).toEqual([[0], [0]]);
    await worker();
    expect([await ready(near), await ready(far)]).toEqual([[3], [0]]);
    books.deps.setClock('2026-12-06T09:00:00Z');
    await worker();
    expect(await ready(far)).toEqual([0]);
    books.deps.setClock('2026-12-07T09:00:00Z');
    await worker();
    expect(await ready(far)).toEqual([3]);
    // Back to the day that the needs of others are of.
    books.deps.setClock(MONDAY);
  });

  test('of one order what is near is given by itself, what is far ahead or held by hand is not', async () => {
    const [near, far, byHand] = [await itemWith(0), await itemWith(0), await itemWith(0)];
    const { orderId } = must(
      await order([line(near, '3'), line(far, '3', { wantedDate: '2026-12-21' }), line(byHand, '3')]),
    );
    const hold = { orderId, version: await versionOf(orderId), lineNo: 3, quantity: '0', until: '' };
    must(await holdForCustomer(books.deps, mira, req(hold)));
    for (const item of [near, far, byHand]) await correct(item, 3);
    await worker();
    expect(await ready(orderId)).toEqual([3, 0, 0]);
    const cancel = { orderId, version: await versionOf(orderId), lines: 'all' as const };
    must(await cancelCustomerLines(books.deps, mira, req(cancel)));
  });

  test('somebody buys it over the counter: the newest promise is released and waits again', async () => {
    const item = await itemWith(5);
    const { orderId } = must(await order([line(item, '5')]));
    const sold = must(
      await sellGoods(
        books.deps,
        mira,
        req({ locationId: HS, businessDate: '', lines: [{ itemId: item, quantity: '2', allocationId: null }] }),
      ),
    );
    expect(sold.released).toMatchObject([{ itemId: item, promisedTo: expect.stringContaining('Ada Fenwright') }]);
    expect(await state(item)).toMatchObject({ backordered: 5 });
    await worker();
    expect(await ready(orderId)).toEqual([3]);
  });
});

describe('put by until a minute', () => {
  test('to the minute it stays, at the minute it is free again and goes to the next', async () => {
    const item = await itemWith(4);
    const kept = must(await order([line(item, '4', { holdUntil: 'today 10:30' })]));
    // Half past ten in Berlin is half past nine.
    const next = must(await order([line(item, '3')])).orderId;
    books.deps.setClock('2026-11-23T09:29:59.999Z');
    expect(await releaseExpired(books.deps)).toBe(0);
    expect([await ready(kept.orderId), await ready(next)]).toEqual([[4], [0]]);
    books.deps.setClock('2026-11-23T09:30:00Z');
    expect(await releaseExpired(books.deps)).toBe(1);
    await recomputeDirty(books.deps, 200);
    expect([await linesOf(kept.orderId), await ready(next)]).toMatchObject([[{ ready: 0, byHand: 1, open: 4 }], [3]]);
    // It is not given anything by itself again, before a person says so.
    await worker();
    expect(await ready(kept.orderId)).toEqual([0]);
    const { orderId } = kept;
    const byRule = { orderId, version: await versionOf(orderId), lineNo: 1, quantity: null, until: '' };
    must(await holdForCustomer(books.deps, mira, req(byRule)));
    expect(await ready(orderId)).toEqual([1]);
  });

  test('by hand: so much and no more, as far as it is free', async () => {
    const item = await itemWith(10);
    const { orderId } = must(await order([line(item, '6')]));
    const hold = async (quantity: string, until = '') =>
      holdForCustomer(
        books.deps,
        mira,
        req({ orderId, version: await versionOf(orderId), lineNo: 1, quantity, until }),
      );
    must(await hold('2'));
    expect(await linesOf(orderId)).toMatchObject([{ ready: 2, byHand: 1 }]);
    const other = must(await order([line(item, '8')])).orderId;
    expect(await ready(other)).toEqual([8]);
    expect(await hold('5')).toMatchObject({ error: { kind: 'not_free', itemId: item } });
    expect(await hold('7')).toMatchObject({ error: { kind: 'invalid_field', field: 'quantity' } });
    expect(await hold('2', 'next blue moon')).toMatchObject({ error: { kind: 'invalid_field', field: 'holdUntil' } });
    expect(await linesOf(orderId)).toMatchObject([{ ready: 2 }]);
  });
});

describe('handing over', () => {
  test('what lies ready goes as a sale, the rest stays owed; the order is done with its last piece', async () => {
    const item = await itemWith(5);
    const { orderId } = must(await order([line(item, '8')]));
    const first = must(await give(orderId));
    expect(first).toMatchObject({ done: false, sale: expect.stringMatching(/^S2611-/) });
    expect(await linesOf(orderId)).toMatchObject([{ open: 3, ready: 0, state: 'open' }]);
    expect(await state(item)).toEqual({ owed: 3, backordered: 3, position: -3 });
    expect(await give(orderId)).toMatchObject({ error: { kind: 'nothing_counted' } });
    expect(await give(orderId, [{ lineNo: 1, quantity: '4' }])).toMatchObject({ error: { field: 'lines.0' } });
    // Somebody finds three more in the back room.
    expect(must(await give(orderId, [{ lineNo: 1, quantity: '3' }])).done).toBe(true);
    expect(await linesOf(orderId)).toMatchObject([{ open: 0, state: 'done' }]);
    expect(await give(orderId)).toMatchObject({ error: { kind: 'customer_order_not_in_this_state', state: 'done' } });
  });

  test('what is left is cancelled: an order of which something was handed over is done, one of which nothing was is cancelled', async () => {
    const item = await itemWith(3);
    const part = must(await order([line(item, '5')])).orderId;
    must(await give(part));
    const none = must(await order([line(item, '5')])).orderId;
    for (const [orderId, state] of [
      [part, 'done'],
      [none, 'cancelled'],
    ] as const) {
      const cancel = { orderId, version: await versionOf(orderId), lines: 'all' as const };
      must(await cancelCustomerLines(books.deps, mira, req(cancel)));
      expect(await linesOf(orderId)).toMatchObject([{ open: 0, state }]);
    }
  });

  test('an order that goes out only complete waits for its last line', async () => {
    const [a, b] = [await itemWith(4), await itemWith(0)];
    const { orderId } = must(await order([line(a, '4'), line(b, '1')], { delivers: 'complete' }));
    expect(await ready(orderId)).toEqual([4, 0]);
    expect(await give(orderId)).toMatchObject({ error: { kind: 'only_complete', waits: 1 } });
    await correct(b, 1);
    await worker();
    expect(await give(orderId, [{ lineNo: 1, quantity: '4' }])).toMatchObject({ error: { kind: 'only_complete' } });
    expect(must(await give(orderId)).done).toBe(true);
  });

  test('whether it goes out in part is as its customer has it, unless the order says otherwise', async () => {
    const name = { name: 'Whole Ltd', mail: 'whole@whole.example', phone: '', address: '' };
    const [a, b] = [await itemWith(4), await itemWith(0)];
    const first = must(await order([line(a, '1'), line(b, '1')], { customer: name }));
    const delivers = async (orderId: number) => must(await readCustomerOrder(books.deps, mira, orderId)).delivers;
    expect(await delivers(first.orderId)).toBe('in_part');
    await books.rows("UPDATE customer SET delivers = 'complete' WHERE name = 'Whole Ltd'");
    const second = must(await order([line(a, '1'), line(b, '1')], { customer: name }));
    expect(await delivers(second.orderId)).toBe('complete');
    expect(await give(second.orderId)).toMatchObject({ error: { kind: expect.any(String) } });
    expect(await ready(second.orderId)).toEqual([1, 0]);
    must(await give(first.orderId, [{ lineNo: 1, quantity: '1' }]));
    const third = must(await order([line(a, '1'), line(b, '1')], { customer: name, delivers: 'in_part' }));
    expect(await delivers(third.orderId)).toBe('in_part');
    must(await give(third.orderId, [{ lineNo: 1, quantity: '1' }]));
  });

  test('a kit goes in whole sets, of what it was made of when it was ordered', async () => {
    const [kit, balls, needle] = [await itemWith(0), await itemWith(12, OM), await itemWith(2, OM)];
    await books.rows('UPDATE item SET stock_kept = 0 WHERE id = ?', [kit]);
    await books.rows('INSERT INTO kit_component (kit_id, component_id, quantity) VALUES (?, ?, 4), (?, ?, 1)', [
      ...[kit, balls, kit, needle],
    ]);
    const { orderId } = must(await order([line(kit, '5', { locationId: OM })]));
    expect(await ready(orderId)).toEqual([2]);
    await books.rows('UPDATE kit_component SET quantity = 5 WHERE component_id = ?', [balls]);
    must(await give(orderId, [{ lineNo: 1, quantity: '2' }], OM));
    expect([await onHand(balls), await onHand(needle)]).toEqual([4, 0]);
    expect(await give(orderId, [{ lineNo: 1, quantity: '0.5' }], OM)).toMatchObject({ error: { field: 'lines.0' } });
  });
  const onHand = async (itemId: number) =>
    Number(
      (
        await books.one<{ q: string }>('SELECT on_hand AS q FROM level WHERE item_id = ? AND location_id = ?', [
          itemId,
          OM,
        ])
      ).q,
    );
});

describe('taking an order', () => {
  test('the same number of a web shop is the same order; the same name and mail the same customer', async () => {
    const item = await itemWith(2);
    const web = { channel: 'web_shop' as const, reference: 'W-1043' };
    const first = must(await order([line(item, '1')], web));
    expect(must(await order([line(item, '1')], web))).toEqual({ ...first, known: true });
    const other = must(await order([line(item, '1')], { ...web, reference: 'W-1044' }));
    const customers = await books.rows<{ customer_id: number }>(
      'SELECT DISTINCT customer_id FROM customer_order WHERE id IN (?, ?)',
      [first.orderId, other.orderId],
    );
    expect(customers).toHaveLength(1);
    must(
      await addCustomerLines(
        books.deps,
        mira,
        req({ orderId: first.orderId, version: await versionOf(first.orderId), lines: [line(item, '2')] }),
      ),
    );
    expect(await linesOf(first.orderId)).toMatchObject([
      { lineNo: 1, ready: 1 },
      { lineNo: 2, ready: 0 },
    ]);
  });

  test('what is wrong is said where it stands, and nothing is entered', async () => {
    const item = await itemWith(1);
    const before = await books.one('SELECT COUNT(*) AS n FROM customer_order');
    const wrong = async (l: Partial<CustomerLineInput>, over: Partial<EnterCustomerOrder> = {}) => {
      const r = await order([line(item, '1'), line(item, '1', l)], over);
      return r.ok ? null : r.error;
    };
    expect(await wrong({ quantity: '0' })).toMatchObject({ field: 'lines.1', fault: { kind: 'zero_quantity' } });
    expect(await wrong({ quantity: 'six' })).toMatchObject({ field: 'lines.1', fault: { kind: 'not_a_number' } });
    expect(await wrong({ quantity: '0.5' })).toMatchObject({ field: 'lines.1', fault: { kind: 'sold_to_decimals' } });
    expect(await wrong({ wantedDate: '31.02.' })).toMatchObject({ field: 'lines.1.wantedDate' });
    expect(await wrong({ shipBy: 'soon' })).toMatchObject({ field: 'lines.1.shipBy' });
    expect(await wrong({ holdUntil: '2026-11-24 25:00' })).toMatchObject({ field: 'lines.1.holdUntil' });
    expect(await wrong({ itemId: 999_999 })).toMatchObject({ kind: 'not_found', what: 'item' });
    expect(await wrong({ locationId: 99 })).toMatchObject({ kind: 'not_found', what: 'location' });
    const nobody = { customer: { name: ' ', mail: '', phone: '', address: '' } };
    expect(await wrong({}, nobody)).toMatchObject({ field: 'customer' });
    const noMail = { customer: { name: 'Ada', mail: 'ada at home', phone: '', address: '' } };
    expect(await wrong({}, noMail)).toMatchObject({ field: 'mail' });
    expect(await order([])).toMatchObject({ error: { kind: 'nothing_counted' } });
    expect(await books.one('SELECT COUNT(*) AS n FROM customer_order')).toEqual(before);
  });

  test('a shop takes and changes orders for its own place only', async () => {
    const item = await itemWith(1, MH);
    const enter = (locationId: number) =>
      enterCustomerOrder(
        books.deps,
        jun,
        req({
          ...{ customerId: null, customer: { name: 'Bo Ister', mail: '', phone: '', address: '' } },
          ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '' },
          lines: [line(item, '1', { locationId })],
        }),
      );
    const { orderId } = must(await enter(MH));
    expect(await enter(HS)).toMatchObject({ error: { kind: 'forbidden', because: 'location' } });
    const elsewhere = must(await order([line(item, '1')])).orderId;
    const cancel = (id: number, version: number) =>
      cancelCustomerLines(books.deps, jun, req({ orderId: id, version, lines: 'all' as const }));
    expect(await cancel(elsewhere, await versionOf(elsewhere))).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await cancel(orderId, (await versionOf(orderId)) + 1)).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    must(await cancel(orderId, await versionOf(orderId)));
  });
});

describe('what covers those who wait', () => {
  const cancelAll = async (orderId: number) =>
    must(
      await cancelCustomerLines(
        books.deps,
        mira,
        req({ orderId, version: await versionOf(orderId), lines: 'all' as const }),
      ),
    );
  const looked = async (orderId: number) => must(await readCustomerOrder(books.deps, mira, orderId));
  const list = async (show: PromiseShow, search = '') => {
    const asked = { show, sort: 'ship_by' as const, search, locationId: null, itemId: null };
    const head = must(await openPromises(books.deps, mira, asked));
    const { rows } = must(await readPromiseRows(books.deps, mira, { list: head.list, from: 0 }));
    return { head, rows };
  };

  test('from the tray to the order: what covers it, when it is there, and that it has moved since the customer was told', async () => {
    const { id: item } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-11'");
    const { orderId } = must(await order([line(item, '9', { wantedDate: '2026-12-24' })]));
    const hold = { orderId, version: 1, lineNo: 1, quantity: '0', until: '' };
    must(await holdForCustomer(books.deps, mira, req(hold)));
    const before = (await looked(orderId)).lines[0];
    const onHand = before?.covers.reduce((a, c) => a + (c.kind === 'stock' ? c.quantity : 0), 0) ?? 0;
    expect(before).toMatchObject({ backordered: 9e6, missing: 9e6 - onHand, promise: null, slackDays: null });
    expect(before?.ifOrdered).toMatch(/^2026-1[12]-/);
    // The need stands on the order with its quantity, and can be raised there.
    const need = before?.need;
    expect(need).toMatchObject({ packName: 'bag', sent: false, from: expect.any(String) });
    expect((need?.packs ?? 0) * 10).toBeGreaterThanOrEqual(before?.missing ?? 0);
    must(
      await acceptNeed(
        books.deps,
        otto,
        req({ needId: need?.needId ?? 0, fingerprint: need?.fingerprint ?? '', packs: '9' }),
      ),
    );
    const inTray = (await looked(orderId)).lines[0];
    expect(inTray?.covers.at(-1)).toMatchObject({ kind: 'tray', href: '/trays' });
    expect(inTray).toMatchObject({ missing: 0, need: null });
    const [po] = must(await makeOrders(books.deps, otto, req({ supplierIds: [1, 2, 3, 4, 5, 6, 7, 8] })));
    const { head, lines } = must(await readOrder(books.deps, otto, po?.orderId ?? 0));
    must(await approveOrder(books.deps, otto, req({ orderId: head.id, version: head.version })));
    const number = must(await readOrder(books.deps, otto, head.id)).head.number;
    const covered = (await looked(orderId)).lines[0];
    expect(covered?.covers.at(-1)).toMatchObject({
      ...{ kind: 'order', ref: number, href: `/orders/${head.id}`, ordered: 90e6, received: 0, lateDays: 0 },
    });
    // The receiving day after the one it is wanted on.
    const wanted = lines[0]?.parts[0]?.wantedDate as string;
    expect((covered?.promise?.date ?? '') > wanted).toBe(true);
    expect(covered?.slackDays).toBeGreaterThan(0);

    // With care: nine of ten deliveries of its supplier came within 40 days, and the receiving day after them; of four it says nothing.
    const supplier = await books.one<{ id: number }>('SELECT supplier_id AS id FROM purchase_order WHERE id = ?', [
      head.id,
    ]);
    const careful = async (deliveries: number) => {
      await books.rows('DELETE FROM supplier_lead_time WHERE supplier_id = ?', [supplier.id]);
      await books.rows("INSERT INTO supplier_lead_time VALUES (?, ?, 12, 4, 11, 39.2, '[]', '2026-11-22')", [
        ...[supplier.id, deliveries],
      ]);
      return (await looked(orderId)).lines[0]?.promise;
    };
    const date = covered?.promise?.date;
    expect(await careful(4)).toEqual({ date, cautious: date });
    // Ordered on 23 November: forty days are Saturday 2 January; it is received on Monday the 4th and there on the 5th.
    expect(await careful(20)).toEqual({ date, cautious: '2027-01-05' });
    await books.rows('DELETE FROM supplier_lead_time WHERE supplier_id = ?', [supplier.id]);

    const version = async () => (await looked(orderId)).version;
    const tell = (how: 'email' | 'phone', text: { subject: string; body: string }) =>
      version().then((v) => tellCustomer(books.deps, mira, req({ orderId, version: v, how, ...text })));
    const { text } = await looked(orderId);
    expect(text.body).toContain(`expected on ${covered?.promise?.date}`);
    must(await tell('email', text));
    expect((await looked(orderId)).lines[0]).toMatchObject({ moved: false, told: { date: covered?.promise?.date } });
    expect(await books.one('SELECT recipient, subject FROM outbox_mail ORDER BY id DESC LIMIT 1')).toEqual({
      recipient: 'ada@fenwright.example',
      subject: text.subject,
    });
    expect((await list('moved')).rows.map((r) => r.orderId)).not.toContain(orderId);
    await books.rows("UPDATE delivery_part SET promised_date = '2026-12-29' WHERE id = ?", [lines[0]?.parts[0]?.id]);
    const later = await looked(orderId);
    expect(later.lines[0]).toMatchObject({ moved: true, slackDays: expect.any(Number) });
    expect(later.lines[0]?.slackDays).toBeLessThan(0);
    expect((await list('moved')).rows.map((r) => r.orderId)).toContain(orderId);
    expect((await list('late', 'ada@')).rows.map((r) => r.orderId)).toContain(orderId);
    expect((await list('open', number ?? '')).rows).toEqual([]);
    // The order is closed with nothing received: nothing is promised any more, which is another word as well.
    const stateIs = (is: string) => books.rows('UPDATE purchase_order SET state = ? WHERE id = ?', [is, head.id]);
    await stateIs('closed');
    expect((await looked(orderId)).lines[0]).toMatchObject({ moved: true, promise: null });
    await stateIs('approved');
    await cancelAll(orderId);
    expect((await list('ended', 'Fenwright')).rows.map((r) => r.orderId)).toContain(orderId);
    await books.rows('UPDATE delivery_part SET promised_date = NULL WHERE id = ?', [lines[0]?.parts[0]?.id]);
  });

  test('late is what comes after its day and what nothing brings; what lies ready is not', async () => {
    const [there, lacking] = [await itemWith(2), await itemWith(0)];
    const lies = must(await order([line(there, '2', { wantedDate: '2026-11-23' })])).orderId;
    const waits = must(await order([line(lacking, '2', { wantedDate: '2026-12-30' })])).orderId;
    const late = (await list('late')).rows.map((r) => r.orderId);
    expect([late.includes(lies), late.includes(waits)]).toEqual([false, true]);
    for (const id of [lies, waits]) await cancelAll(id);
  });

  test('what is kept back covers nobody', async () => {
    const item = await itemWith(5);
    const kept = { itemId: item, locationId: HS, was: { reserve: '' }, now: { reserve: '2' } };
    must(await savePolicies(books.deps, mira, req({ edits: [kept] })));
    const { orderId } = must(await order([line(item, '5')]));
    expect((await looked(orderId)).lines[0]).toMatchObject({ ready: 3e6, short: 2e6, missing: 2e6, covers: [] });
    // Of what lies there two are kept back, one is free: it is not put by for a line by hand, and covers it all the same.
    const hold = { orderId, version: await versionOf(orderId), lineNo: 1, quantity: '2', until: '' };
    must(await holdForCustomer(books.deps, mira, req(hold)));
    expect((await looked(orderId)).lines[0]).toMatchObject({
      ...{ ready: 2e6, short: 2e6, missing: 2e6, covers: [{ kind: 'stock', quantity: 1e6 }] },
    });
    await cancelAll(orderId);
  });

  test('what should have come already is counted on the next receiving day, and there on the one after', async () => {
    const { id: item } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-11'");
    const parts = await books.rows<{ id: number }>(
      `SELECT d.id FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id JOIN purchase_order o ON o.id = l.order_id
        WHERE l.item_id = ? AND d.location_id = ? AND o.state = 'approved' AND d.received_quantity = 0`,
      [item, HS],
    );
    const [part] = parts;
    const { orderId } = must(await order([line(item, '30')]));
    await books.rows("UPDATE delivery_part SET promised_date = '2026-11-16' WHERE id = ?", [part?.id]);
    const covered = (await looked(orderId)).lines[0];
    expect(covered?.covers.at(-1)).toMatchObject({ kind: 'order', lateDays: 7, date: '2026-11-24' });
    expect(covered?.promise?.date).toBe('2026-11-24');
    await books.rows('UPDATE delivery_part SET promised_date = NULL WHERE id = ?', [part?.id]);
    await cancelAll(orderId);
  });

  test('what many orders lack is decided together: one need for all who wait, quantities as raised, undone as one', async () => {
    const [a, b] = [await itemWith(0), await itemWith(0)];
    await books.rows(
      `INSERT INTO source (item_id, supplier_id, preference, pack_id, minimum_quantity, multiple_packs, rounding)
       VALUES (?, 1, 1, NULL, 0, 1, 'up')`,
      [a],
    );
    await markChanged(books.deps);
    while ((await recomputeDirty(books.deps, 100)) > 0);
    const waits = (name: string, lines: readonly CustomerLineInput[]) =>
      order(lines, { customer: { name, mail: '', phone: '', address: '' } });
    const first = must(await waits('Short Anna', [line(a, '4'), line(b, '1')]));
    const second = must(await waits('Short Bert', [line(a, '3')]));
    const { head } = await list('waiting', 'Short');
    const short = must(await readShort(books.deps, mira, { list: head.list }));
    const need = short.needs.find((n) => n.itemId === a);
    expect(need).toMatchObject({
      ...{ missing: 7e6, packs: 7e6, sent: false },
      waits: [
        { orderId: first.orderId, customer: 'Short Anna', missing: 4e6 },
        { orderId: second.orderId, customer: 'Short Bert', missing: 3e6 },
      ],
    });
    // Of what nobody sells the need is there too, and stays where it is.
    const other = short.needs.find((n) => n.itemId === b);
    expect(other).toMatchObject({ from: null });
    const asked = [need, other].map((n) => ({ needId: n?.needId ?? 0, fingerprint: n?.fingerprint ?? '', packs: '9' }));
    const bad = await acceptNeeds(books.deps, mira, req({ needs: asked.map((n) => ({ ...n, packs: 'x' })) }));
    expect(bad).toMatchObject({ error: { kind: 'invalid_field', field: 'needs.0' } });
    const request = req({ needs: asked });
    const done = must(await acceptNeeds(books.deps, mira, request));
    expect(done).toMatchObject({ accepted: [{ needId: need?.needId }], stayed: [other?.needId] });
    expect((await looked(first.orderId)).lines[0]).toMatchObject({ missing: 0, covers: [{ kind: 'tray' }] });
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect(must(await readShort(books.deps, mira, { list: head.list })).needs.map((n) => n.itemId)).toEqual([a, b]);
    for (const o of [first, second]) await cancelAll(o.orderId);
  });

  test('who could send it, and a customer without an address is called', async () => {
    const item = await itemWith(20, OM);
    const { orderId } = must(
      await order([line(item, '4')], { customer: { name: 'Hob Tarrow', mail: '', phone: '0550', address: '' } }),
    );
    const view = await looked(orderId);
    expect(view.lines[0]?.couldSend).toMatchObject([{ location: 'Old Mill', surplus: 20e6 }]);
    const tell = (how: 'email' | 'phone') =>
      tellCustomer(books.deps, mira, req({ orderId, version: view.version, how, subject: 's', body: 'b' }));
    expect(await tell('email')).toMatchObject({ error: { kind: 'no_customer_mail', customer: 'Hob Tarrow' } });
    must(await tell('phone'));
    expect((await looked(orderId)).lines[0]).toMatchObject({ told: { date: null }, moved: false });
    // What is done by then is not told of.
    const second = must(await order([line(item, '1'), line(await itemWith(1), '1')])).orderId;
    must(await give(second, [{ lineNo: 2, quantity: '1' }]));
    const version = await versionOf(second);
    must(
      await tellCustomer(books.deps, mira, req({ orderId: second, version, how: 'phone', subject: 's', body: 'b' })),
    );
    expect((await looked(second)).lines.map((l) => l.told?.date)).toEqual([null, undefined]);
    expect((await looked(orderId)).history.map((h) => h.action)).toEqual(['entered', 'customer told by phone']);
  });

  test('a line typed into one field: quantity, pack and item, with what may be promised', async () => {
    const entry = async (text: string) => must(await readEntry(books.deps, mira, { text, locationId: HS }));
    const [moss] = await entry('6 bag fen moss');
    expect(moss).toMatchObject({ number: '10412-07', quantity: '6', packName: 'bag' });
    const [ball] = await entry('10412-07 60');
    expect(ball).toMatchObject({ number: '10412-07', quantity: '60', packId: null });
    expect(ball?.mayPromise).toBeGreaterThanOrEqual(0);
    expect(await entry('no such thing 6')).toEqual([]);
    await books.rows("UPDATE item SET promise_rule = 'without_limit' WHERE number = '10412-07'");
    expect((await entry('10412-07'))[0]).toMatchObject({ mayPromise: null, quantity: '1' });
    await books.rows("UPDATE item SET promise_rule = NULL WHERE number = '10412-07'");
  });
});

describe('what may be promised, and what is ready', () => {
  test('from stock, also from what is on the way, less those who wait already, or without limit', async () => {
    const { id: item } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-04'");
    const entry = async () => {
      const [found] = must(await readEntry(books.deps, mira, { text: '10412-04', locationId: MH }));
      if (!found) throw new Error('not found');
      return found;
    };
    const rule = (is: string | null) => books.rows('UPDATE item SET promise_rule = ? WHERE id = ?', [is, item]);
    await correct(item, 4, MH);
    await books.rows('UPDATE level SET allocated = 0 WHERE item_id = ? AND location_id = ?', [item, MH]);
    await rule('stock');
    const { coming, free } = await entry();
    // Ten are on the way on an order of the demo.
    expect(coming).toBeGreaterThanOrEqual(10e6);
    expect((await entry()).mayPromise).toBe(free);
    await rule('on_the_way');
    expect((await entry()).mayPromise).toBe(free + coming);
    // Five want it: four lie ready, one waits for what comes.
    const { orderId } = must(await order([line(item, '5', { locationId: MH })]));
    expect((await entry()).mayPromise).toBe(free + coming - 5e6);
    await rule('stock');
    expect((await entry()).mayPromise).toBe(0);
    await rule(null);
    await books.rows("UPDATE company SET promise_rule = 'without_limit'");
    expect((await entry()).mayPromise).toBeNull();
    await books.rows("UPDATE company SET promise_rule = 'on_the_way'");
    must(
      await cancelCustomerLines(
        books.deps,
        mira,
        req({ orderId, version: await versionOf(orderId), lines: 'all' as const }),
      ),
    );
  });

  test('what lies ready of all orders is one list, what waits another', async () => {
    const [a, b] = [await itemWith(3), await itemWith(0)];
    const both = must(await order([line(a, '2'), line(b, '2')]));
    const whole = must(await order([line(a, '1')]));
    const lines = async (show: PromiseShow) => {
      const asked = { show, sort: 'ship_by' as const, search: '', locationId: HS, itemId: null };
      const head = must(await openPromises(books.deps, mira, asked));
      const { rows } = must(await readPromiseRows(books.deps, mira, { list: head.list, from: 0 }));
      return rows.flatMap((r) => (r.itemId === a || r.itemId === b ? [[r.orderId, r.itemId]] : []));
    };
    expect(await lines('ready')).toEqual([
      [both.orderId, a],
      [whole.orderId, a],
    ]);
    expect(await lines('waiting')).toEqual([[both.orderId, b]]);
    must(await give(whole.orderId));
    expect(await lines('ready')).toEqual([[both.orderId, a]]);
  });
});

describe('orders from elsewhere', () => {
  const orderBy = async (reference: string) =>
    (await books.one<{ id: number }>('SELECT id FROM customer_order WHERE reference = ?', [reference])).id;

  test('from a spreadsheet: entered once, put by in turn; what is wrong stands at its cell', async () => {
    const item = await itemWith(5);
    const { number } = await books.one<{ number: string }>('SELECT number FROM item WHERE id = ?', [item]);
    const head =
      'order_number,customer,mail,ordered_on,only_complete,item,location,packs,pack,to_be_sent,wanted_on,ship_by';
    const row = (order: string, quantity: string, wanted: string, customer = 'Wil Osterhay') =>
      `${order},${customer},,2026-11-20,no,${number},HS,${quantity},,yes,${wanted},`;
    const file = [head, row('7001', '4', '2026-11-27'), row('7002', '3', '2026-11-26', 'Una Velt')].join('\r\n');
    const done = await apply(books, await preview(books, 'customer-orders', file));
    expect(counts(done)).toEqual([2, 0, 0, 0]);
    expect([await ready(await orderBy('7001')), await ready(await orderBy('7002'))]).toEqual([[2], [3]]);
    expect(counts(await preview(books, 'customer-orders', file))).toEqual([0, 0, 2, 0]);
    const wrong = [
      head,
      row('7003', '0', '2026-11-26'),
      row('7001', '9', '2026-11-27'),
      row('7004', '1', '2026-11-26').replace('2026-11-20', '2026-12-20'),
      row('7005', '1', '2026-11-26').replace(number, 'no such'),
    ].join('\r\n');
    const bad = await preview(books, 'customer-orders', wrong);
    expect(counts(bad)).toEqual([0, 0, 0, 4]);
    expect(bad.rows.map((r) => r.faults.map((f) => `${f.column}:${f.kind}`))).toEqual([
      ['packs:out_of_range'],
      ['order_number:not_changeable'],
      ['ordered_on:in_the_future'],
      ['item:not_on_file'],
    ]);
    // The customer of an order that is there already is another one.
    const another = [head, row('7001', '1', '2026-12-01', 'Somebody else')].join('\r\n');
    expect((await apply(books, await preview(books, 'customer-orders', another))).import.state).not.toBe('done');
    await recomputeDirty(books.deps, 500);
  });

  test('from the web shop: each order once, sent from the warehouse', async () => {
    const shop = await startWebShop(0);
    process.env.VORRAT_WEB_SHOP_URL = shop.url;
    const take = async () => {
      must(await startJob(books.deps, mira, req({ kind: 'take-web-orders' as const })));
      await work(books);
      return books.rows<{ reference: string; code: string }>(
        `SELECT DISTINCT o.reference, p.code FROM customer_order o JOIN customer_line l ON l.order_id = o.id
           JOIN location p ON p.id = l.location_id WHERE o.channel = 'web_shop' AND o.reference LIKE 'W-26%' ORDER BY 1`,
      );
    };
    const first = await take();
    expect(first.length).toBeGreaterThan(3);
    expect(new Set(first.map((o) => o.code))).toEqual(new Set(['WY']));
    expect(await take()).toEqual(first);
    await shop.close();
    delete process.env.VORRAT_WEB_SHOP_URL;
    await recomputeDirty(books.deps, 500);
  });
});
