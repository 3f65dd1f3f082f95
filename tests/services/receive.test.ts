import { entryText } from '@/core/quantity';
import { makeItem } from '@/services/catalogue/makeItem';
import { readItem } from '@/services/catalogue/readItems';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { readArrival } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { type Books, freshBooks, jun, mira, must, needOf, otto, req, violations } from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

/** An approved order of one need. */
async function ordered(
  number: string,
  code: string,
  packs: string,
): Promise<{ orderId: number; locationId: number; partId: number; itemId: number }> {
  const need = await needOf(books, number, code);
  must(await acceptNeed(books.deps, otto, req({ needId: need.id, fingerprint: need.fingerprint, packs })));
  const [made] = must(await makeOrders(books.deps, otto, req({ supplierIds: [1, 2, 3, 4, 5, 6, 7, 8] })));
  const orderId = made?.orderId ?? 0;
  const { head, lines } = must(await readOrder(books.deps, otto, orderId));
  must(await approveOrder(books.deps, otto, req({ orderId, version: head.version })));
  return { orderId, locationId: need.locationId, itemId: need.itemId, partId: lines[0]?.parts[0]?.id ?? 0 };
}

const book = (
  o: { orderId: number; locationId: number; partId: number },
  quantity: string,
  unit: 'pack' | 'base' = 'pack',
) =>
  receiveGoods(
    books.deps,
    mira,
    req({
      orderId: o.orderId,
      locationId: o.locationId,
      deliveryNote: '',
      businessDate: '',
      counted: [{ partId: o.partId, quantity, unit }],
    }),
  );
const level = (o: { itemId: number; locationId: number }) =>
  books.one<{ q: string; v: number }>(
    'SELECT on_hand AS q, value_minor AS v FROM level WHERE item_id = ? AND location_id = ?',
    [o.itemId, o.locationId],
  );
const part = (id: number) =>
  books.one<{ base: string; came: string; value: number }>(
    'SELECT base_quantity AS base, received_quantity AS came, received_value_minor AS value FROM delivery_part WHERE id = ?',
    [id],
  );

test('bolts of 15 yd, counted in metres and in bolts: the parts add up to 150.876 m and to the line’s value', async () => {
  const linen = await ordered('22017-01', 'WY', '11');
  const before = await level(linen);
  must(await book(linen, '20,5', 'base'));
  must(await book(linen, '3'));
  const { arrival } = must(await readArrival(books.deps, mira, linen));
  expect(arrival.lines[0]?.openBase).toBe(150_876_000 - 20_500_000 - 41_148_000);
  must(await book(linen, entryText(arrival.lines[0]?.openBase ?? 0), 'base'));
  expect(await part(linen.partId)).toEqual({ base: '150.876000', came: '150.876000', value: 93_247 });
  const after = await level(linen);
  expect(Number(after.q) - Number(before.q)).toBeCloseTo(150.876, 6);
  expect(after.v - before.v).toBe(93_247);
});

test('more than ordered is booked as it came, at the agreed price; nothing is expected any more', async () => {
  const zip = await ordered('28305-02', 'OM', '3');
  must(await book(zip, '4'));
  expect(await part(zip.partId)).toEqual({ base: '75.000000', came: '100.000000', value: 6500 });
  expect(must(await readOrder(books.deps, mira, zip.orderId)).came).toBe('all');
  const state = await books.one<{ coming: string }>(
    'SELECT on_the_way AS coming FROM item_location_state WHERE item_id = ? AND location_id = ?',
    [zip.itemId, zip.locationId],
  );
  expect(state.coming).toBe('0.000000');
});

test('two people book in the same delivery at once: both counts are there, the value is that of the whole', async () => {
  const thread = await ordered('29000-01', 'HS', '4');
  const before = await level(thread);
  const both = await Promise.all([book(thread, '1'), book(thread, '3'), book(thread, '')]);
  expect(both.map((r) => r.ok)).toEqual([true, true, false]);
  expect(new Set(both.flatMap((r) => (r.ok ? [r.value.receipt] : []))).size).toBe(2);
  const after = await level(thread);
  expect([Number(after.q) - Number(before.q), after.v - before.v]).toEqual([48, 7440]);
});

test('a fault on one line books none of them in and names the line', async () => {
  const ribbon = await ordered('25100-04', 'HS', '3');
  const before = await level(ribbon);
  for (const [typed, kind] of [
    ['-1', 'negative'],
    ['x', 'not_a_number'],
    ['99999999', 'absurd_quantity'],
    ['1.250', 'ambiguous'],
  ]) {
    expect(await book(ribbon, typed as string)).toMatchObject({
      error: { kind: 'invalid_field', field: `counted.${ribbon.partId}`, fault: { kind } },
    });
  }
  expect(await book(ribbon, '0')).toEqual({ ok: false, error: { kind: 'nothing_counted' } });
  expect(await level(ribbon)).toEqual(before);
  expect(await books.rows('SELECT 1 FROM goods_receipt WHERE order_id = ?', [ribbon.orderId])).toEqual([]);
});

test('a line whose receipt was reversed can be taken off its order; it stays there with what was booked in', async () => {
  const moss = await ordered('10412-07', 'HS', '6');
  must(await book(moss, '2'));
  const { id: receiptId } = await books.one<{ id: number }>('SELECT MAX(id) AS id FROM goods_receipt');
  must(await reverseReceipt(books.deps, otto, req({ receiptId, reason: 'not ours' })));
  const view = async () => must(await readOrder(books.deps, otto, moss.orderId));
  const { version } = (await view()).head;
  must(await reopenOrder(books.deps, otto, req({ orderId: moss.orderId, version })));
  const lineId = (await view()).lines[0]?.id ?? 0;
  const remove = { orderId: moss.orderId, field: 'remove' as const, lineId, was: '' };
  must(await editOrder(books.deps, otto, req(remove)));
  const { lines, net, receipts } = await view();
  expect([lines[0]?.base, lines[0]?.fromTray, net, receipts.length]).toEqual([0, false, 0, 1]);
  // Its need is in the tray again, and the line is done with.
  expect(await books.rows("SELECT pack_quantity AS packs FROM tray_line WHERE state = 'in_tray'")).toEqual([
    { packs: '6.000000' },
  ]);
  expect(await editOrder(books.deps, otto, req(remove))).toMatchObject({ error: { kind: 'not_found', what: 'line' } });
});

describe('goods that nobody ordered', () => {
  const came = (
    o: { orderId: number; locationId: number; partId: number },
    unordered: { itemId: number; quantity: string; price?: string; freeOfCharge?: boolean }[],
  ) =>
    receiveGoods(
      books.deps,
      mira,
      req({
        ...{ orderId: o.orderId, locationId: o.locationId, deliveryNote: 'DN 9', businessDate: '' },
        counted: [{ partId: o.partId, quantity: '6', unit: 'pack' as const }],
        unordered: unordered.map((u) => ({ price: '', freeOfCharge: false, ...u })),
      }),
    );
  const idOf = async (number: string) =>
    (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
  const view = async (orderId: number) => must(await readOrder(books.deps, otto, orderId));
  const made = async (name: string) =>
    must(await makeItem(books.deps, mira, req({ name, unit: 'H87', price: '', number: '', code: '' }))).itemId;

  test('are lines of their own: at the list price, at a typed one, or free of charge', async () => {
    const moss = await ordered('10412-07', 'HS', '6');
    const plum = await idOf('10412-05');
    const [fresh, sample] = [await made('Colour card'), await made('Swatch')];
    const before = await level({ itemId: plum, locationId: moss.locationId });
    must(
      await came(moss, [
        { itemId: plum, quantity: '7' },
        { itemId: fresh, quantity: '4', price: '1,25' },
        { itemId: sample, quantity: '1', freeOfCharge: true },
      ]),
    );
    // Seven of ten balls at 32.80 a bag.
    const after = await level({ itemId: plum, locationId: moss.locationId });
    expect([Number(after.q) - Number(before.q), after.v - before.v]).toEqual([7, 2_296]);
    expect(await level({ itemId: fresh, locationId: moss.locationId })).toEqual({ q: '4.000000', v: 500 });
    expect(await level({ itemId: sample, locationId: moss.locationId })).toEqual({ q: '1.000000', v: 0 });
    const order = await view(moss.orderId);
    expect(order.lines.map((l) => [l.unordered, l.net])).toEqual([
      [false, 19_680],
      [true, 2_296],
      [true, 500],
      [true, 0],
    ]);
    expect([order.came, order.net]).toEqual(['all', 22_476]);
    // What is sent to the supplier is what was ordered.
    const { version } = order.head;
    must(await sendOrder(books.deps, otto, req({ orderId: moss.orderId, version, how: 'email' as const })));
    const { body } = await books.one<{ body: string }>('SELECT body FROM outbox_mail ORDER BY id DESC LIMIT 1');
    expect(body).toContain('Total, without tax: 196.80 EUR');
    expect(body).not.toContain('Colour card');
  });

  test('taken back with their receipt they are expected by nobody', async () => {
    const moss = await ordered('10412-07', 'HS', '6');
    const plum = { itemId: await idOf('10412-05'), locationId: moss.locationId };
    const before = await level(plum);
    const bought = async () => must(await readItem(books.deps, otto, plum.itemId)).bought.map((b) => b.packs);
    const had = await bought();
    const { receiptId } = must(await came(moss, [{ itemId: plum.itemId, quantity: '7' }]));
    expect(await bought()).toEqual([7_000_000, ...had].slice(0, 5));
    must(await reverseReceipt(books.deps, otto, req({ receiptId, reason: 'not ours' })));
    expect(await bought()).toEqual(had);
    expect(await level(plum)).toEqual(before);
    const { arrival } = must(await readArrival(books.deps, mira, moss));
    expect(arrival.lines.map((l) => l.itemNumber)).toEqual(['10412-07']);
    const { lines, net } = await view(moss.orderId);
    expect([net, lines[1]?.base]).toEqual([19_680, 0]);
  });

  test('what is wrong is said at its line, and nothing is booked', async () => {
    const moss = await ordered('10412-07', 'HS', '6');
    const plum = await idOf('10412-05');
    const fresh = await made('Colour card');
    const good = { itemId: plum, quantity: '7' };
    const wrong = async (line: Parameters<typeof came>[1][number], field: string, fault: object) =>
      expect(await came(moss, [good, line])).toMatchObject({ error: { kind: 'invalid_field', field, fault } });
    await wrong({ itemId: plum, quantity: 'some' }, 'unordered.1.quantity', { kind: 'not_a_number' });
    await wrong({ itemId: plum, quantity: '0' }, 'unordered.1.quantity', { kind: 'zero_quantity' });
    await wrong({ itemId: plum, quantity: '1', price: 'dear' }, 'unordered.1.price', { kind: 'not_a_price' });
    await wrong({ itemId: fresh, quantity: '1' }, 'unordered.1.price', { kind: 'price_needed', item: 'Colour card' });
    // Shop staff count what came, but don't say what it costs.
    const staff = { ...jun, locations: null };
    const counted = {
      orderId: moss.orderId,
      locationId: moss.locationId,
      deliveryNote: '',
      businessDate: '',
      counted: [],
    };
    for (const u of [
      { price: '1', freeOfCharge: false },
      { price: '', freeOfCharge: true },
    ])
      expect(
        await receiveGoods(books.deps, staff, req({ ...counted, unordered: [{ itemId: plum, quantity: '7', ...u }] })),
      ).toMatchObject({ error: { kind: 'forbidden', right: 'orders.read' } });
    expect(await came(moss, [{ itemId: 999_999, quantity: '1' }])).toMatchObject({
      error: { kind: 'not_found', what: 'item' },
    });
    expect((await view(moss.orderId)).lines).toHaveLength(1);
    expect(await part(moss.partId)).toMatchObject({ came: '0.000000' });
  });
});
