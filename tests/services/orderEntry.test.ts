import { units } from '@/core/quantity';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { buyOverCounter } from '@/services/purchase/buyOverCounter';
import { copyOrder } from '@/services/purchase/copyOrder';
import { readEarlier } from '@/services/purchase/earlier';
import { editHead, type HeadField } from '@/services/purchase/editHead';
import { editOrder } from '@/services/purchase/editOrder';
import { readFamilyGrid } from '@/services/purchase/familyGrid';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { newOrder, readOrderFrom } from '@/services/purchase/newOrder';
import { pasteLines } from '@/services/purchase/pasteLines';
import { readOrder } from '@/services/purchase/readOrder';
import { readOrderEntry } from '@/services/purchase/readOrderEntry';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { splitPart } from '@/services/purchase/splitDeliveries';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, needOf, otto, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const HOLLINMERE = 1;
const itemIdOf = async (from: Books, number: string) =>
  (await from.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const view = async (id: number) => must(await readOrder(books.deps, mira, id));
const begin = async (supplierId = HOLLINMERE) =>
  must(await newOrder(books.deps, mira, req({ supplierId, locationId: 1, addressId: null }))).orderId;
const head = async (orderId: number, field: HeadField, now: string) => {
  const was = (await view(orderId)).head[field] ?? '';
  return editHead(books.deps, mira, req({ orderId, field, was, now }));
};
const add = async (orderId: number, number: string, packs: string, packId?: number | null) => {
  const itemId = await itemIdOf(books, number);
  const line = { orderId, itemId, locationId: 1, packs, price: '', ...(packId === undefined ? {} : { packId }) };
  return addOrderLine(books.deps, mira, req(line));
};

describe('a new order', () => {
  test('terms, currency, address, contact and place fill in', async () => {
    await books.owner.query(
      "INSERT INTO supplier_contact (supplier_id, name, kind, phone) VALUES (1, 'Dye house', 'contact', '0771 20')",
    );
    const { head: h } = await view(await begin());
    expect(h).toMatchObject({
      ...{ state: 'draft', number: null, currency: 'EUR', paymentTerms: '14 days 2 %, 30 days net' },
      ...{
        locationId: 1,
        supplierAddress: 'Hollinmere Spinners\nFellside 4, 10220 Hollinmere',
        contact: 'Dye house, 0771 20',
      },
    });
  });

  test('a single order address is taken by itself, of several one is asked for', async () => {
    const address = (name: string) =>
      books.owner.query(
        "INSERT INTO supplier_contact (supplier_id, name, kind, address) VALUES (1, ?, 'order_address', ?)",
        [name, `${name}, Loomgate 1`],
      );
    await address('Depot north');
    expect((await view(await begin())).head.supplierAddress).toBe('Depot north, Loomgate 1');
    await address('Depot south');
    expect(await newOrder(books.deps, mira, req({ supplierId: 1, locationId: 1, addressId: null }))).toMatchObject({
      error: { field: 'addressId', fault: { kind: 'choose_address' } },
    });
    const from = must(await readOrderFrom(books.deps, mira)).find((s) => s.id === 1);
    const south = from?.addresses.find((a) => a.name === 'Depot south')?.id ?? 0;
    const { orderId } = must(await newOrder(books.deps, mira, req({ supplierId: 1, locationId: 1, addressId: south })));
    expect((await view(orderId)).head.supplierAddress).toBe('Depot south, Loomgate 1');
    await books.owner.query("DELETE FROM supplier_contact WHERE kind = 'order_address' AND supplier_id = 1");
  });
});

describe('the one field', () => {
  const entry = async (text: string, orderId: number) =>
    must(await readOrderEntry(books.deps, mira, { text, orderId, locationId: 1 }));

  test('quantity, pack and item in any order, with the price of that quantity', async () => {
    const id = await begin();
    const [bags] = await entry('6 bag fen moss', id);
    expect(bags).toMatchObject({
      ...{
        number: '10412-07',
        quantity: '6',
        packName: 'bag',
        base: units(60),
        price: '32.80',
        origin: 'list',
        sold: true,
      },
    });
    // Ten bags reach the break; as single balls the same quantity reaches it too.
    expect((await entry('10412-07 10', id)).map((m) => [m.packName, m.price, m.each])).toEqual([
      ['bag', '31.40', '3.14'],
      ['ball', '32.80', '3.28'],
    ]);
    expect((await entry('100 ball 10412-07', id))[0]).toMatchObject({ packId: null, base: units(100), each: '3.14' });
  });

  test('what the supplier has not sold yet is offered, without its price', async () => {
    const id = await begin();
    const [needles] = await entry('2 29000-01', id);
    expect(needles).toMatchObject({ number: '29000-01', sold: false });
  });

  test('a line by the base unit has the price list of its pack, at what it makes in packs', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '60', null));
    const [line] = (await view(id)).lines;
    expect(line).toMatchObject({ packName: 'ball', packs: units(60), base: units(60), net: 6 * 3280, each: '3.28' });
    must(await add(id, '10412-04', '100', null));
    expect((await view(id)).lines[1]).toMatchObject({ net: 10 * 3140, each: '3.14' });
  });
});

describe('rows from a spreadsheet', () => {
  test('those that say one item are taken, the others given back with why', async () => {
    const id = await begin();
    const rows = ['10412-07\t6\tbag', '4 10412-04', 'fen merino\t3', '10412-11', 'no such thing 4'];
    const pasted = must(await pasteLines(books.deps, mira, req({ orderId: id, locationId: 1, rows })));
    expect(pasted.added).toBe(2);
    expect(pasted.left.map((l) => [l.row, l.why])).toEqual([
      ['fen merino\t3', 'several'],
      ['10412-11', 'not_a_quantity'],
      ['no such thing 4', 'unknown'],
    ]);
    expect((await view(id)).lines.map((l) => [l.itemNumber, l.packs])).toEqual([
      ['10412-07', units(6)],
      ['10412-04', units(4)],
    ]);
  });
});

describe('filled from needs', () => {
  test('what is open of the supplier is decided and put on it with its reckoning, and Undo opens it again', async () => {
    const id = await begin();
    const before = await needOf(books, '10412-11', 'HS');
    expect(before.state).toBe('open');
    const fill = req({ orderId: id, locationId: 1, warned: true });
    const { taken } = must(await fillFromNeeds(books.deps, mira, fill));
    const order = await view(id);
    expect(order.lines.length).toBe(taken);
    expect(order.lines.every((l) => l.fromTray)).toBe(true);
    expect((await needOf(books, '10412-11', 'HS')).state).toBe('none');
    const kept = await books.one<{ reckoning: string }>(
      `SELECT k.reckoning FROM decision k JOIN tray_line t ON t.decision_id = k.id JOIN delivery_part d ON d.tray_line_id = t.id
         JOIN order_line l ON l.id = d.order_line_id JOIN item i ON i.id = l.item_id WHERE l.order_id = ? AND i.number = '10412-11'`,
      [id],
    );
    expect(JSON.parse(kept.reckoning)).toBeTruthy();
    must(await undoCommand(books.deps, mira, req({ undoKey: fill.key })));
    expect((await view(id)).lines).toEqual([]);
    expect((await needOf(books, '10412-11', 'HS')).state).toBe('open');
    expect(await books.rows("SELECT id FROM tray_line WHERE state = 'in_tray'")).toEqual([]);
  });

  test('by a filter: only what has the words, and only at the place', async () => {
    const id = await begin();
    const state = async () => (await needOf(books, '10412-11', 'HS')).state;
    const fill = (words: string, locationId: number) =>
      fillFromNeeds(books.deps, mira, req({ orderId: id, locationId, warned: true, words }));
    expect(must(await fill('10412-11', 3)).taken).toBe((await view(id)).lines.length);
    expect(await state()).toBe('open');
    expect(must(await fill('no such words', 1))).toEqual({ taken: 0, warned: 0 });
    const before = (await view(id)).lines.length;
    const { name } = await books.one<{ name: string }>("SELECT name FROM item WHERE number = '10412-11'");
    const key = req({ orderId: id, locationId: 1, warned: true, words: `${name.toUpperCase()} 10412` });
    expect(must(await fillFromNeeds(books.deps, mira, key)).taken).toBe(1);
    expect((await view(id)).lines.slice(before).map((l) => l.itemNumber)).toEqual(['10412-11']);
    expect(await state()).toBe('none');
    must(await undoCommand(books.deps, mira, req({ undoKey: key.key })));
    expect(await state()).toBe('open');
  });
});

describe('other kinds of lines', () => {
  test('bought once by its description: booked in without moving stock; the second time it may want to be an item', async () => {
    const sign = { kind: 'non_stock' as const, description: 'Shop sign, enamel', quantity: '2', unit: '', price: '45' };
    const first = await begin();
    expect(must(await addOtherLine(books.deps, mira, req({ orderId: first, ...sign, locationId: 1 })))).toEqual({
      lineNo: 1,
      before: 0,
    });
    const order = await view(first);
    expect(order.lines[0]).toMatchObject({ kind: 'non_stock', itemId: null, net: 9000, packName: 'piece' });
    must(await approveOrder(books.deps, mira, req({ orderId: first, version: order.head.version })));
    const partId = order.lines[0]?.parts[0]?.id ?? 0;
    const counted = [{ partId, quantity: '2', unit: 'pack' as const }];
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({ orderId: first, locationId: 1, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    expect((await view(first)).came).toBe('all');
    const second = await begin();
    expect(must(await addOtherLine(books.deps, mira, req({ orderId: second, ...sign, locationId: 1 })))).toMatchObject({
      before: 1,
    });
  });

  test('a charge is for no place, is not waited for, and counts in the sum', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '1'));
    const freight = { kind: 'charge' as const, description: 'Freight', quantity: '1', unit: '', price: '12.50' };
    must(await addOtherLine(books.deps, mira, req({ orderId: id, ...freight, locationId: 1 })));
    const order = await view(id);
    expect(order.net).toBe(3280 + 1250);
    expect(order.lines[1]?.parts[0]?.locationId).toBeNull();
    expect(order.findings.filter((f) => f.blocks)).toEqual([]);
    must(await approveOrder(books.deps, mira, req({ orderId: id, version: order.head.version })));
    const counted = [{ partId: order.lines[0]?.parts[0]?.id ?? 0, quantity: '1', unit: 'pack' as const }];
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({ orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    expect((await view(id)).came).toBe('all');
  });

  test('without a description it is nothing', async () => {
    const id = await begin();
    const line = { kind: 'service' as const, description: '  ', quantity: '1', unit: '', price: '' };
    expect(await addOtherLine(books.deps, mira, req({ orderId: id, ...line, locationId: null }))).toMatchObject({
      error: { field: 'description', fault: { kind: 'text_missing' } },
    });
  });
});

describe('the head', () => {
  test('its wanted date moves the lines that follow it, and no others', async () => {
    const id = await begin();
    must(await head(id, 'wantedDate', '2026-12-10'));
    must(await add(id, '10412-07', '2'));
    must(await add(id, '10412-04', '2'));
    const [first] = (await view(id)).lines;
    const own = first?.parts[0];
    must(
      await editOrder(
        books.deps,
        mira,
        req({ orderId: id, field: 'wantedDate' as const, partId: own?.id ?? 0, was: '2026-12-10', now: '2026-12-18' }),
      ),
    );
    expect(must(await head(id, 'wantedDate', '2026-12-14'))).toEqual({ moved: 1, insteadOf: null });
    expect((await view(id)).lines.map((l) => l.parts[0]?.wantedDate)).toEqual(['2026-12-18', '2026-12-14']);
  });

  test('a number of one’s own has to be new and not of the pattern that is drawn; it is kept at approval', async () => {
    const id = await begin();
    expect(await head(id, 'number', '2611-0009')).toMatchObject({ error: { fault: { kind: 'number_is_drawn' } } });
    must(await head(id, 'number', 'FAIR 26'));
    const other = await begin();
    expect(await head(other, 'number', 'FAIR 26')).toMatchObject({ error: { fault: { kind: 'number_taken' } } });
    must(await add(id, '10412-07', '2'));
    const { version } = (await view(id)).head;
    expect(must(await approveOrder(books.deps, mira, req({ orderId: id, version })))).toEqual({ number: 'FAIR 26' });
    // What it was approved under it keeps, as a draft again too.
    const again = { orderId: id, version: (await view(id)).head.version };
    must(await reopenOrder(books.deps, mira, req(again)));
    expect(await head(id, 'number', 'FAIR 27')).toMatchObject({ error: { fault: { kind: 'number_is_kept' } } });
  });

  test('dated by hand it keeps its date; what differs from the standing terms is told apart', async () => {
    const id = await begin();
    must(await head(id, 'orderDate', '2026-11-18'));
    must(await head(id, 'datedBecause', 'agreed at the fair'));
    must(await head(id, 'paymentTerms', '60 days net'));
    must(await add(id, '10412-07', '2'));
    const order = await view(id);
    expect(order.standing.payment).toBe('14 days 2 %, 30 days net');
    must(await approveOrder(books.deps, mira, req({ orderId: id, version: order.head.version })));
    expect((await view(id)).head).toMatchObject({ orderDate: '2026-11-18', paymentTerms: '60 days net' });
  });

  test('a field that somebody else changed meanwhile is shown, not overwritten', async () => {
    const id = await begin();
    must(
      await editHead(
        books.deps,
        otto,
        req({ orderId: id, field: 'orderText' as const, was: '', now: 'Please pack dry.' }),
      ),
    );
    expect(
      await editHead(books.deps, mira, req({ orderId: id, field: 'orderText' as const, was: '', now: 'Pack flat.' })),
    ).toMatchObject({ error: { kind: 'changed_meanwhile', who: 'Otto Quillon', now: 'Please pack dry.' } });
  });
});

test('the family of an item by its options, with what is on the order already', async () => {
  const id = await begin();
  await books.owner.query(
    "INSERT INTO item_family (id, name, option_1, option_2) VALUES (900, 'Fen merino', 'Shade', 'Ball')",
  );
  const member = (number: string, shade: string, ball: string) =>
    books.owner.query('UPDATE item SET family_id = 900, option_1 = ?, option_2 = ? WHERE number = ?', [
      shade,
      ball,
      number,
    ]);
  await member('10412-07', 'moss', '50 g');
  await member('10412-04', 'brick', '50 g');
  await member('10412-11', 'moss', '100 g');
  must(await add(id, '10412-04', '3'));
  const itemId = await itemIdOf(books, '10412-07');
  const grid = must(await readFamilyGrid(books.deps, mira, { orderId: id, itemId, locationId: 1 }));
  expect(grid).toMatchObject({ family: 'Fen merino', down: ['brick', 'moss'], across: ['50 g', '100 g'] });
  expect(grid.cells.map((c) => [c.number, c.value1, c.value2, c.onOrder, c.sold])).toEqual([
    ['10412-04', 'brick', '50 g', units(3), true],
    ['10412-07', 'moss', '50 g', 0, true],
    ['10412-11', 'moss', '100 g', 0, true],
  ]);
  expect((await view(id)).lines[0]?.family).toBe(true);
  const thread = await itemIdOf(books, '29000-01');
  expect(await readFamilyGrid(books.deps, mira, { orderId: id, itemId: thread, locationId: 1 })).toMatchObject({
    error: { kind: 'not_found', what: 'item' },
  });
});

describe('bought over the counter', () => {
  test('order and receipt in one step', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '2'));
    const onHand = async () =>
      (
        await books.one<{ q: string }>(
          "SELECT on_hand AS q FROM level l JOIN item i ON i.id = l.item_id WHERE i.number = '10412-07' AND l.location_id = 1",
        )
      ).q;
    const before = Number(await onHand());
    const { version } = (await view(id)).head;
    const buy = req({ orderId: id, version, deliveryNote: 'slip 14', businessDate: '' });
    const bought = must(await buyOverCounter(books.deps, mira, buy));
    expect(bought.number).toMatch(/^2611-/);
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'sent', sentHow: 'in_person', number: bought.number });
    expect(order.came).toBe('all');
    expect(order.receipts).toMatchObject([{ number: bought.receipt, deliveryNote: 'slip 14', value: 6560 }]);
    expect(Number(await onHand())).toBe(before + 20);
    // The same again is the same.
    expect(must(await buyOverCounter(books.deps, mira, buy)).receipt).toBe(bought.receipt);
    must(await undoCommand(books.deps, mira, req({ undoKey: buy.key })));
    expect(Number(await onHand())).toBe(before);
  });

  test('for several places it is no purchase over the counter, and without a price nothing happens', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '2'));
    const itemId = await itemIdOf(books, '10412-04');
    must(await addOrderLine(books.deps, mira, req({ orderId: id, itemId, locationId: 2, packs: '1', price: '' })));
    const counter = async () =>
      buyOverCounter(
        books.deps,
        mira,
        req({ orderId: id, version: (await view(id)).head.version, deliveryNote: '', businessDate: '' }),
      );
    expect(await counter()).toMatchObject({ error: { kind: 'several_places' } });
    const [, second] = (await view(id)).lines;
    must(
      await editOrder(
        books.deps,
        mira,
        req({ orderId: id, field: 'remove' as const, lineId: second?.id ?? 0, was: '' }),
      ),
    );
    const [first] = (await view(id)).lines;
    const priced = { orderId: id, field: 'price' as const, lineId: first?.id ?? 0, was: first?.price ?? '', now: '' };
    must(await editOrder(books.deps, mira, req(priced)));
    expect(await counter()).toMatchObject({ error: { kind: 'not_ready' } });
    expect((await view(id)).head).toMatchObject({ state: 'draft', number: null });
  });
});

test('copied: the same lines at today’s prices in a draft of its own', async () => {
  const from = await view(7);
  const { orderId, lines } = must(await copyOrder(books.deps, mira, req({ orderId: 7 })));
  const copy = await view(orderId);
  expect(lines).toBe(from.lines.length);
  expect(copy.head).toMatchObject({ state: 'draft', number: null });
  expect(copy.lines.map((l) => [l.itemNumber, l.packs, l.parts.map((p) => p.locationId)])).toEqual(
    from.lines.map((l) => [l.itemNumber, l.packs, l.parts.map((p) => p.locationId)]),
  );
});

test('copied: what was free of charge stays free of charge, a one-off keeps its words and price', async () => {
  const id = await begin();
  must(await add(id, '10412-07', '1'));
  must(await add(id, '10412-07', '2'));
  const lineId = (await view(id)).lines[1]?.id ?? 0;
  must(
    await editOrder(
      books.deps,
      mira,
      req({ orderId: id, lineId, field: 'freeOfCharge' as const, was: 'false', now: 'true' }),
    ),
  );
  const sign = { kind: 'non_stock' as const, description: 'Shop sign', quantity: '2', unit: 'piece', price: '45' };
  must(await addOtherLine(books.deps, mira, req({ orderId: id, ...sign, locationId: 1 })));
  const { orderId } = must(await copyOrder(books.deps, mira, req({ orderId: id })));
  const copied = (await view(orderId)).lines;
  expect(copied.map((l) => l.freeOfCharge)).toEqual([false, true, false]);
  expect(copied[0]?.net).toBeGreaterThan(0);
  expect(copied[1]?.net).toBe(0);
  expect(copied[2]).toMatchObject({ kind: 'non_stock', description: 'Shop sign', packs: 2_000_000, net: 9000 });
});

test('earlier purchases: first of an item from whomever, then from the supplier, each item as it was bought last', async () => {
  const id = await begin();
  const { ofItem, fromSupplier } = must(await readEarlier(books.deps, mira, { orderId: id, itemId: null }));
  expect(ofItem).toEqual([]);
  expect(fromSupplier.length).toBeGreaterThan(1);
  expect(new Set(fromSupplier.map((l) => l.itemId)).size).toBe(fromSupplier.length);
  const itemId = await itemIdOf(books, '29000-01');
  const needles = must(await readEarlier(books.deps, mira, { orderId: id, itemId }));
  expect(needles.ofItem.map((l) => l.order)).toEqual(['2609-0002']);
  // What stands above is not said again.
  expect(needles.fromSupplier).toEqual(fromSupplier);
  const moss = await itemIdOf(books, '10412-07');
  const both = must(await readEarlier(books.deps, mira, { orderId: id, itemId: moss }));
  expect(both.ofItem.every((l) => l.itemId === moss)).toBe(true);
  expect(both.fromSupplier.map((l) => l.itemId)).not.toContain(moss);
});

test('a text of 10,000 letters is refused with what fits, wherever it is typed', async () => {
  const id = await begin();
  const long = 'x'.repeat(10_000);
  expect(await head(id, 'orderText', long)).toMatchObject({
    error: { field: 'orderText', fault: { kind: 'text_too_long', most: 400, has: 10_000 } },
  });
  must(await head(id, 'internalNote', 'x'.repeat(2000)));
  must(await add(id, '10412-07', '1'));
  const lineId = (await view(id)).lines[0]?.id ?? 0;
  const note = { orderId: id, lineId, field: 'printedNote' as const, was: '', now: long };
  expect(await editOrder(books.deps, mira, req(note))).toMatchObject({
    error: { field: 'printedNote', fault: { kind: 'text_too_long', most: 400, has: 10_000 } },
  });
});

describe('bad input', () => {
  test('nothing is ordered to a place that is closed, however it is entered', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '4'));
    const [line] = (await view(id)).lines;
    const [lineId, partId] = [line?.id ?? 0, line?.parts[0]?.id ?? 0];
    const closed = (
      await books.one<{ id: number }>("SELECT id FROM location WHERE kind = 'shop' ORDER BY id DESC LIMIT 1")
    ).id;
    await books.owner.query("UPDATE location SET status = 'closed' WHERE id = ?", [closed]);
    const itemId = await itemIdOf(books, '10412-04');
    const gone = { error: { kind: 'not_found', what: 'location' } };
    const to = { orderId: id, locationId: closed };
    expect(
      await newOrder(books.deps, mira, req({ supplierId: HOLLINMERE, locationId: closed, addressId: null })),
    ).toMatchObject(gone);
    expect(await addOrderLine(books.deps, mira, req({ ...to, itemId, packs: '1', price: '' }))).toMatchObject(gone);
    expect(await pasteLines(books.deps, mira, req({ ...to, rows: ['10412-04\\t2'] }))).toMatchObject(gone);
    const other = { kind: 'non_stock' as const, description: 'Ladder', quantity: '1', unit: 'piece', price: '60' };
    expect(await addOtherLine(books.deps, mira, req({ ...to, ...other }))).toMatchObject(gone);
    const split = { ...to, partId, packs: '1', date: '18 dec', broken: false };
    expect(await splitPart(books.deps, mira, req(split))).toMatchObject(gone);
    const moved = { orderId: id, lineId, partId, field: 'place' as const, was: '1', now: String(closed) };
    expect((await editOrder(books.deps, mira, req(moved))).ok).toBe(false);
    await books.owner.query("UPDATE location SET status = 'active' WHERE id = ?", [closed]);
    expect((await view(id)).lines).toHaveLength(1);
  });

  test('a blocked supplier can be asked, and not ordered from; what is bad and can be, is said and stays', async () => {
    const id = await begin();
    must(await add(id, '10412-07', '2.5'));
    const [line] = (await view(id)).lines;
    const past = { orderId: id, lineId: line?.id ?? 0, partId: line?.parts[0]?.id ?? 0, field: 'wantedDate' as const };
    must(await editOrder(books.deps, mira, req({ ...past, was: line?.parts[0]?.wantedDate ?? '', now: '2026-11-03' })));
    await books.owner.query("UPDATE supplier SET status = 'blocked' WHERE id = ?", [HOLLINMERE]);
    expect(must(await readOrderFrom(books.deps, mira)).find((s) => s.id === HOLLINMERE)?.blocked).toBe(true);
    const { findings, head: of } = await view(id);
    const kinds = findings.map((f) => f.kind);
    expect(kinds).toEqual(expect.arrayContaining(['supplier_blocked', 'not_whole_packs', 'wanted_in_the_past']));
    const approve = async (version: number) => approveOrder(books.deps, mira, req({ orderId: id, version }));
    expect(await approve(of.version)).toMatchObject({ error: { kind: 'not_ready' } });
    await books.owner.query("UPDATE supplier SET status = 'active' WHERE id = ?", [HOLLINMERE]);
    must(await approve(of.version));
  });
});
