import { readItem } from '@/services/catalogue/readItems';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { allPolicies, openPolicies } from '@/services/planning/readPolicies';
import { fullNeedRun } from '@/services/planning/recompute';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { readRecordsOf } from '@/services/sheets/readRecords';
import { saveRecords } from '@/services/sheets/saveRecords';
import { allocateStock } from '@/services/stock/allocateStock';
import { countStock } from '@/services/stock/countStock';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { counts, preview } from './sheetSupport';
import { type Books, freshBooks, mira, must, needOf, otto, req, setMinMax, violations } from './support';

/* Moss is below its minimum at Harbour Street (place 1) and in stock elsewhere; of chalk there is stock as well. */
let books: Books;
let moss: number;
beforeAll(async () => {
  books = await freshBooks();
  moss = (await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-07'")).id;
});
afterAll(async () => {
  await fullNeedRun(books.deps);
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const levels = () =>
  books.rows('SELECT location_id, on_hand, value_minor FROM level WHERE item_id = ? AND on_hand <> 0', [moss]);
const movements = async () =>
  (await books.one<{ n: number }>('SELECT COUNT(*) AS n FROM movement WHERE item_id = ?', [moss])).n;
const keep = async (cells: Record<string, string>) => {
  const which = { key: { number: '10412-07' } };
  const { records } = must(await readRecordsOf(books.deps, otto, { sheet: 'items', which, decimal: '.' }));
  const record = { cells: { number: '10412-07', ...cells }, seen: records[0]?.seen ?? '' };
  return saveRecords(books.deps, otto, req({ sheet: 'items', decimal: '.' as const, records: [record] }));
};
const sell = (quantity: string) =>
  sellGoods(
    books.deps,
    mira,
    req({ locationId: 1, businessDate: '', lines: [{ itemId: moss, quantity, allocationId: null }] }),
  );

describe('how finely an item is sold', () => {
  test('in whole units unless it says otherwise; then to so many decimals', async () => {
    const refused = (decimals: number) => ({
      error: {
        ...{ kind: 'invalid_field', field: 'lines.0' },
        fault: { kind: 'sold_to_decimals', item: 'Fen merino 4-ply, moss', decimals },
      },
    });
    expect(await sell('0.5')).toMatchObject(refused(0));
    must(await keep({ sale_decimals: '1' }));
    must(await sell('0.5'));
    expect(await sell('0.25')).toMatchObject(refused(1));
  });
});

describe('an item that no stock is kept of', () => {
  test('still has its stock until that is counted to nothing', async () => {
    expect(await keep({ stock_kept: 'no' })).toMatchObject({
      error: {
        kind: 'wrong_rows',
        faults: [[{ column: 'stock_kept', kind: 'not_changeable', why: 'stock_in_use' }]],
      },
    });
    for (const { location_id: locationId } of (await levels()) as { location_id: number }[])
      must(await countStock(books.deps, otto, req({ locationId, note: '', lines: [{ itemId: moss, quantity: '0' }] })));
    expect((await needOf(books, '10412-07', 'HS')).state).toBe('open');
    const before = must(await openPolicies(books.deps, mira, { ...allPolicies, search: '', sort: 'name' }));
    must(await keep({ stock_kept: 'no', availability: 'available to order' }));
    // Nothing is refilled any more, and it is no line of the policy sheet.
    expect(
      await books.rows("SELECT id FROM need WHERE item_id = ? AND state = 'open' AND suggested > 0", [moss]),
    ).toEqual([]);
    const after = must(await openPolicies(books.deps, mira, { ...allPolicies, search: '', sort: 'name' }));
    expect(before.items - after.items).toBe(1);
  });

  test('only says whether it can be had', async () => {
    const { item } = must(await readItem(books.deps, mira, moss));
    expect([item.stockKept, item.availability]).toEqual([0, 'to_order']);
  });

  test('is neither counted nor promised nor sent, and has no minimum', async () => {
    const refused = (field: string) => ({
      error: {
        ...{ kind: 'invalid_field', field },
        fault: { kind: 'stock_not_kept', item: 'Fen merino 4-ply, moss' },
      },
    });
    const lines = [{ itemId: moss, quantity: '1' }];
    expect(await countStock(books.deps, otto, req({ locationId: 1, note: '', lines }))).toMatchObject(
      refused('lines.0'),
    );
    expect(
      await allocateStock(books.deps, mira, req({ itemId: moss, locationId: 1, quantity: '1', promisedTo: 'x' })),
    ).toMatchObject(refused('lines.0'));
    expect(await shipTransfer(books.deps, mira, req({ fromLocationId: 1, toLocationId: 2, lines }))).toMatchObject(
      refused('lines.0'),
    );
    const cells = { itemId: moss, locationId: 3, min: '4', max: '9', was: null };
    expect(await setMinMax(books.deps, mira, req(cells))).toMatchObject({
      error: { kind: 'wrong_cells', faults: [{ fault: { kind: 'stock_not_kept' } }] },
    });
    const file = 'Item,Location,Policy,Minimum,Maximum\n10412-07,WY,min/max,4,9\n10412-11,WY,min/max,4,9\n';
    expect(counts(await preview(books, 'policies', file))).toEqual([1, 0, 0, 1]);
  });

  test('is sold, bought, booked in and sent back without stock', async () => {
    const had = [await levels(), await movements()];
    must(await sell('2'));
    const chalk = await needOf(books, '10412-01', 'OM');
    must(await acceptNeed(books.deps, mira, req({ needId: chalk.id, fingerprint: chalk.fingerprint, packs: '6' })));
    const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
    const orderId = made?.orderId ?? 0;
    must(
      await addOrderLine(books.deps, mira, req({ orderId, itemId: moss, locationId: 2, packs: '5', price: '32.80' })),
    );
    const { version } = must(await readOrder(books.deps, mira, orderId)).head;
    must(await approveOrder(books.deps, mira, req({ orderId, version })));
    const { lines } = must(await readOrder(books.deps, mira, orderId));
    const counted = lines.flatMap((l) =>
      l.parts.map((p) => ({ partId: p.id, quantity: l.itemId === moss ? '5' : '2', unit: 'pack' as const })),
    );
    const { receiptId } = must(
      await receiveGoods(
        books.deps,
        otto,
        req({ orderId, locationId: 2, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    const came = must(await readOrder(books.deps, mira, orderId)).lines.find((l) => l.itemId === moss);
    expect(came?.parts.map((p) => p.received)).toEqual([50_000_000]);
    expect([await levels(), await movements()]).toEqual(had);
    expect(await violations(books)).toEqual([]);
    must(await reverseReceipt(books.deps, otto, req({ receiptId, reason: 'wrong colour' })));
    expect([await levels(), await movements()]).toEqual(had);
  });

  test('kept again, it begins at nothing; what came meanwhile stays out of its stock', async () => {
    must(await keep({ stock_kept: 'yes' }));
    must(
      await countStock(books.deps, otto, req({ locationId: 1, note: '', lines: [{ itemId: moss, quantity: '3' }] })),
    );
    expect(await levels()).toEqual([{ location_id: 1, on_hand: '3.000000', value_minor: expect.any(Number) }]);
  });
});
