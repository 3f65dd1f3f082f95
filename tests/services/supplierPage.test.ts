import { readSupplier, readSuppliersPage } from '@/services/catalogue/readSuppliers';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { saveRecords } from '@/services/sheets/saveRecords';
import type { SheetName } from '@/services/sheets/sheetKind';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { type Books, freshBooks, mira, must, needOf, otto, req, violations } from './support';

let books: Books;
let hol = 0;
beforeAll(async () => {
  books = await freshBooks();
  hol = (await books.one<{ id: number }>("SELECT id FROM supplier WHERE code = 'HOL'")).id;
});
afterAll(() => books.close());

const page = async (id = hol) => must(await readSupplier(books.deps, mira, id));
const save = async (sheet: SheetName, ...cells: Record<string, string>[]) =>
  must(
    await saveRecords(
      books.deps,
      otto,
      req({ sheet, records: cells.map((c) => ({ cells: c, seen: '' })), decimal: '.' as const }),
    ),
  );

test('every supplier with what it sells and what is open there', async () => {
  const { suppliers } = must(await readSuppliersPage(books.deps, mira));
  expect(suppliers).toHaveLength(8);
  expect(suppliers.map((s) => s.name)).toEqual([...suppliers.map((s) => s.name)].sort());
  for (const s of suppliers) {
    const own = await page(s.id);
    expect([s.code, own.sold.length, own.orders.length]).toEqual([s.code, s.items, s.openOrders]);
  }
});

test('an unknown one is not found', async () => {
  expect(await readSupplier(books.deps, mira, 9999)).toEqual({
    ok: false,
    error: { kind: 'not_found', what: 'supplier' },
  });
});

describe('the price list', () => {
  const steps = async (number: string) => (await page()).sold.find((s) => s.number === number);

  test('what holds today by quantity, per pack and per base unit; the next price with its day', async () => {
    // A bag of ten balls: 3.28 and from ten bags on 3.14 a ball.
    expect(await steps('10412-07')).toMatchObject({
      packName: 'bag',
      steps: [
        { from: 0, amount: '32.8', each: '3.2800' },
        { from: 10_000_000, amount: '31.4', each: '3.1400' },
      ],
      next: null,
    });
    await save('prices', { item: '10412-07', supplier: 'HOL', pack: 'bag', amount: '33.90', valid_from: '2027-01-01' });
    expect((await steps('10412-07'))?.next).toEqual({ amount: '33.9', from: '2027-01-01' });
    books.deps.setClock('2027-01-01T09:00:00Z');
    expect((await steps('10412-07'))?.steps[0]).toMatchObject({ amount: '33.9', each: '3.3900' });
    books.deps.setClock('2026-11-23T09:00:00Z');
  });

  test('a price that has run out is none', async () => {
    const had = (await steps('10412-01'))?.steps.length;
    expect(had).toBeGreaterThan(0);
    await books.owner.query(
      "UPDATE price p JOIN source s ON s.id = p.source_id JOIN item i ON i.id = s.item_id SET p.valid_to = '2026-11-22' WHERE i.number = '10412-01' AND s.supplier_id = ?",
      [hol],
    );
    expect((await steps('10412-01'))?.steps).toEqual([]);
    await books.owner.query("UPDATE price SET valid_to = NULL WHERE valid_to = '2026-11-22'");
    expect((await steps('10412-01'))?.steps).toHaveLength(had ?? 0);
  });
});

test('charges are said in a sentence each, closures from today on', async () => {
  await save(
    'charges',
    { supplier: 'HOL', name: 'Sea freight', position: '1', amount_kind: 'asked each time', spread: 'weight' },
    { supplier: 'HOL', name: 'Season', position: '2', sign: 'allowance', amount_kind: 'percent', amount: '3' },
  );
  await save(
    'closures',
    { supplier: 'HOL', from_day: '2026-08-03', to_day: '2026-08-21', name: 'Summer' },
    { supplier: 'HOL', from_day: '2026-11-20', to_day: '2026-11-23', name: 'Stocktaking' },
    { supplier: 'HOL', from_day: '2026-12-24', name: 'Christmas Eve' },
  );
  const { charges, closures } = await page();
  expect(charges).toHaveLength(2);
  expect(charges[0]).toBe('Sea freight: asked each time, by weight, into stock cost');
  expect(charges[1]).toBe('Season: taken off, 3 % of goods, by value, into stock cost');
  expect(closures).toEqual([
    { from: '2026-11-20', to: '2026-11-23', name: 'Stocktaking' },
    { from: '2026-12-24', to: '2026-12-24', name: 'Christmas Eve' },
  ]);
});

test('goods of a source with a lead time of its own are wanted by it, the rest by the supplier’s', async () => {
  await books.owner.query(
    "UPDATE source s JOIN item i ON i.id = s.item_id SET s.lead_time_days = 21 WHERE s.supplier_id = ? AND i.number = '10412-11'",
    [hol],
  );
  for (const number of ['10412-11', '10688-02']) {
    const { id, fingerprint } = await needOf(books, number, 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: id, fingerprint, packs: '2' })));
  }
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [hol] })));
  const orderId = made?.orderId ?? 0;
  const slow = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-11'");
  must(await addOrderLine(books.deps, mira, req({ orderId, itemId: slow.id, locationId: 2, packs: '1', price: '' })));
  const order = must(await readOrder(books.deps, mira, orderId));
  // It is closed on Monday 23 November: from Tuesday 6 working days to 2 December, 21 to 23 December.
  expect(order.lines.map((l) => [l.itemNumber, l.parts[0]?.wantedDate])).toEqual([
    ['10412-11', '2026-12-23'],
    ['10688-02', '2026-12-02'],
    ['10412-11', '2026-12-23'],
  ]);
  await books.owner.query('UPDATE source SET lead_time_days = NULL');
});

test('an order is open there until all of it came; what came is its record, what was reversed never came', async () => {
  const before = await page();
  const need = await needOf(books, '10412-07', 'HS');
  must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '2' })));
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [hol] })));
  const orderId = made?.orderId ?? 0;
  const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;
  expect((await page()).orders[0]).toMatchObject({ id: orderId, state: 'draft', open: 1 });
  must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })));
  must(await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'phone' as const })));
  books.deps.setClock('2026-12-02T09:00:00Z');
  const [line] = must(await readOrder(books.deps, mira, orderId)).lines;
  type Besides = { itemId: number; quantity: string; price: string; freeOfCharge: boolean };
  const receive = async (quantity: string, unordered: Besides[] = []) =>
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({
          ...{ orderId, locationId: 1, deliveryNote: '', businessDate: '' },
          counted: [{ partId: line?.parts[0]?.id ?? 0, quantity, unit: 'pack' as const }],
          unordered,
        }),
      ),
    );
  await receive('1');
  const part = await page();
  expect(part.orders[0]).toMatchObject({ id: orderId, state: 'sent', open: 1 });
  // Ordered on Monday 23 November, here on Wednesday 2 December: nine days.
  expect(part.record.days?.n).toBe((before.record.days?.n ?? 0) + 1);
  // What came without being ordered says nothing about how long an order takes.
  const rest = await receive('1', [{ itemId: 2, quantity: '3', price: '', freeOfCharge: true }]);
  expect((await page()).orders.map((o) => o.id)).not.toContain(orderId);
  expect((await page()).record.days?.n).toBe((before.record.days?.n ?? 0) + 2);
  must(await reverseReceipt(books.deps, mira, req({ receiptId: rest.receiptId, reason: 'wrong order' })));
  const back = await page();
  expect(back.orders[0]).toMatchObject({ id: orderId, open: 1 });
  expect(back.record.days?.n).toBe((before.record.days?.n ?? 0) + 1);
  expect(await violations(books)).toEqual([]);
});
