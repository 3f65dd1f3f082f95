import type { Result } from '@/core/result';
import type { Failure } from '@/services/failure';
import { markChanged } from '@/services/planning/recompute';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { correctStock } from '@/services/stock/correctStock';
import { countStock } from '@/services/stock/countStock';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { type Books, freshBooks, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const [HS, OM, MH, WY] = [1, 2, 3, 4] as const;
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const level = async (item: number, place: number) => {
  const row = await books.one<{ onHand: string; allocated: string }>(
    'SELECT on_hand AS onHand, allocated FROM level WHERE item_id = ? AND location_id = ?',
    [item, place],
  );
  return { onHand: Number(row.onHand), allocated: Number(row.allocated) };
};
const setTo = async (item: number, place: number, quantity: string) => {
  const lines = [{ itemId: item, how: 'to' as const, quantity }];
  must(await correctStock(books.deps, mira, req({ locationId: place, reasonId: 1, note: '', lines })));
};
const times = <T>(n: number, of: (i: number) => Promise<T>) => Promise.all(Array.from({ length: n }, (_, i) => of(i)));
const said = (results: readonly Result<unknown, Failure>[]) => ({
  ok: results.filter((r) => r.ok).length,
  because: [...new Set(results.flatMap((r) => (r.ok ? [] : [r.error.kind])))],
});
/** The books are sound, and a full run finds nothing that the commands left behind. */
const sound = async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
};

test('fifty people send the last ten pieces: ten go, forty are told', async () => {
  const item = await itemId('10412-02');
  await setTo(item, WY, '10');
  const to = [HS, OM, MH];
  const results = await times(50, (i) =>
    shipTransfer(
      books.deps,
      mira,
      req({
        fromLocationId: WY,
        toLocationId: to[i % 3] as number,
        lines: [{ itemId: item, quantity: '1' }],
      }),
    ),
  );
  expect(said(results)).toEqual({ ok: 10, because: ['not_free'] });
  expect((await level(item, WY)).onHand).toBe(0);
  const { way } = await books.one<{ way: string }>(
    'SELECT SUM(shipped - received - lost) AS way FROM transfer_line WHERE item_id = ?',
    [item],
  );
  expect(Number(way)).toBe(10);
  await sound();
});

test('twenty requests for five each of eighteen are approved at once: three get all of it, nothing is promised twice', async () => {
  const item = await itemId('10412-04');
  await setTo(item, WY, '18');
  const requests = await times(20, async () =>
    must(
      await requestTransfer(
        books.deps,
        mira,
        req({
          ...{ fromLocationId: WY, toLocationId: HS, wantedDate: '', note: '' },
          lines: [{ itemId: item, quantity: '5' }],
        }),
      ),
    ),
  );
  const approved = await times(20, (i) =>
    approveTransfer(
      books.deps,
      mira,
      req({
        transferId: requests[i]?.transferId ?? 0,
        version: 1,
        lines: [{ lineNo: 1, approved: '5' }],
      }),
    ),
  );
  expect(said(approved)).toEqual({ ok: 3, because: ['not_free'] });
  expect(await level(item, WY)).toEqual({ onHand: 18, allocated: 15 });
  // Two people send the same one: it goes once.
  const first = requests[approved.findIndex((r) => r.ok)]?.transferId ?? 0;
  const ship = () =>
    shipApproved(books.deps, mira, req({ transferId: first, version: 2, lines: [{ lineNo: 1, quantity: '5' }] }));
  const twice = await times(2, ship);
  expect(said(twice).ok).toBe(1);
  expect(await level(item, WY)).toEqual({ onHand: 13, allocated: 10 });
  await sound();
});

test('receipts, counts, sales and corrections at once end in the sum of what was said', async () => {
  const part = await books.one<{ item: number; place: number; part: number; orderId: number; open: string }>(
    `SELECT l.item_id AS item, d.location_id AS place, d.id AS part, o.id AS orderId,
            d.pack_quantity - d.received_packs AS open
       FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
      WHERE o.state = 'sent' AND l.item_id IS NOT NULL AND d.received_quantity < d.base_quantity LIMIT 1`,
  );
  const { item, place } = part;
  await setTo(item, place, '40');
  const before = await level(item, place);
  const line = (quantity: string) => [{ itemId: item, quantity, allocationId: null }];
  const work: Promise<Result<unknown, Failure>>[] = [
    ...Array.from({ length: 15 }, () =>
      sellGoods(books.deps, mira, req({ locationId: place, businessDate: '', lines: line('2') })),
    ),
    ...Array.from({ length: 5 }, () =>
      correctStock(
        books.deps,
        mira,
        req({
          ...{ locationId: place, reasonId: 1, note: '' },
          lines: [{ itemId: item, how: 'by' as const, quantity: '-1' }],
        }),
      ),
    ),
    receiveGoods(
      books.deps,
      mira,
      req({
        ...{ orderId: part.orderId, locationId: place, deliveryNote: '', businessDate: '' },
        counted: [{ partId: part.part, quantity: '1', unit: 'base' as const }],
      }),
    ),
  ];
  const results = await Promise.all(work);
  expect(said(results)).toEqual({ ok: 21, because: [] });
  expect((await level(item, place)).onHand).toBe(before.onHand - 30 - 5 + 1);
  await sound();
  // A count says what is there, whoever sells meanwhile; each is booked against what was there at that moment.
  const counted = await Promise.all([
    ...Array.from({ length: 6 }, () =>
      sellGoods(books.deps, mira, req({ locationId: place, businessDate: '', lines: line('1') })),
    ),
    countStock(books.deps, mira, req({ locationId: place, note: '', lines: [{ itemId: item, quantity: '25' }] })),
  ]);
  expect(said(counted).ok).toBe(7);
  const { later } = await books.one<{ later: string }>(
    `SELECT COALESCE(SUM(m.on_hand_change), 0) AS later FROM movement m
      WHERE m.item_id = ? AND m.location_id = ? AND m.posting > (SELECT MAX(c.posting) FROM movement c
            WHERE c.item_id = m.item_id AND c.location_id = m.location_id AND c.kind = 'count')`,
    [item, place],
  );
  expect((await level(item, place)).onHand).toBe(25 + Number(later));
  await sound();
});
