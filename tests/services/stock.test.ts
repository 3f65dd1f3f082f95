import { closeBooks } from '@/services/cost/closeBooks';
import { allocateStock, releaseAllocation } from '@/services/stock/allocateStock';
import { countStock } from '@/services/stock/countStock';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { type Books, freshBooks, jun, mira, must, otto, req, violations } from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const TRANSIT = 5;
const itemOf = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;

/** Quantity, value and promises of a pair; zeros where nothing ever was. */
async function level(itemId: number, locationId: number) {
  const [row] = await books.rows<{ onHand: string; allocated: string; value: number }>(
    'SELECT on_hand AS onHand, allocated, value_minor AS value FROM level WHERE item_id = ? AND location_id = ?',
    [itemId, locationId],
  );
  return { onHand: Number(row?.onHand ?? 0), allocated: Number(row?.allocated ?? 0), value: row?.value ?? 0 };
}
const state = (itemId: number, locationId: number) =>
  books.one<{ onTheWay: string; owed: string; position: string }>(
    `SELECT on_the_way AS onTheWay, owed, position_quantity AS position FROM item_location_state
      WHERE item_id = ? AND location_id = ?`,
    [itemId, locationId],
  );
const count = (itemId: number, quantity: string, locationId = 1) =>
  countStock(books.deps, mira, req({ locationId, note: '', lines: [{ itemId, quantity }] }));
const sell = (itemId: number, quantity: string, allocationId: number | null = null, businessDate = '') =>
  sellGoods(books.deps, mira, req({ locationId: 1, businessDate, lines: [{ itemId, quantity, allocationId }] }));
const promise = (itemId: number, quantity: string, promisedTo = 'Tamsin Oor') =>
  allocateStock(books.deps, mira, req({ itemId, locationId: 1, quantity, promisedTo }));

describe('promises', () => {
  test('only what is free can be promised; what is promised is owed and not free', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '10'));
    must(await promise(item, '7'));
    expect(await promise(item, '4', 'Bo Lindqvist')).toEqual({
      ok: false,
      error: { kind: 'not_free', itemId: item, free: 3_000_000 },
    });
    expect(await level(item, 1)).toMatchObject({ onHand: 10, allocated: 7 });
    expect(await state(item, 1)).toMatchObject({ owed: '7.000000', position: '3.000000' });
  });

  test('a sale takes from its promise, the rest stays promised; a released promise is free again', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '10'));
    const { allocationId } = must(await promise(item, '6'));
    must(await sell(item, '4', allocationId));
    expect(await level(item, 1)).toMatchObject({ onHand: 6, allocated: 2 });
    must(await releaseAllocation(books.deps, mira, req({ allocationId })));
    expect(await level(item, 1)).toMatchObject({ onHand: 6, allocated: 0 });
    expect(await releaseAllocation(books.deps, mira, req({ allocationId }))).toMatchObject({
      error: { kind: 'not_found', what: 'allocation' },
    });
  });

  test('when a count finds less than is promised, the newest promises are released, and said', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '10'));
    must(await promise(item, '4', 'first'));
    must(await promise(item, '3', 'second'));
    must(await promise(item, '2', 'third'));
    const counted = must(await count(item, '5'));
    expect(counted.released.map((r) => [r.promisedTo, r.quantity])).toEqual([
      ['third', 2_000_000],
      ['second', 3_000_000],
    ]);
    expect(await level(item, 1)).toMatchObject({ onHand: 5, allocated: 4 });
  });

  test('a promise of another item or place can’t be taken', async () => {
    const [item, other] = [await itemOf('10412-02'), await itemOf('10412-03')];
    must(await count(item, '10'));
    const { allocationId } = must(await promise(item, '6'));
    expect(await sell(other, '1', allocationId)).toMatchObject({ error: { kind: 'not_found', what: 'allocation' } });
  });

  test('twelve people promise the last piece at once: one gets it', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '1'));
    const tries = await Promise.all(Array.from({ length: 12 }, (_, i) => promise(item, '1', `customer ${i}`)));
    expect(tries.filter((t) => t.ok)).toHaveLength(1);
    expect(await level(item, 1)).toMatchObject({ allocated: 1 });
  });
});

describe('transfers', () => {
  test('quantity and value go through transit and arrive whole; on the way they count where they go', async () => {
    const item = await itemOf('10412-03');
    const total = async () => Number((await books.one<{ v: string }>('SELECT SUM(value_minor) AS v FROM level')).v);
    const [before, from, to] = [await total(), await level(item, 4), await level(item, 1)];
    const here = Number((await state(item, 1)).onTheWay);
    const lines = [{ itemId: item, quantity: '7' }];
    const { transferId, transfer } = must(
      await shipTransfer(books.deps, mira, req({ fromLocationId: 4, toLocationId: 1, lines })),
    );
    expect(transfer).toMatch(/^T2611-\d{4}$/);
    const moved = (await level(item, TRANSIT)).value;
    expect(moved).toBe(Math.round((from.value * 7) / from.onHand));
    expect(await level(item, 4)).toMatchObject({ onHand: from.onHand - 7, value: from.value - moved });
    expect(Number((await state(item, 1)).onTheWay)).toBe(here + 7);
    const part = (received: string, lost = '', reason = '') =>
      receiveTransfer(books.deps, mira, req({ transferId, lines: [{ lineNo: 1, received, lost, reason }] }));
    expect(must(await part('2')).open).toBe(5_000_000);
    expect(await part('6')).toMatchObject({
      error: { kind: 'invalid_field', field: 'lines.1.received', fault: { kind: 'more_than', most: 5_000_000 } },
    });
    expect(await total()).toBe(before);
    expect(must(await part('4', '1', 'fell into the harbour')).open).toBe(0);
    const lost = await books.one<{ value: number; reason: string }>(
      'SELECT lost_value_minor AS value, lost_reason AS reason FROM transfer_line WHERE transfer_id = ?',
      [transferId],
    );
    expect(lost.reason).toBe('fell into the harbour');
    expect(await level(item, TRANSIT)).toEqual({ onHand: 0, allocated: 0, value: 0 });
    expect(await level(item, 1)).toMatchObject({ onHand: to.onHand + 6, value: to.value + moved - lost.value });
    expect(await total()).toBe(before - lost.value);
    expect(await part('1')).toMatchObject({ ok: false });
  });

  test('nothing that is promised or missing is sent', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '10'));
    must(await promise(item, '7'));
    const lines = [{ itemId: item, quantity: '4' }];
    const away = (toLocationId: number) =>
      shipTransfer(books.deps, mira, req({ fromLocationId: 1, toLocationId, lines }));
    expect(await away(2)).toMatchObject({ error: { kind: 'not_free', free: 3_000_000 } });
    expect(await away(1)).toMatchObject({ error: { kind: 'not_found', what: 'location' } });
    expect(await away(TRANSIT)).toMatchObject({ error: { kind: 'not_found', what: 'location' } });
    const numbers = await books.rows("SELECT * FROM number_counter WHERE pattern = 'TR'");
    expect(numbers).toEqual([]);
  });

  test('shop staff receive only at their own place', async () => {
    const item = await itemOf('10412-03');
    const lines = [{ itemId: item, quantity: '2' }];
    const { transferId } = must(
      await shipTransfer(books.deps, mira, req({ fromLocationId: 4, toLocationId: 1, lines })),
    );
    const entry = { lineNo: 1, received: '2', lost: '', reason: '' };
    expect(await receiveTransfer(books.deps, jun, req({ transferId, lines: [entry] }))).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
    expect(await shipTransfer(books.deps, jun, req({ fromLocationId: 1, toLocationId: 3, lines }))).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
  });
});

describe('sales and counts', () => {
  test('below zero goods leave at the last known cost; the next count puts it right', async () => {
    const item = await itemOf('10412-02');
    must(await count(item, '3'));
    const before = await level(item, 1);
    const cost = await books.one<{ perPiece: string }>(
      'SELECT last_cost_minor / last_cost_quantity AS perPiece FROM level WHERE item_id = ? AND location_id = 1',
      [item],
    );
    must(await sell(item, '5'));
    const below = await level(item, 1);
    expect(below.onHand).toBe(-2);
    expect(below.value).toBe(-Math.round(2 * Number(cost.perPiece)));
    expect(before.value).toBeGreaterThan(0);
    const { differences } = must(await count(item, '0'));
    expect(differences).toEqual([{ itemId: item, difference: 2_000_000 }]);
    expect(await level(item, 1)).toEqual({ onHand: 0, allocated: 0, value: 0 });
  });

  test('an item that never came in here leaves at what it cost elsewhere', async () => {
    const item = await itemOf('10412-03');
    await books.owner.query('SET FOREIGN_KEY_CHECKS = 0');
    await books.owner.query('DELETE FROM movement WHERE item_id = ? AND location_id = 3', [item]);
    await books.owner.query('DELETE FROM level WHERE item_id = ? AND location_id = 3', [item]);
    const elsewhere = await books.one<{ q: string; v: number }>(
      'SELECT last_cost_quantity AS q, last_cost_minor AS v FROM level WHERE item_id = ? ORDER BY location_id LIMIT 1',
      [item],
    );
    const lines = [{ itemId: item, quantity: '2', allocationId: null }];
    must(await sellGoods(books.deps, jun, req({ locationId: 3, businessDate: '', lines })));
    expect((await level(item, 3)).value).toBe(-Math.round((elsewhere.v * 2) / Number(elsewhere.q)));
  });

  test('what can’t be read or is not ours is refused at its line', async () => {
    const item = await itemOf('10412-02');
    expect(await sell(item, 'ten')).toMatchObject({ error: { kind: 'invalid_field', field: 'lines.0' } });
    expect(await sell(item, '0')).toMatchObject({ error: { fault: { kind: 'zero_quantity' } } });
    expect(await sell(99_999, '1')).toMatchObject({ error: { kind: 'not_found', what: 'item' } });
    expect(await sell(item, '1', null, '2026-11-24')).toMatchObject({ error: { fault: { kind: 'in_the_future' } } });
    expect(await sell(item, '1', null, 'soon')).toMatchObject({ error: { fault: { kind: 'not_a_date' } } });
  });
});

describe('a receipt', () => {
  /** Books in one pack of an open part and says which receipt that made. */
  async function bookIn(businessDate = '') {
    const part = await books.one<{ partId: number; orderId: number; locationId: number; itemId: number }>(
      `SELECT d.id AS partId, l.order_id AS orderId, d.location_id AS locationId, l.item_id AS itemId
         FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id JOIN purchase_order o ON o.id = l.order_id
        WHERE o.state = 'approved' AND d.location_id = 1 ORDER BY d.id LIMIT 1`,
    );
    const { orderId, locationId, partId } = part;
    const counted = [{ partId, quantity: '1', unit: 'pack' as const }];
    const input = { orderId, locationId, deliveryNote: '', businessDate, counted };
    const done = await receiveGoods(books.deps, mira, req(input));
    const [last] = await books.rows<{ id: number }>('SELECT MAX(id) AS id FROM goods_receipt');
    return { ...part, done, receiptId: last?.id ?? 0 };
  }

  test('reversed: the goods leave with the value they brought and are expected again; only once', async () => {
    const item = await itemOf('10412-07');
    const before = [await level(item, 1), await state(item, 1)];
    const { receiptId } = await bookIn();
    expect(await level(item, 1)).not.toEqual(before[0]);
    const reverse = (actor = mira) =>
      reverseReceipt(books.deps, actor, req({ receiptId, reason: 'counted the wrong pallet' }));
    expect(await reverse(jun)).toMatchObject({ error: { kind: 'forbidden', because: 'location' } });
    expect(must(await reverse()).receipt).toMatch(/^R2611-/);
    expect([await level(item, 1), await state(item, 1)]).toEqual(before);
    expect(await reverse()).toMatchObject({ error: { kind: 'already_reversed' } });
    expect(await bookIn()).toMatchObject({ done: { ok: true } });
  });

  test('reversed by two at once: one does it', async () => {
    const { receiptId } = await bookIn();
    const both = await Promise.all(
      [mira, otto].map((a) => reverseReceipt(books.deps, a, req({ receiptId, reason: '' }))),
    );
    expect(both.filter((r) => r.ok)).toHaveLength(1);
  });

  test('back-dated before a sale: what the sale should have cost is put right by one movement dated today', async () => {
    const item = await itemOf('10412-07');
    must(await count(item, '0'));
    await books.owner.query("UPDATE movement SET business_date = '2026-11-15' WHERE kind = 'count'");
    must(await sell(item, '4', null, '2026-11-20'));
    const { value: provisional } = await level(item, 1);
    const { done } = await bookIn('2026-11-18');
    must(done);
    const moves = await books.rows<{ kind: string; day: string; q: string; v: number; variance: number }>(
      `SELECT kind, business_date AS day, on_hand_change AS q, value_change_minor AS v, variance_minor AS variance
         FROM movement WHERE item_id = ? AND location_id = 1 ORDER BY posting DESC LIMIT 2`,
      [item],
    );
    // 10 balls for 32.80: four fill the gap at 13.12, six for 19.68 stay; by date the sale costs the same 13.12.
    const receipt = moves.find((m) => m.kind === 'receipt');
    expect(receipt).toMatchObject({ day: '2026-11-18', q: '10.000000', variance: 1312 + provisional });
    expect(await level(item, 1)).toMatchObject({ onHand: 6, value: 1968 });
    expect(moves.filter((m) => m.kind === 'cost_adjustment')).toEqual([]);

    // A second, dearer receipt dated before the sale as well: by date the sale costs its share of both.
    await books.owner.query(
      "UPDATE order_line l JOIN purchase_order o ON o.id = l.order_id SET l.price_amount = 40 WHERE o.state = 'approved'",
    );
    await books.owner.query(
      "UPDATE delivery_part SET base_quantity = base_quantity + 10, pack_quantity = pack_quantity + 1 WHERE received_quantity > 0 AND location_id = 1 AND order_line_id IN (SELECT l.id FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.state = 'approved')",
    );
    await books.owner.query(
      "UPDATE order_line l JOIN purchase_order o ON o.id = l.order_id SET l.base_quantity = l.base_quantity + 10, l.pack_quantity = l.pack_quantity + 1 WHERE o.state = 'approved' AND l.item_id = ?",
      [item],
    );
    must((await bookIn('2026-11-19')).done);
    const [adjustment, second] = await books.rows<{ kind: string; day: string; v: number; variance: number }>(
      `SELECT kind, business_date AS day, value_change_minor AS v, variance_minor AS variance
         FROM movement WHERE item_id = ? AND location_id = 1 ORDER BY posting DESC LIMIT 2`,
      [item],
    );
    const came = (second?.v ?? 0) + 3280;
    expect(adjustment).toMatchObject({ kind: 'cost_adjustment', day: '2026-11-23', variance: 0 });
    expect(adjustment?.v).toBe(came - Math.round((came * 4) / 20) - (1968 + (second?.v ?? 0)));
  });
});

describe('closed books', () => {
  test('nothing is posted on or before the last closed day; the owner can open it again', async () => {
    const item = await itemOf('10412-02');
    const close = (to: string, was: string, actor = otto) => closeBooks(books.deps, actor, req({ to, was }));
    expect(await close('2026-10-31', '', mira)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await close('2026-11-24', '')).toMatchObject({ error: { fault: { kind: 'in_the_future' } } });
    expect(await close('October', '')).toMatchObject({ error: { fault: { kind: 'not_a_date' } } });
    must(await close('2026-10-31', ''));
    expect(await close('2026-09-30', '')).toMatchObject({ error: { kind: 'changed_meanwhile', now: '2026-10-31' } });
    const rows = () => books.one('SELECT COUNT(*) AS n FROM movement');
    const before = await rows();
    expect(await sell(item, '1', null, '2026-10-31')).toEqual({
      ok: false,
      error: { kind: 'books_closed', to: '2026-10-31' },
    });
    expect(await rows()).toEqual(before);
    must(await sell(item, '1', null, '2026-11-01'));
    must(await close('', '2026-10-31'));
    must(await sell(item, '1', null, '2026-10-31'));
  });
});
