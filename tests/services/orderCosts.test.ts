import { chargeText } from '@/core/landed';
import { units } from '@/core/quantity';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { copyOrder } from '@/services/purchase/copyOrder';
import { editHead } from '@/services/purchase/editHead';
import { editOrder } from '@/services/purchase/editOrder';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { newOrder } from '@/services/purchase/newOrder';
import type { BookingField } from '@/services/purchase/orderCell';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { readOrder } from '@/services/purchase/readOrder';
import { openOrders, readOrderRows } from '@/services/purchase/readOrders';
import { type ChargeEntry, setOrderCharge } from '@/services/purchase/setOrderCharge';
import { readArrival } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, jun, mira, must, needOf, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
beforeEach(async () => {
  // Freight 9.00 an order, free from 500.00; a packing fee; insurance of goods and freight; 19 % tax, half recovered on own use.
  await books.rows(
    "UPDATE supplier SET freight_fixed = 9, freight_free_from = 500, freight_per_kg = NULL, tax_regime = 'domestic' WHERE id = 1",
  );
  await books.rows('DELETE FROM charge_type WHERE supplier_id = 1');
  await books.rows(
    `INSERT INTO charge_type (supplier_id, position, name, sign, amount_kind, amount, currency, on_charges, spread, into_cost)
     VALUES (1, 1, 'Packing', 'charge', 'asked', NULL, '', '', 'even', 'expense'),
            (1, 2, 'Insurance', 'charge', 'percent', '1', '', 'Packing', 'value', 'stock')`,
  );
  await books.rows('DELETE FROM tax_rate');
  await books.rows(
    "INSERT INTO tax_rate (category, percent, own_use_percent, usual, valid_from) VALUES ('standard', 19, 50, 1, '2025-01-01')",
  );
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const view = async (id: number) => must(await readOrder(books.deps, mira, id));
const itemIdOf = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;

/** 6 bags of moss at 32.80: 196.80. */
async function draft(): Promise<number> {
  const { orderId } = must(await newOrder(books.deps, mira, req({ supplierId: 1, locationId: 1, addressId: null })));
  const itemId = await itemIdOf('10412-07');
  must(await addOrderLine(books.deps, mira, req({ orderId, itemId, locationId: 1, packs: '6', price: '32.80' })));
  return orderId;
}
const entry = (more: Partial<ChargeEntry> = {}): ChargeEntry => ({
  ...{ sign: 'charge', amountKind: 'fixed', amount: '12', currency: 'EUR', onCharges: '', onlyLines: '' },
  ...{ spread: 'value', into: 'stock', account: '', billed: true },
  ...more,
});
async function set(
  orderId: number,
  name: string,
  more: Partial<ChargeEntry> = {},
  as: 'given' | 'left_out' | 'usual' = 'given',
) {
  const stands = (await view(orderId)).sums.charges.find((c) => c.name === name);
  const was = stands ? chargeText(stands) : '';
  return setOrderCharge(books.deps, mira, req({ orderId, name, was, as, entry: entry(more) }));
}
const chargesOf = async (id: number) =>
  (await view(id)).sums.charges.map((c) => [c.name, c.inOrder, c.differs.join()] as const);
const approve = async (id: number) =>
  approveOrder(books.deps, mira, req({ orderId: id, version: (await view(id)).head.version }));

describe('charges of an order', () => {
  test('come from the terms and the usual charges; what is asked each time is missed until it is said', async () => {
    const id = await draft();
    // Insurance: 1 % of 196.80, nothing of packing yet: 1.97.
    expect(await chargesOf(id)).toEqual([
      ['Freight', 900, ''],
      ['Packing', 0, ''],
      ['Insurance', 197, ''],
    ]);
    expect((await view(id)).findings).toContainEqual({ kind: 'charges_open', blocks: false, names: ['Packing'] });
    must(await set(id, 'Packing', { amount: '20', spread: 'even', into: 'expense' }));
    // 1 % of 216.80: 2.17.
    expect(await chargesOf(id)).toEqual([
      ['Freight', 900, ''],
      ['Packing', 2000, 'amount'],
      ['Insurance', 217, ''],
    ]);
    expect((await view(id)).findings.map((f) => f.kind)).not.toContain('charges_open');
  });

  test('the bill with its tax, and what a ball is expected to cost', async () => {
    const id = await draft();
    must(await set(id, 'Packing', { amount: '20', spread: 'even', into: 'expense' }));
    const { sums, lines, net } = await view(id);
    // 196.80 + 9.00 + 20.00 + 2.17 = 227.97; 19 % of it 43.31; together 271.28.
    expect([net, sums.tax.charged, sums.total, sums.totalInBase]).toEqual([19_680, 4_331, 27_128, 27_128]);
    expect(sums.tax).toMatchObject({
      paidTo: 'supplier',
      sums: [{ category: 'standard', taxable: 22_797, recoverable: 4_331 }],
    });
    // Packing is no cost of goods: 196.80 + 9.00 + 2.17 = 207.97 over 60 balls.
    expect(lines[0]?.landed).toEqual({
      goods: 19_680,
      shares: [900, 2_000, 217],
      tax: 0,
      landed: 20_797,
      each: '3.4662',
    });
    expect(sums).toMatchObject({ landed: 20_797, goodsInBase: 19_680 });
  });

  test('what it weighs and takes up, of what is on file; what has none is counted, what is no item does not matter', async () => {
    await books.rows("UPDATE item SET weight_kg = 0.055, volume_l = 0.4 WHERE number = '10412-07'");
    await books.rows("UPDATE item SET weight_kg = 0.05, volume_l = NULL WHERE number = '10412-04'");
    await books.rows("UPDATE item SET weight_kg = NULL, volume_l = NULL WHERE number = '10412-01'");
    const id = await draft();
    // 60 balls of 55 g and 0.4 l.
    expect((await view(id)).sums).toMatchObject({ weight: units(3.3), volume: units(24), noWeight: 0, noVolume: 0 });
    for (const number of ['10412-04', '10412-01']) {
      const itemId = await itemIdOf(number);
      must(await addOrderLine(books.deps, mira, req({ orderId: id, itemId, locationId: 1, packs: '2', price: '30' })));
    }
    const dyeing = {
      kind: 'service' as const,
      description: 'Dyeing',
      quantity: '1',
      unit: '',
      price: '35',
      locationId: 1,
    };
    must(await addOtherLine(books.deps, mira, req({ orderId: id, ...dyeing })));
    // And 20 balls of 50 g; what they take up is not on file, of the last not even what they weigh.
    expect((await view(id)).sums).toMatchObject({ weight: units(4.3), volume: units(24), noWeight: 1, noVolume: 2 });
    const brick = (await view(id)).lines.find((l) => l.itemNumber === '10412-04');
    const partId = brick?.parts[0]?.id ?? 0;
    must(await editOrder(books.deps, mira, req({ orderId: id, field: 'packs', partId, was: '2', now: '4' })));
    expect((await view(id)).sums).toMatchObject({ weight: units(5.3), volume: units(24) });
  });

  test('freight is free from its value on, live', async () => {
    const id = await draft();
    const part = (await view(id)).lines[0]?.parts[0]?.id ?? 0;
    must(await editOrder(books.deps, mira, req({ orderId: id, field: 'packs', partId: part, was: '6', now: '16' })));
    expect((await chargesOf(id)).map(([name]) => name)).toEqual(['Packing', 'Insurance']);
  });

  test('one left out counts nothing and no other counts it; as usual it is back; one of its own goes for good', async () => {
    const id = await draft();
    must(await set(id, 'Packing', { amount: '20' }));
    must(await set(id, 'Packing', {}, 'left_out'));
    expect(await chargesOf(id)).toEqual([
      ['Freight', 900, ''],
      ['Packing', null, 'left_out'],
      ['Insurance', 197, ''],
    ]);
    must(await set(id, 'Packing', {}, 'usual'));
    must(await set(id, 'Goodwill', { sign: 'allowance', amountKind: 'percent', amount: '10 %' }));
    expect(await chargesOf(id)).toEqual([
      ['Freight', 900, ''],
      ['Packing', 0, ''],
      ['Insurance', 197, ''],
      ['Goodwill', -1968, 'added'],
    ]);
    must(await set(id, 'Goodwill', {}, 'usual'));
    expect((await chargesOf(id)).length).toBe(3);
  });

  test.each([
    ['Freight', { amount: 'much' }, 'amount', 'not_a_price'],
    ['Goodwill', { amountKind: 'percent', amount: '1001' }, 'amount', 'not_a_percentage'],
    ['Goodwill', { currency: 'XQX' }, 'currency', 'no_currency'],
    ['Goodwill', { amountKind: 'percent', onCharges: 'Duty' }, 'onCharges', 'no_such_charge'],
    ['Packing', { onCharges: 'Insurance' }, 'onCharges', 'no_such_charge'],
    ['Goodwill', { onlyLines: '1, 4' }, 'onlyLines', 'no_such_line'],
    [' ', {}, 'name', 'text_missing'],
  ] as const)('%s with %j is refused at %s', async (name, more, field, kind) => {
    const id = await draft();
    expect(await set(id, name, more)).toMatchObject({ error: { kind: 'invalid_field', field, fault: { kind } } });
  });

  test('two people: what somebody else said meanwhile is shown, a name that is taken is said', async () => {
    const id = await draft();
    const [freight] = (await view(id)).sums.charges;
    must(await set(id, 'Freight', { amount: '11' }));
    const late = { orderId: id, name: 'Freight', was: freight ? chargeText(freight) : '', as: 'given' as const };
    expect(await setOrderCharge(books.deps, mira, req({ ...late, entry: entry() }))).toMatchObject({
      error: { kind: 'changed_meanwhile', now: '11' },
    });
    expect(await setOrderCharge(books.deps, mira, req({ ...late, was: '', entry: entry() }))).toMatchObject({
      error: { field: 'name', fault: { kind: 'name_taken' } },
    });
  });

  test('an approved order keeps them, whatever the terms become; its paper has those on the bill', async () => {
    const id = await draft();
    must(await set(id, 'Packing', { amount: '20', into: 'expense', spread: 'even' }));
    must(await set(id, 'Agent', { amount: '30', billed: false }));
    must(await approve(id));
    await books.rows('UPDATE supplier SET freight_fixed = 99 WHERE id = 1');
    await books.rows("UPDATE charge_type SET amount = 50 WHERE name = 'Insurance'");
    expect((await chargesOf(id)).map(([name, sum]) => [name, sum])).toEqual([
      ['Freight', 900],
      ['Packing', 2000],
      ['Insurance', 217],
      ['Agent', 3000],
    ]);
    expect(must(await readOrderPaper(books.deps, mira, id))).toMatchObject({
      charges: [
        { name: 'Freight', minor: 900 },
        { name: 'Packing', minor: 2000 },
        { name: 'Insurance', minor: 217 },
      ],
      taxes: [{ percent: '19', taxable: 22_797, tax: 4_331 }],
      total: 27_128,
    });
    expect(await set(id, 'Freight', {})).toMatchObject({ error: { kind: 'not_in_this_state' } });
  });

  test('where the customs are paid the bill has no tax', async () => {
    await books.rows("UPDATE supplier SET tax_regime = 'import' WHERE id = 1");
    const id = await draft();
    const { sums } = await view(id);
    expect(sums.tax).toMatchObject({ paidTo: 'customs', charged: 0 });
    expect(sums.total).toBe(19_680 + 900 + 197);
    // Nor has the paper that goes to its supplier.
    must(await set(id, 'Packing', { amount: '0' }));
    must(await approve(id));
    expect(must(await readOrderPaper(books.deps, mira, id))).toMatchObject({ taxes: [], total: sums.total });
  });

  test('a category without a rate is said', async () => {
    await books.rows("UPDATE tax_rate SET category = 'reduced', usual = 0");
    const id = await draft();
    expect((await view(id)).findings).toContainEqual({
      ...{ kind: 'no_tax_rate', blocks: false, categories: [expect.any(String)] },
    });
  });
});

describe('a line', () => {
  const edit = async (id: number, field: 'discount' | BookingField, now: string, was = '') => {
    const lineId = (await view(id)).lines[0]?.id ?? 0;
    return editOrder(books.deps, mira, req({ orderId: id, field, lineId, was, now }));
  };

  test('less a discount: the net, the receipt and a change of it go by it', async () => {
    const id = await draft();
    must(await edit(id, 'discount', '5 %', '0'));
    // 196.80 less 9.84.
    expect((await view(id)).lines[0]).toMatchObject({ discount: '5', net: 18_696 });
    must(await approve(id));
    const line = (await view(id)).lines[0];
    const counted = [{ partId: line?.parts[0]?.id ?? 0, quantity: '6', unit: 'pack' as const }];
    const goods = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted };
    must(await receiveGoods(books.deps, mira, req(goods)));
    expect((await view(id)).receipts).toMatchObject([{ value: 18_696 }]);
    const copied = must(await copyOrder(books.deps, mira, req({ orderId: id }))).orderId;
    expect((await view(copied)).lines).toHaveLength(1);
  });
  test.each(['101', '5.1234', 'some', '-3'])('a discount of %s is refused', async (now) => {
    const id = await draft();
    expect(await edit(id, 'discount', now, '0')).toMatchObject({ error: { field: 'discount' } });
  });

  test('for own use half of its tax is cost', async () => {
    const id = await draft();
    must(await edit(id, 'purpose', 'own_use'));
    const { lines, sums } = await view(id);
    // 207.77 at 19 %: 39.48, half of it.
    expect(sums.tax).toMatchObject({ sums: [{ taxable: 20_777, tax: 3_948, recoverable: 1_974, cost: 1_974 }] });
    expect(lines[0]?.landed).toMatchObject({ tax: 1_974, landed: 19_680 + 900 + 197 + 1_974 });
    expect(lines[0]?.booking).toMatchObject({ purpose: 'own_use', own: { purpose: 'own_use' } });
  });

  test('accounts with their shares; inspection and matching as item and supplier have them, or otherwise', async () => {
    await books.rows("UPDATE item SET inspect = 1, account = '3400', department = '' WHERE number = '10412-07'");
    const id = await draft();
    expect((await view(id)).lines[0]?.booking).toMatchObject({
      account: '3400',
      inspect: true,
      matching: 'three_way',
      costs: [],
    });
    must(await edit(id, 'costTo', '3400 60 , 4930 window 40%'));
    must(await edit(id, 'inspect', 'no'));
    must(await edit(id, 'matching', 'two_way'));
    expect((await view(id)).lines[0]?.booking).toMatchObject({
      ...{ account: '3400 60 %, 4930 window 40 %', inspect: false, matching: 'two_way' },
      costs: [
        { to: '3400', minor: 11_808 },
        { to: '4930 window', minor: 7_872 },
      ],
    });
    // Whoever books it in reads the note and what is to be inspected.
    const lineId = (await view(id)).lines[0]?.id ?? 0;
    const note = { orderId: id, lineId, field: 'internalNote' as const, was: '', now: 'two bags to the window' };
    must(await editOrder(books.deps, mira, req(note)));
    must(await edit(id, 'inspect', 'yes', 'no'));
    must(await approve(id));
    const { arrival } = must(await readArrival(books.deps, mira, { orderId: id, locationId: 1 }));
    expect(arrival.lines).toMatchObject([{ note: 'two bags to the window', inspect: true }]);
  });

  test('shares that are not whole, and what somebody else changed meanwhile, are refused', async () => {
    const id = await draft();
    must(await edit(id, 'costTo', '3400 60 , 4930 window 40%'));
    expect(await edit(id, 'costTo', '3400 60, 4930 41', '3400 60 %, 4930 window 40 %')).toMatchObject({
      error: { field: 'costTo', fault: { kind: 'shares_not_whole', sum: '101' } },
    });
    expect(await edit(id, 'costTo', '3400', 'what was')).toMatchObject({ error: { kind: 'changed_meanwhile' } });
  });

  test('an account without one of the item comes from its category; what is no item is for own use', async () => {
    await books.rows("UPDATE item SET account = '' WHERE number = '10412-07'");
    await books.rows(
      "UPDATE category c JOIN item i ON i.category_id = c.id SET c.account = '3410' WHERE i.number = '10412-07'",
    );
    const id = await draft();
    const stand = { kind: 'non_stock' as const, description: 'Display stand', quantity: '1', unit: '', price: '100' };
    must(await addOtherLine(books.deps, mira, req({ orderId: id, ...stand, locationId: 1 })));
    const { lines } = await view(id);
    expect(lines.map((l) => [l.booking.account, l.booking.purpose])).toEqual([
      ['3410', 'resale'],
      ['', 'own_use'],
    ]);
  });

  test('a date that its supplier promised before it was asked to confirm; Undo takes it back', async () => {
    const id = await draft();
    const part = (await view(id)).lines[0]?.parts[0];
    const asked = req({
      orderId: id,
      field: 'promisedDate' as const,
      partId: part?.id ?? 0,
      was: '',
      now: '2026-12-21',
    });
    must(await editOrder(books.deps, mira, asked));
    expect((await view(id)).lines[0]?.parts[0]).toMatchObject({ promisedDate: '2026-12-21', packs: units(6) });
    must(await undoCommand(books.deps, mira, req({ undoKey: asked.key })));
    expect((await view(id)).lines[0]?.parts[0]?.promisedDate).toBeNull();
  });

  test('nobody without the right books it otherwise', async () => {
    const id = await draft();
    const lineId = (await view(id)).lines[0]?.id ?? 0;
    const asked = req({ orderId: id, field: 'costTo' as const, lineId, was: '', now: '3400' });
    expect(await editOrder(books.deps, jun, asked)).toMatchObject({ error: { kind: 'forbidden' } });
  });
});

describe('the list of orders', () => {
  const list = async (search: string) => {
    const head = must(await openOrders(books.deps, mira, { show: 'all', sort: 'newest', search }));
    const { rows } = must(await readOrderRows(books.deps, mira, { list: head.list, from: 0 }));
    return { head, rows };
  };

  test('says what is confirmed, came and is open of the net, and is narrowed by any column', async () => {
    const id = await draft();
    must(await approve(id));
    const part = (await view(id)).lines[0]?.parts[0]?.id ?? 0;
    const counted = [{ partId: part, quantity: '2', unit: 'pack' as const }];
    must(
      await receiveGoods(
        ...([books.deps, mira] as const),
        req({ orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    const { number } = (await view(id)).head;
    const { rows } = await list(
      `order:${number} net>196 net<197 supplier:hollin buyer:mira state:"part received" open>131`,
    );
    expect(rows).toMatchObject([{ id, net: 19_680, received: 6_560, open: 13_120, confirmed: 0 }]);
    expect((await list(`order:${number} open>132`)).rows).toEqual([]);
    expect((await list(`order:${number} currency:usd`)).rows).toEqual([]);
    expect((await list(`${number} hollin`)).rows.map((o) => o.id)).toEqual([id]);
  });

  test('a column that there is not is said, and nothing is left out', async () => {
    const { head } = await list('supplyer:hollin');
    expect(head.fault).toMatchObject({ kind: 'no_such_column', text: 'supplyer:hollin' });
    expect(head.count).toBe((await list('')).head.count);
  });
});

describe('what is seen beside the entry', () => {
  test('a wanted day on which the place takes nothing in is moved, and said; Undo brings back what stood there', async () => {
    await books.rows(
      "INSERT INTO closed_days (location_id, from_day, to_day, name) VALUES (1, '2026-12-18', '2026-12-18', 'stocktaking')",
    );
    const id = await draft();
    const part = (await view(id)).lines[0]?.parts[0];
    const edit = { orderId: id, field: 'wantedDate' as const, partId: part?.id ?? 0, was: part?.wantedDate ?? '' };
    const first = req({ ...edit, now: '18 dec' });
    expect(must(await editOrder(books.deps, mira, first))).toEqual({ stored: '2026-12-21', insteadOf: '2026-12-18' });
    const plain = req({ ...edit, was: '2026-12-21', now: '2026-12-22' });
    expect(must(await editOrder(books.deps, mira, plain))).toEqual({ stored: '2026-12-22', insteadOf: null });
    // What stood there before stands again, also on a day that nothing is taken in on.
    await books.rows("UPDATE delivery_part SET wanted_date = '2026-12-18' WHERE id = ?", [part?.id]);
    const away = req({ ...edit, was: '2026-12-18', now: '2026-12-23' });
    must(await editOrder(books.deps, mira, away));
    must(await undoCommand(books.deps, mira, req({ undoKey: away.key })));
    expect((await view(id)).lines[0]?.parts[0]?.wantedDate).toBe('2026-12-18');
    const moved = { orderId: id, field: 'wantedDate' as const, was: '', now: '2026-12-18' };
    expect(must(await editHead(books.deps, mira, req(moved)))).toMatchObject({ insteadOf: '2026-12-18' });
    await books.rows("DELETE FROM closed_days WHERE name = 'stocktaking'");
  });

  test('a line goes to another place, unless a need of its place asks for it or something came; Undo brings it back', async () => {
    const id = await draft();
    const part = (await view(id)).lines[0]?.parts[0];
    expect(part).toMatchObject({ location: 'Harbour Street', movable: true });
    const edit = { orderId: id, field: 'place' as const, partId: part?.id ?? 0, was: '1' };
    const moved = req({ ...edit, now: '2' });
    must(await editOrder(books.deps, mira, moved));
    expect((await view(id)).lines[0]?.parts[0]?.locationId).toBe(2);
    expect(await editOrder(books.deps, mira, req({ ...edit, now: '3' }))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    expect(await editOrder(books.deps, mira, req({ ...edit, was: '2', now: '999' }))).toMatchObject({
      error: { kind: 'not_found', what: 'location' },
    });
    must(await undoCommand(books.deps, mira, req({ undoKey: moved.key })));
    expect((await view(id)).lines[0]?.parts[0]?.locationId).toBe(1);
    const need = await needOf(books, '10688-02', 'HS');
    const filled = { orderId: id, locationId: null, warned: true, needIds: [need.id] };
    must(await fillFromNeeds(books.deps, mira, req(filled)));
    const fixed = (await view(id)).lines[1]?.parts[0];
    expect(fixed?.movable).toBe(false);
    const tried = { ...edit, partId: fixed?.id ?? 0, now: '2' };
    expect(await editOrder(books.deps, mira, req(tried))).toMatchObject({
      error: { field: 'place', fault: { kind: 'place_is_fixed' } },
    });
  });

  test('a budget that is overdrawn with it, and a place that comes above its maximum', async () => {
    const id = await draft();
    const kinds = async () => (await view(id)).findings.map((f) => f.kind);
    expect(await kinds()).not.toContain('over_budget');
    await books.rows("INSERT INTO purchase_budget (month, category_id, amount) VALUES ('2026-11-01', NULL, 1)");
    expect((await view(id)).findings).toContainEqual({
      ...{ kind: 'over_budget', blocks: false, category: null, over: expect.any(Number), currency: 'EUR' },
    });
    const part = (await view(id)).lines[0]?.parts[0]?.id ?? 0;
    must(await editOrder(books.deps, mira, req({ orderId: id, field: 'packs', partId: part, was: '6', now: '90' })));
    const beyond = (await view(id)).findings.find((f) => f.kind === 'beyond_maximum');
    expect(beyond).toMatchObject({ lineNo: 1, place: 'Harbour Street' });
    await books.rows('DELETE FROM purchase_budget');
  });
});
