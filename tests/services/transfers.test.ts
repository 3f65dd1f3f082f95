import { fromDecimal } from '@/core/quantity';
import { readOutlook } from '@/services/planning/readOutlook';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { openStock, readStockRows } from '@/services/stock/readStock';
import { readTransfer, readTransfers } from '@/services/stock/readTransfers';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { refuseTransfer } from '@/services/stock/refuseTransfer';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { type Books, edda, freshBooks, jun, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const [HS, MH, WY] = [1, 3, 4] as const;
const units = (n: number) => fromDecimal(String(n));
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const level = async (item: number, place: number) => {
  const row = await books.one<{ onHand: string; allocated: string; value: number }>(
    'SELECT on_hand AS onHand, allocated, value_minor AS value FROM level WHERE item_id = ? AND location_id = ?',
    [item, place],
  );
  return { onHand: Number(row.onHand), allocated: Number(row.allocated), value: row.value };
};
const stockAt = async (item: number, place: number) => {
  const { number } = await books.one<{ number: string }>('SELECT number FROM item WHERE id = ?', [item]);
  const asked = { search: number, locationId: place, sort: 'name' as const, category: '', show: '' as const, days: 0 };
  const head = must(await openStock(books.deps, mira, asked));
  const { rows } = must(await readStockRows(books.deps, mira, { list: head.list, from: 0 }));
  return rows.find((r) => r.itemId === item)?.places[0];
};
const ask = async (lines: readonly { itemId: number; quantity: string }[], wantedDate = '', to: number = MH) =>
  must(
    await requestTransfer(
      books.deps,
      mira,
      req({ fromLocationId: WY, toLocationId: to, wantedDate, note: 'for the market', lines }),
    ),
  ).transferId;
const approve = (transferId: number, approved: readonly string[]) =>
  approveTransfer(
    books.deps,
    mira,
    req({ transferId, version: 1, lines: approved.map((a, i) => ({ lineNo: i + 1, approved: a })) }),
  );
const ship = (transferId: number, quantities: readonly string[]) =>
  shipApproved(
    books.deps,
    mira,
    req({ transferId, version: 2, lines: quantities.map((quantity, i) => ({ lineNo: i + 1, quantity })) }),
  );
const receive = (transferId: number, received: string, lost = '', reason = '') =>
  receiveTransfer(books.deps, mira, req({ transferId, lines: [{ lineNo: 1, received, lost, reason }] }));

test('from asked for to received: what each page says at each step', async () => {
  const item = await itemId('10412-02');
  const [there, here] = [await level(item, WY), await level(item, MH)];
  const id = await ask([{ itemId: item, quantity: '9' }], 'fri');
  const asked = must(await readTransfer(books.deps, mira, id));
  expect(asked).toMatchObject({
    ...{ state: 'requested', from: 'Wendel Yard', to: 'Market Hall', wantedDate: '2026-11-27', note: 'for the market' },
    may: { approve: true, refuse: true, cancel: true, ship: false, receive: false, take_off: false },
  });
  expect(asked.lines[0]).toMatchObject({
    asked: units(9),
    approved: 0,
    freeThere: units(there.onHand - there.allocated),
  });
  // The shop that asks may take it back, and nothing else; who only reads does nothing.
  expect(must(await readTransfer(books.deps, jun, id)).may).toMatchObject({ approve: false, cancel: true });
  expect(Object.values(must(await readTransfer(books.deps, edda, id)).may)).not.toContain(true);
  expect((await stockAt(item, WY))?.planned).toBeGreaterThanOrEqual(units(9));

  must(await approve(id, ['6']));
  expect(await stockAt(item, MH)).toMatchObject({ toBeSent: units(6), inTransit: 0 });
  const promised = must(await readTransfer(books.deps, mira, id));
  // What is promised to this very line is free for it.
  expect(promised.lines[0]).toMatchObject({ approved: units(6) });
  expect(promised.may).toMatchObject({ approve: false, ship: true, take_off: true });

  must(await ship(id, ['6']));
  expect(await stockAt(item, MH)).toMatchObject({ toBeSent: 0, inTransit: units(6) });
  expect(await level(item, WY)).toMatchObject({ onHand: there.onHand - 6, allocated: there.allocated });
  const outlook = must(await readOutlook(books.deps, mira, { itemId: item, locationId: MH }));
  // One day on the road from Monday's van.
  expect(outlook.receipts.find((r) => r.kind === 'transfer')).toMatchObject({ quantity: units(6), date: '2026-11-24' });

  must(await receive(id, '2'));
  expect(must(await readTransfer(books.deps, jun, id))).toMatchObject({ state: 'shipped', may: { receive: true } });
  expect(await receive(id, '5')).toMatchObject({ error: { kind: 'invalid_field', field: 'lines.1.received' } });
  must(await receive(id, '3', '1', 'wet'));
  const ended = must(await readTransfer(books.deps, mira, id));
  expect(ended).toMatchObject({ state: 'received' });
  expect(ended.lines[0]).toMatchObject({ shipped: units(6), received: units(5), lost: units(1), lostReason: 'wet' });
  expect(Object.values(ended.may)).not.toContain(true);
  expect((await level(item, MH)).onHand).toBe(here.onHand + 5);
  // Five sixths of what left came; the rest is a loss, not made up.
  const [left, came] = [there.value - (await level(item, WY)).value, (await level(item, MH)).value - here.value];
  expect(Math.abs(came - Math.round((left * 5) / 6))).toBeLessThanOrEqual(1);
});

test('sent otherwise than approved: less frees the rest, more only when it is free, nothing at all is no sending', async () => {
  const [a, b] = [await itemId('10412-03'), await itemId('10412-04')];
  const before = await level(a, WY);
  const id = await ask([
    { itemId: a, quantity: '5' },
    { itemId: b, quantity: '4' },
  ]);
  must(await approve(id, ['5', '4']));
  expect(await ship(id, ['', ''])).toMatchObject({ error: { kind: 'nothing_counted' } });
  expect(await ship(id, ['9999', '4'])).toMatchObject({ error: { kind: 'not_free', itemId: a } });
  // What was refused changed nothing: the promise still stands.
  expect(await level(a, WY)).toMatchObject({ onHand: before.onHand, allocated: before.allocated + 5 });
  must(await ship(id, ['3', '']));
  expect(await level(a, WY)).toMatchObject({ onHand: before.onHand - 3, allocated: before.allocated });
  const view = must(await readTransfer(books.deps, mira, id));
  expect(view.lines.map((l) => l.shipped)).toEqual([units(3), 0]);
  expect((await level(b, WY)).allocated).toBe(0);
});

test('what was promised to a transfer and is sold all the same is named, and the transfer sends what is left', async () => {
  const item = await itemId('10412-05');
  const { onHand, allocated } = await level(item, WY);
  const id = await ask([{ itemId: item, quantity: '8' }], '', HS);
  must(await approve(id, ['8']));
  const free = onHand - allocated;
  const lines = [{ itemId: item, quantity: String(free - 3), allocationId: null }];
  const sold = must(await sellGoods(books.deps, mira, req({ locationId: WY, businessDate: '', lines })));
  expect(sold.released).toMatchObject([
    { quantity: units(8), promisedTo: expect.stringMatching(/^T2611-\d+ to Harbour Street$/) },
  ]);
  must(await ship(id, ['3']));
  expect((await level(item, WY)).onHand).toBe(onHand - free);
});

test('the list has what somebody still has to do, of the person’s places; what ended stands below with its reason', async () => {
  const item = await itemId('10412-06');
  const [market, street] = [
    await ask([{ itemId: item, quantity: '1' }]),
    await ask([{ itemId: item, quantity: '1' }], '', HS),
  ];
  const all = must(await readTransfers(books.deps, mira));
  expect(all.open.map((t) => t.id)).toEqual(expect.arrayContaining([market, street]));
  const own = must(await readTransfers(books.deps, jun));
  expect(own.open.map((t) => t.id)).toContain(market);
  expect(own.open.map((t) => t.id)).not.toContain(street);
  expect(own.own).toEqual([{ id: MH, name: 'Market Hall' }]);
  expect(await readTransfer(books.deps, jun, street)).toMatchObject({ error: { kind: 'not_found' } });
  must(await refuseTransfer(books.deps, mira, req({ transferId: market, version: 1, reason: 'sold out' })));
  const later = must(await readTransfers(books.deps, jun));
  expect(later.open.map((t) => t.id)).not.toContain(market);
  expect(later.ended.find((t) => t.id === market)).toMatchObject({ state: 'refused', refusedBecause: 'sold out' });
});

test('a request that makes no sense says so at its line and is not made', async () => {
  const item = await itemId('10412-06');
  const count = async () => (await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM transfer')).n;
  const before = await count();
  const request = (change: object) =>
    requestTransfer(
      books.deps,
      mira,
      req({
        ...{ fromLocationId: WY, toLocationId: MH, wantedDate: '', note: '' },
        lines: [{ itemId: item, quantity: '1' }],
        ...change,
      }),
    );
  expect(await request({ lines: [] })).toMatchObject({ error: { kind: 'nothing_counted' } });
  expect(await request({ lines: [{ itemId: item, quantity: '-1' }] })).toMatchObject({ error: { field: 'lines.0' } });
  expect(await request({ lines: [{ itemId: 999_999, quantity: '1' }] })).toMatchObject({
    error: { kind: 'not_found' },
  });
  expect(await request({ toLocationId: WY })).toMatchObject({ error: { kind: 'not_found' } });
  expect(await request({ wantedDate: 'someday' })).toMatchObject({ error: { field: 'wantedDate' } });
  expect(await count()).toBe(before);
});

test('where a place cannot send all that is wanted, whoever lasts the shortest comes first', async () => {
  const item = await itemId('11340-02').catch(() => itemId('10412-04'));
  const there = await level(item, WY);
  const free = there.onHand - there.allocated;
  const wanted = String(Math.ceil(free * 0.75));
  const [first, second] = [
    await ask([{ itemId: item, quantity: wanted }], '', MH),
    await ask([{ itemId: item, quantity: wanted }], '', HS),
  ];
  const lines = await Promise.all(
    [first, second].map(async (id) => must(await readTransfer(books.deps, mira, id)).lines[0]),
  );
  const shares = lines.map((l) => l?.fairShare ?? -1);
  // All of what is free is shared, and nobody gets more than was asked for.
  expect(shares[0] as number).toBeGreaterThan(0);
  expect((shares[0] as number) + (shares[1] as number)).toBe(units(Math.floor(free)));
  expect(shares.every((s) => s <= units(Number(wanted)))).toBe(true);
  expect(lines[0]?.wantedThere).toBe(units(2 * Number(wanted)));
  // Alone it can have all that is free.
  must(await refuseTransfer(books.deps, mira, req({ transferId: second, version: 1, reason: 'try' })));
  expect(must(await readTransfer(books.deps, mira, first)).lines[0]?.fairShare).toBeNull();
});
