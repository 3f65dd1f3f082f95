import type { Failure } from '@/services/failure';
import { countStock } from '@/services/stock/countStock';
import { readArrivals } from '@/services/stock/readArrivals';
import { readLot, readLots } from '@/services/stock/readLots';
import { readMovements } from '@/services/stock/readMovements';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { type SellGoods, sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { type Books, freshBooks, jun, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterEach(async () => expect(await violations(books)).toEqual([]));
afterAll(() => books.close());

const fault = (r: { ok: true } | { ok: false; error: Failure }) => (r.ok ? null : r.error);

/** A line that is expected somewhere; its item is tracked from now on. */
async function expected(tracking: 'lot' | 'serial') {
  const { arrivals } = must(await readArrivals(books.deps, mira, { locationId: null }));
  const used = new Set(
    (await books.rows<{ id: number }>("SELECT id FROM item WHERE tracking <> 'none'")).map((i) => i.id),
  );
  for (const a of arrivals)
    for (const line of a.lines)
      if (line.itemId !== null && !used.has(line.itemId) && line.openBase >= 10e6) {
        await books.rows('UPDATE item SET tracking = ? WHERE id = ?', [tracking, line.itemId]);
        return { orderId: a.orderId, locationId: a.locationId, partId: line.partId, itemId: line.itemId };
      }
  throw new Error('nothing is expected');
}
type Expected = Awaited<ReturnType<typeof expected>>;
const receive = (e: Expected, quantity: string, lots: string) =>
  receiveGoods(
    books.deps,
    mira,
    req({
      ...{ orderId: e.orderId, locationId: e.locationId, deliveryNote: '', businessDate: '' },
      counted: [{ partId: e.partId, quantity, unit: 'base' as const, lots }],
    }),
  );
const left = async (itemId: number) =>
  Object.fromEntries(
    (
      await books.rows<{ code: string; place: number; q: string }>(
        `SELECT k.code, l.location_id AS place, l.quantity AS q FROM lot k JOIN lot_level l ON l.lot_id = k.id
          WHERE k.item_id = ? AND l.quantity > 0 ORDER BY k.id, l.location_id`,
        [itemId],
      )
    ).map((r) => [`${r.code}@${r.place}`, Number(r.q)]),
  );
const sell = (e: Expected, quantity: string, more: Partial<SellGoods> & { lots?: string } = {}) =>
  sellGoods(
    books.deps,
    mira,
    req({
      ...{ locationId: e.locationId, businessDate: '' },
      lines: [{ itemId: e.itemId, quantity, allocationId: null, ...(more.lots ? { lots: more.lots } : {}) }],
      ...(more.mixLots ? { mixLots: true } : {}),
    }),
  );
/** Nothing known by no lot is left, so that what is sold is of lots. */
const empty = async (e: Expected) =>
  must(
    await countStock(
      books.deps,
      mira,
      req({ locationId: e.locationId, note: '', lines: [{ itemId: e.itemId, quantity: '0' }] }),
    ),
  );

test('lots are booked in as typed and add up; a customer line is of one dye lot unless they are asked', async () => {
  const e = await expected('lot');
  await empty(e);
  expect(fault(await receive(e, '10', 'A1 4\nB2 5'))).toMatchObject({
    field: `lots.${e.partId}`,
    fault: { kind: 'lots_do_not_add_up', sum: 9e6, of: 10e6 },
  });
  must(await receive(e, '10', 'A1 4\nB2 6'));
  const at = e.locationId;
  expect(await left(e.itemId)).toEqual({ [`A1@${at}`]: 4, [`B2@${at}`]: 6 });
  // Five: the older lot does not suffice, the newer one does.
  must(await sell(e, '5'));
  expect(await left(e.itemId)).toEqual({ [`A1@${at}`]: 4, [`B2@${at}`]: 1 });
  expect(fault(await sell(e, '5'))).toMatchObject({ kind: 'lots_would_mix', largest: 4e6 });
  // A lot that is named is the one that goes.
  must(await sell(e, '1', { lots: 'B2' }));
  expect(fault(await sell(e, '1', { lots: 'B2' }))).toMatchObject({ fault: { kind: 'lot_not_there', text: 'B2' } });
  must(await sell(e, '4', { mixLots: true }));
  expect(await left(e.itemId)).toEqual({});
  // Each movement says its lots; the lot tells its story.
  const view = must(await readLots(books.deps, mira, { search: 'B2', itemId: null, locationId: null }));
  const lot = view.lots.find((l) => l.itemId === e.itemId);
  expect(lot).toMatchObject({ code: 'B2', left: 0, places: [] });
  const story = must(await readLot(books.deps, mira, lot?.lotId ?? 0));
  expect(story.moves.map((m) => [m.kind, Number(m.quantity)])).toEqual([
    ['sale', -1],
    ['sale', -5],
    ['receipt', 6],
  ]);
  const asked = {
    ...{ search: '', itemId: e.itemId, locationId: null, userId: null, kind: 'receipt' as const, reasonId: null },
    ...{ document: '', from: '', to: '', before: 0 },
  };
  expect(must(await readMovements(books.deps, mira, asked)).movements[0]?.lots).toBe('A1, B2');
});

test('the first to expire goes first; lots go along with a transfer, also what is lost of them', async () => {
  const e = await expected('lot');
  await empty(e);
  must(await receive(e, '10', 'L1 6 2027-05-01\nL2 4 2026-12-24'));
  const [from, to] = [e.locationId, e.locationId === 4 ? 3 : 4];
  const lines = [{ itemId: e.itemId, quantity: '6' }];
  const { transferId } = must(
    await shipTransfer(books.deps, mira, req({ fromLocationId: from, toLocationId: to, lines })),
  );
  const transit = (await books.one<{ id: number }>("SELECT id FROM location WHERE kind = 'transit'")).id;
  expect(await left(e.itemId)).toEqual({ [`L1@${from}`]: 4, [`L1@${transit}`]: 2, [`L2@${transit}`]: 4 });
  must(
    await receiveTransfer(
      books.deps,
      mira,
      req({ transferId, lines: [{ lineNo: 1, received: '4', lost: '1', reason: 'wet' }] }),
    ),
  );
  expect(await left(e.itemId)).toEqual({ [`L1@${from}`]: 4, [`L1@${transit}`]: 1, [`L2@${to}`]: 4 });
  must(
    await receiveTransfer(
      books.deps,
      mira,
      req({ transferId, lines: [{ lineNo: 1, received: '1', lost: '', reason: '' }] }),
    ),
  );
  expect(await left(e.itemId)).toEqual({ [`L1@${from}`]: 4, [`L1@${to}`]: 1, [`L2@${to}`]: 4 });
});

test('serial numbers: each once; where it lies; a reversed receipt takes its own back', async () => {
  const e = await expected('serial');
  await empty(e);
  expect(fault(await receive(e, '3', 'S1 S2'))).toMatchObject({ fault: { kind: 'serials_do_not_add_up', count: 2 } });
  const { receiptId } = must(await receive(e, '3', 'S1, S2\nS3'));
  expect(fault(await receive(e, '1', 'S2'))).toMatchObject({ fault: { kind: 'serial_there', text: 'S2' } });
  must(await receive(e, '2', 'S4 S5'));
  const where = must(await readLots(books.deps, mira, { search: 'S2', itemId: e.itemId, locationId: null }));
  expect(where.lots[0]).toMatchObject({ code: 'S2', left: 1e6, tracking: 'serial' });
  expect(where.lots[0]?.places).toHaveLength(1);
  must(await sell(e, '1', { lots: 'S2' }));
  must(await reverseReceipt(books.deps, mira, req({ receiptId, reason: 'wrong goods' })));
  // S2 has gone to a customer; the books miss one more, the oldest that is left.
  expect(Object.keys(await left(e.itemId)).map((k) => k.split('@')[0])).toEqual(['S5']);
});

test('each serial number leaves at what it cost itself, wherever it lies; the value of the place is that of what is left', async () => {
  const e = await expected('serial');
  await empty(e);
  const bring = (serials: string, price: string, quantity: string) =>
    receiveGoods(
      books.deps,
      mira,
      req({
        ...{ orderId: e.orderId, locationId: e.locationId, deliveryNote: '', businessDate: '', counted: [] },
        unordered: [{ itemId: e.itemId, quantity, price, freeOfCharge: false, lots: serials }],
      }),
    );
  const value = async (place: number) =>
    (
      await books.rows<{ v: number }>('SELECT value_minor AS v FROM level WHERE item_id = ? AND location_id = ?', [
        e.itemId,
        place,
      ])
    )[0]?.v ?? 0;
  must(await bring('K1 K2', '500', '2'));
  must(await bring('K3', '300', '1'));
  const at = e.locationId;
  const whole = await value(at);
  const cost = async (code: string) =>
    (await books.one<{ c: number }>('SELECT cost_minor AS c FROM lot WHERE item_id = ? AND code = ?', [e.itemId, code]))
      .c;
  const [k1, k2, k3] = [await cost('K1'), await cost('K2'), await cost('K3')];
  expect(k1 + k2 + k3).toBe(whole);
  expect(Math.round((k1 / k3) * 100)).toBe(167);
  const seen = must(await readLots(books.deps, mira, { search: 'K3', itemId: e.itemId, locationId: null }));
  expect(seen.lots[0]?.cost).toBe(k3);
  // Who may not see prices does not see this one.
  const shop = must(await readLots(books.deps, jun, { search: 'K3', itemId: e.itemId, locationId: null }));
  expect(shop.lots[0]?.cost ?? null).toBeNull();
  // The average would be a third of the whole.
  must(await sell(e, '1', { lots: 'K3' }));
  expect(await value(at)).toBe(k1 + k2);
  // On a transfer it takes its own value along, and leaves the other place with it.
  must(await bring('K4', '120', '1'));
  const k4 = await cost('K4');
  const to = at === 4 ? 3 : 4;
  const lines = [{ itemId: e.itemId, quantity: '1' }];
  const { transferId } = must(
    await shipTransfer(books.deps, mira, req({ fromLocationId: at, toLocationId: to, lines })),
  );
  expect(await value(at)).toBe(k2 + k4);
  const came = [{ lineNo: 1, received: '1', lost: '', reason: '' }];
  const before = await value(to);
  must(await receiveTransfer(books.deps, mira, req({ transferId, lines: came })));
  expect((await value(to)) - before).toBe(k1);
  // Two lines of one sale: what is named on one is taken by no other, and not twice.
  const two = (lots: readonly string[]) =>
    sellGoods(
      books.deps,
      mira,
      req({
        ...{ locationId: at, businessDate: '' },
        lines: lots.map((l) => ({ itemId: e.itemId, quantity: '1', allocationId: null, ...(l ? { lots: l } : {}) })),
      }),
    );
  expect(fault(await two(['K2', 'K2']))).toMatchObject({
    ...{ kind: 'invalid_field', field: 'lines.1' },
    fault: { kind: 'lot_not_there', text: 'K2' },
  });
  must(await two(['', 'K2']));
  expect(await left(e.itemId)).toEqual({ [`K1@${to}`]: 1 });
  expect(await value(at)).toBe(0);
});

test('goods that were sold before they were booked in were of the lot that came; places see their own', async () => {
  const e = await expected('lot');
  await empty(e);
  must(await sell(e, '2'));
  must(await receive(e, '10', 'Z9'));
  expect(await left(e.itemId)).toEqual({ [`Z9@${e.locationId}`]: 8 });
  const seen = must(await readLots(books.deps, jun, { search: 'Z9', itemId: null, locationId: null }));
  expect(seen.lots[0]?.left).toBe(e.locationId === 3 ? 8e6 : 0);
});
