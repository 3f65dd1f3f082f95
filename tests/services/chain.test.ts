import { acceptNeed } from '@/services/planning/acceptNeed';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { openTrays } from '@/services/purchase/readTrays';
import { sendOrder } from '@/services/purchase/sendOrder';
import { readArrival } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { type Books, freshBooks, mira, must, needOf, needsOf, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const state = (number: string, code: string) =>
  books.one<{ onHand: string; onTheWay: string; inTrays: string; needState: string }>(
    `SELECT s.on_hand AS onHand, s.on_the_way AS onTheWay, s.in_trays AS inTrays, s.need_state AS needState
       FROM item_location_state s JOIN item i ON i.id = s.item_id JOIN location l ON l.id = s.location_id
      WHERE i.number = ? AND l.code = ?`,
    [number, code],
  );

// One story in order: a short shelf becomes goods on the shelf.
describe('from a short shelf to goods on the shelf', () => {
  let orderId = 0;
  const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;

  test('the demo has some fifteen needs and sound books', async () => {
    const { head, groups, needs } = await needsOf(books, mira);
    expect(head.status.needs).toBeGreaterThanOrEqual(14);
    expect(head.status.needs).toBeLessThanOrEqual(20);
    expect(needs).toHaveLength(head.status.needs);
    expect(head.status.itemsOfAll).toBe(81);
    expect(groups.at(-1)?.supplier).toBeNull();
    expect(await violations(books)).toEqual([]);
  });

  test('every suggested quantity is the sum its reckoning shows', async () => {
    for (const need of (await needsOf(books, mira)).needs) {
      const sum = need.reckoning;
      if (!sum) throw new Error('a need without its reckoning');
      const added = sum.terms.reduce((s, t) => s + (t.operator === '+' ? t.quantity : -t.quantity), 0);
      expect(added).toBe(sum.toBuy);
      expect(sum.quantity).toBe(need.base);
    }
  });

  test('moss at Harbour Street: 76 − 12 − 10 on the way = 54, in bags of 10: 60', async () => {
    expect(await needOf(books, '10412-07', 'HS')).toMatchObject({
      state: 'open',
      shortage: '54.000000',
      suggested: '60.000000',
    });
  });

  test('accepted needs lie in the tray, count as on the way and are gone from the list', async () => {
    for (const [number, code, packs] of [
      ['10412-07', 'HS', '6'],
      ['10412-01', 'OM', '4'],
      ['10412-11', 'HS', '8'],
    ] as const) {
      const need = await needOf(books, number, code);
      const accepted = must(
        await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs })),
      );
      expect(accepted.supplier).toBe('Hollinmere Spinners');
    }
    expect(await state('10412-07', 'HS')).toEqual({
      onHand: '12.000000',
      onTheWay: '10.000000',
      inTrays: '60.000000',
      needState: 'none',
    });
    // Chalk: 43 short, 40 accepted; what is left is above the minimum, so nothing is needed.
    expect((await needOf(books, '10412-01', 'OM')).state).toBe('none');
    const { trays } = must(await openTrays(books.deps, mira));
    expect(trays).toHaveLength(1);
    expect(trays[0]).toMatchObject({
      supplier: 'Hollinmere Spinners',
      net: 19_680 + 13_120 + 26_240,
      orderMinimum: 40_000,
    });
  });

  test('the decision keeps the reckoning as it was', async () => {
    const row = await books.one<{ reckoning: string; who: number; shortage: string }>(
      'SELECT reckoning, user_id AS who, shortage FROM decision ORDER BY id LIMIT 1',
    );
    expect(row).toMatchObject({ who: mira.userId, shortage: '54.000000' });
    expect(JSON.parse(row.reckoning)).toMatchObject({ toBuy: 54_000_000, quantity: 60_000_000 });
  });

  test('the tray becomes a draft without a number, one part per place', async () => {
    const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
    expect(made).toMatchObject({ supplier: 'Hollinmere Spinners', lines: 3 });
    orderId = made?.orderId ?? 0;
    const order = must(await readOrder(books.deps, mira, orderId));
    expect(order.head).toMatchObject({ number: null, state: 'draft', paymentTerms: '14 days 2 %, 30 days net' });
    expect(order.lines.map((l) => [l.description, l.parts[0]?.location, l.parts[0]?.wantedDate])).toEqual([
      ['Fen merino 4-ply, chalk', 'Old Mill', '2026-12-01'],
      ['Fen merino 4-ply, moss', 'Harbour Street', '2026-12-01'],
      ['Fen merino 4-ply, slate', 'Harbour Street', '2026-12-01'],
    ]);
    expect(order.net).toBe(59_040);
    expect(order.findings).toEqual([{ kind: 'minimum_reached', blocks: false, minimum: 40_000 }]);
    expect(await state('10412-07', 'HS')).toMatchObject({ inTrays: '60.000000', needState: 'none' });
  });

  test('a corrected quantity reaches the price break and moves the position', async () => {
    const order = must(await readOrder(books.deps, mira, orderId));
    const slate = order.lines[2];
    const part = slate?.parts[0];
    must(
      await editOrder(
        books.deps,
        mira,
        req({ orderId, field: 'packs' as const, partId: part?.id ?? 0, was: '8', now: '10' }),
      ),
    );
    const after = must(await readOrder(books.deps, mira, orderId));
    expect(after.lines[2]).toMatchObject({ packs: 10_000_000, base: 100_000_000, price: '31.4', net: 31_400 });
    expect(after.net).toBe(13_120 + 19_680 + 31_400);
    expect(await state('10412-11', 'HS')).toMatchObject({ inTrays: '100.000000' });
  });

  test('approval draws the number, sending is recorded', async () => {
    expect(must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })))).toEqual({
      number: '2611-0003',
    });
    expect(await state('10412-07', 'HS')).toMatchObject({ onTheWay: '70.000000', inTrays: '0.000000' });
    must(await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'printed' as const })));
    expect(
      await books.one('SELECT state, number, sent_how AS how FROM purchase_order WHERE id = ?', [orderId]),
    ).toEqual({
      state: 'sent',
      number: '2611-0003',
      how: 'printed',
    });
  });

  test('part of the goods: stock rises, the rest stays expected', async () => {
    const { arrival } = must(await readArrival(books.deps, mira, { orderId, locationId: 1 }));
    expect(arrival.lines.map((l) => l.openPacks)).toEqual([6_000_000, 10_000_000]);
    const [moss, slate] = arrival.lines;
    const counted = [
      { partId: moss?.partId ?? 0, quantity: '4', unit: 'pack' as const },
      { partId: slate?.partId ?? 0, quantity: '33', unit: 'base' as const },
    ];
    const input = { orderId, locationId: 1, deliveryNote: 'DN 77', businessDate: '', counted };
    expect(must(await receiveGoods(books.deps, mira, req(input))).receipt).toMatch(/^R2611-\d{4}$/);
    expect(await state('10412-07', 'HS')).toMatchObject({ onHand: '52.000000', onTheWay: '30.000000' });
    expect(await state('10412-11', 'HS')).toMatchObject({ onHand: '33.000000', onTheWay: '67.000000' });
    const view = must(await readOrder(books.deps, mira, orderId));
    expect(view.came).toBe('part');
    // 40 of 60 balls of 196.80, 33 of 100 balls of 314.00.
    expect(view.receipts[0]?.value).toBe(13_120 + 10_362);
    expect(await violations(books)).toEqual([]);
  });

  test('later the rest: the order is received and its goods cost what was agreed', async () => {
    for (const locationId of [1, 2]) {
      const { arrival } = must(await readArrival(books.deps, mira, { orderId, locationId }));
      const counted = arrival.lines.map((l) => ({
        partId: l.partId,
        quantity: String(l.openBase / 1_000_000),
        unit: 'base' as const,
      }));
      must(
        await receiveGoods(books.deps, mira, req({ orderId, locationId, deliveryNote: '', businessDate: '', counted })),
      );
    }
    const view = must(await readOrder(books.deps, mira, orderId));
    expect(view.came).toBe('all');
    expect(view.receipts.reduce((sum, r) => sum + r.value, 0)).toBe(view.net);
    expect(await state('10412-07', 'HS')).toEqual({
      onHand: '72.000000',
      onTheWay: '10.000000',
      inTrays: '0.000000',
      needState: 'none',
    });
    expect(await readArrival(books.deps, mira, { orderId, locationId: 1 })).toMatchObject({
      ok: false,
      error: { kind: 'not_found' },
    });
    expect(await violations(books)).toEqual([]);
  });

  test('negative stock is put right by the next receipt', async () => {
    const need = await needOf(books, '29000-04', 'MH');
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '2' })));
    const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [6] })));
    const id = made?.orderId ?? 0;
    const { head } = must(await readOrder(books.deps, mira, id));
    must(await approveOrder(books.deps, mira, req({ orderId: id, version: head.version })));
    const { arrival } = must(await readArrival(books.deps, mira, { orderId: id, locationId: 3 }));
    const counted = [{ partId: arrival.lines[0]?.partId ?? 0, quantity: '2', unit: 'pack' as const }];
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({ orderId: id, locationId: 3, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    expect(await state('29000-04', 'MH')).toMatchObject({ onHand: '22.000000', needState: 'none' });
    expect(await violations(books)).toEqual([]);
  });
});
