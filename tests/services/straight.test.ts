import { orderMail } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { askByHand } from '@/services/planning/askByHand';
import { readWays } from '@/services/planning/readWays';
import { markChanged } from '@/services/planning/recompute';
import { savePolicies } from '@/services/planning/savePolicies';
import { setAside } from '@/services/planning/setAside';
import { cancelCustomerLines } from '@/services/promise/cancelCustomerLines';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { handOver } from '@/services/promise/handOver';
import { holdForCustomer } from '@/services/promise/holdForCustomer';
import { readCustomerOrder } from '@/services/promise/readCustomerOrder';
import { setLineWay } from '@/services/promise/setLineWay';
import { approveOrder } from '@/services/purchase/approveOrder';
import { readAskedFor } from '@/services/purchase/askedFor';
import { buyOverCounter } from '@/services/purchase/buyOverCounter';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { makeOrders } from '@/services/purchase/makeOrders';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { confirmDispatch } from '@/services/stock/confirmDispatch';
import { readArrivals } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, needsOf, req, violations } from './support';

// What is bought one to one for a customer: to lie ready for them ("per demand"), or sent by its supplier straight to them.
// Source: calculations 2 and 3; common practice of buying to order and of drop shipment.
let books: Books;
let item = 0;
const SHOP = 3;
const units = (n: number) => fromDecimal(String(n));

beforeAll(async () => {
  books = await freshBooks();
  item = (await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-02'")).id;
});
afterAll(() => books.close());
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

type Way = 'from_stock' | 'collect' | 'straight';
const enter = (way: Way, quantity: string, itemId = item, also: readonly Way[] = []) =>
  enterCustomerOrder(
    books.deps,
    mira,
    req({
      ...{ customerId: null, customer: { name: 'Ida Falk', mail: '', phone: '', address: 'Sedge Lane 4, Ostrand' } },
      ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '' },
      lines: [way, ...also].map((w) => ({
        ...{ itemId, packId: null, quantity, locationId: SHOP, way: w, wantedDate: '+5', shipBy: '', holdUntil: '' },
      })),
    }),
  );
const order = async (way: Way, quantity: string) => must(await enter(way, quantity)).orderId;
const view = async (id: number) => must(await readCustomerOrder(books.deps, mira, id));
const line = async (id: number) => {
  const [first] = (await view(id)).lines;
  if (!first) throw new Error('no line');
  return first;
};
const at = async (id: number) => ({ orderId: id, version: (await view(id)).version });
const own = async () => (await needsOf(books, mira)).needs.filter((n) => n.boughtFor?.kind === 'customer');
const state = async () => {
  const s = await books.one<Record<string, string>>(
    'SELECT on_hand, on_the_way, in_trays, owed, backordered, pegged, position_quantity FROM item_location_state WHERE item_id = ? AND location_id = ?',
    [item, SHOP],
  );
  return Object.fromEntries(Object.entries(s).map(([k, v]) => [k, Number(v)]));
};
const level = () =>
  books.one('SELECT on_hand, allocated, value_minor FROM level WHERE item_id = ? AND location_id = ?', [item, SHOP]);
const accept = async (packs: string) => {
  const [need] = await own();
  const request = req({ needId: need?.id ?? 0, fingerprint: need?.fingerprint ?? '', packs });
  must(await acceptNeed(books.deps, mira, request));
  return request.key;
};
const buy = async () => {
  const trays = await books.rows<{ id: number }>(
    "SELECT DISTINCT supplier_id AS id FROM tray_line WHERE state = 'in_tray' AND item_id = ?",
    [item],
  );
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: trays.map((t) => t.id) })));
  const orderId = made?.orderId ?? 0;
  const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;
  must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })));
  must(await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'phone' as const })));
  const part = must(await readOrder(books.deps, mira, orderId)).lines.find((l) => l.itemId === item)?.parts[0];
  return { orderId, partId: part?.id ?? 0, part };
};
const counted = (orderId: number, partId: number, quantity: string) =>
  req({
    ...{ orderId, locationId: SHOP, deliveryNote: 'DN 7', businessDate: '' },
    counted: [{ partId, quantity, unit: 'base' as const }],
  });

describe('straight from the supplier', () => {
  test('a need of its own, an order that names the customer, and a dispatch that closes both; no stock moves', async () => {
    const [before, stock] = [await state(), await level()];
    const id = await order('straight', '20');
    const [need] = await own();
    expect(need).toMatchObject({
      ...{ itemId: item, locationId: SHOP, base: units(20), causes: ['customer_waits'], sentFrom: null },
      boughtFor: { who: 'Ida Falk', href: `/promises/${id}`, straight: true },
      reckoning: { kind: 'per_demand', toBuy: units(20) },
    });
    expect(await state()).toEqual(before);
    expect(await line(id)).toMatchObject({ ready: 0, short: units(20), missing: units(20), promise: null });
    // It can be decided from the customer's order.
    expect((await line(id)).need).toMatchObject({ needId: need?.id, sent: false });

    await accept('2');
    expect(await own()).toEqual([]);
    expect(await line(id)).toMatchObject({ missing: 0, covers: [{ kind: 'tray', quantity: units(20) }] });
    expect(await state()).toEqual({ ...before, pegged: 20 });
    const { orderId, partId, part } = await buy();
    expect(part).toMatchObject({
      ...{ location: 'Ida Falk', address: 'Ida Falk\nSedge Lane 4, Ostrand' },
      straight: { orderId: id },
    });
    expect(await line(id)).toMatchObject({ missing: 0, covers: [{ kind: 'order', quantity: units(20) }] });
    expect((await line(id)).promise).not.toBeNull();
    // Its supplier is told so, on paper and in the text of the mail.
    const paper = must(await readOrderPaper(books.deps, mira, orderId));
    expect(paper.deliverTo).toEqual([]);
    expect(orderMail(paper).body).toContain('Ida Falk, Sedge Lane 4, Ostrand, Wanted');
    // It never comes to the shop.
    const arrivals = must(await readArrivals(books.deps, mira, { locationId: SHOP }));
    expect(JSON.stringify(arrivals)).not.toContain(`"partId":${partId}`);
    expect(await receiveGoods(books.deps, mira, counted(orderId, partId, '20'))).toMatchObject({
      error: { kind: 'not_found' },
    });
    expect(await handOver(books.deps, mira, req({ ...(await at(id)), locationId: SHOP, lines: [] }))).toMatchObject({
      error: { kind: 'nothing_counted' },
    });

    const first = must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '12')));
    expect(first.handed).toMatchObject([{ orderId: id, customer: 'Ida Falk', quantity: units(12), beyond: 0 }]);
    expect(await view(id)).toMatchObject({
      ...{ state: 'open', lines: [{ handedOver: units(12), open: units(8), missing: 0 }] },
      handOvers: [{ sale: first.receipt, quantity: units(12) }],
    });
    must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '8')));
    expect((await view(id)).state).toBe('done');
    expect(must(await readOrder(books.deps, mira, orderId)).came).toBe('all');
    expect([await state(), await level()]).toEqual([before, stock]);
  });

  test('more than is asked for stays with the customer; a dispatch that is taken back opens both again', async () => {
    const [before, stock] = [await state(), await level()];
    const id = await order('straight', '7');
    await accept('1');
    expect(await state()).toEqual({ ...before, pegged: 7 });
    const { orderId, partId } = await buy();
    // What is more than its customer asked for covers nobody else.
    const other = await order('collect', '400');
    expect(JSON.stringify((await line(other)).covers)).not.toContain(`"/orders/${orderId}"`);
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(other)), lines: 'all' as const })));
    const request = counted(orderId, partId, '10');
    const sent = must(await confirmDispatch(books.deps, mira, request));
    expect(sent.handed).toMatchObject([{ quantity: units(7), beyond: units(3) }]);
    expect(await view(id)).toMatchObject({ state: 'done', lines: [{ handedOver: units(7) }] });
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect(await view(id)).toMatchObject({ state: 'open', lines: [{ handedOver: 0, missing: 0 }], handOvers: [] });
    const again = must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '10')));
    const reason = 'it came back';
    must(await reverseReceipt(books.deps, mira, req({ receiptId: again.receiptId, reason })));
    expect(await view(id)).toMatchObject({ state: 'open', lines: [{ handedOver: 0 }] });
    expect([await state(), await level()]).toEqual([{ ...before, pegged: 7 }, stock]);

    // Cancelled here while it is on its way there: it is still sent to the customer, and counts for nobody else.
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(id)), lines: 'all' as const })));
    expect(await state()).toEqual(before);
    expect(must(await readOrder(books.deps, mira, orderId)).lines[0]?.parts[0]?.straight).not.toBeNull();
    const late = must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '10')));
    expect(late.handed).toMatchObject([{ quantity: 0, beyond: units(10) }]);
    expect((await view(id)).state).toBe('cancelled');
  });

  test('decided on the customer’s order: another way gives back what lay ready, and not while it is fixed to be sent', async () => {
    const id = await order('collect', '3');
    const ready = (await line(id)).ready;
    must(await setLineWay(books.deps, mira, req({ ...(await at(id)), lineNo: 1, way: 'straight' as const })));
    expect(await line(id)).toMatchObject({ way: 'straight', ready: 0 });
    expect((await own()).map((n) => n.boughtFor?.straight)).toEqual([true]);
    const put = req({ ...(await at(id)), lineNo: 1, quantity: '1', until: '' });
    expect(await holdForCustomer(books.deps, mira, put)).toMatchObject({ error: { kind: 'goes_straight' } });
    const typed = { locationId: SHOP, lines: [{ lineNo: 1, quantity: '1' }] };
    expect(await handOver(books.deps, mira, req({ ...(await at(id)), ...typed }))).toMatchObject({
      error: { kind: 'goes_straight' },
    });
    // No place sends it, and no way to cover it is one.
    const [need] = await own();
    const ways = must(await readWays(books.deps, mira, need?.id ?? 0));
    expect(ways.ways.flatMap((w) => w.deliveries.map((d) => d.locationId)).every((l) => l === null)).toBe(true);
    const key = await accept('1');
    const back = async (way: Way) => setLineWay(books.deps, mira, req({ ...(await at(id)), lineNo: 1, way }));
    expect(await back('collect')).toMatchObject({ error: { kind: 'sent_straight', number: null } });
    must(await undoCommand(books.deps, mira, req({ undoKey: key })));
    must(await back('collect'));
    expect(await line(id)).toMatchObject({ way: 'collect', ready });
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(id)), lines: 'all' as const })));
  });

  test('what was sent is taken back after the rest was to go another way: the line is open again as it goes now', async () => {
    const id = await order('straight', '20');
    await accept('1');
    const { orderId, partId } = await buy();
    const sent = must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '10')));
    must(await setLineWay(books.deps, mira, req({ ...(await at(id)), lineNo: 1, way: 'collect' as const })));
    must(await reverseReceipt(books.deps, mira, req({ receiptId: sent.receiptId, reason: 'it came back' })));
    expect(await line(id)).toMatchObject({ way: 'collect', open: units(20), handedOver: 0 });
    // What is stored of the pair follows at once.
    expect((await markChanged(books.deps)).changed).toBe(0);
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(id)), lines: 'all' as const })));
    must(await confirmDispatch(books.deps, mira, counted(orderId, partId, '10')));
  });

  test('an order is not done while a line of it is still to be sent; one that is done goes no other way; its need is not put off', async () => {
    const { orderId: id } = must(await enter('collect', '1', item, ['straight']));
    const [need] = await own();
    const seen = [{ needId: need?.id ?? 0, fingerprint: need?.fingerprint ?? '' }];
    const aside = { needs: seen, kind: 'put_off' as const, until: '+3', reason: '' };
    expect(await setAside(books.deps, mira, req(aside))).toMatchObject({ error: { kind: 'bought_one_to_one' } });
    const given = must(await handOver(books.deps, mira, req({ ...(await at(id)), locationId: SHOP, lines: [] })));
    expect(given.done).toBe(false);
    expect((await view(id)).state).toBe('open');
    const way = { ...(await at(id)), lineNo: 1, way: 'from_stock' as const };
    expect(await setLineWay(books.deps, mira, req(way))).toMatchObject({ error: { kind: 'nothing_counted' } });
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(id)), lines: 'all' as const })));
  });

  test('it is put onto an order that is being written, beside what else is asked for by name', async () => {
    const [before, stock] = [await state(), await level()];
    const id = await order('straight', '9');
    const [need] = await own();
    const needId = need?.id ?? 0;
    const { supplierId } = await books.one<{ supplierId: number }>(
      'SELECT s.supplier_id AS supplierId FROM need n JOIN source s ON s.id = n.source_id WHERE n.id = ?',
      [needId],
    );
    const begun = req({ supplierId, locationId: SHOP, addressId: null });
    const { orderId } = must(await newOrder(books.deps, mira, begun));
    const asked = async () => must(await readAskedFor(books.deps, mira, orderId)).needs;
    expect((await asked()).find((n) => n.needId === needId)?.who).toContain('Ida Falk');
    const fill = req({ orderId, locationId: null, warned: true, needIds: [needId] });
    expect(must(await fillFromNeeds(books.deps, mira, fill))).toMatchObject({ taken: 1 });
    const part = async () => must(await readOrder(books.deps, mira, orderId)).lines[0]?.parts[0];
    expect(await part()).toMatchObject({ straight: { orderId: id }, address: 'Ida Falk\nSedge Lane 4, Ostrand' });
    expect(await line(id)).toMatchObject({ missing: 0, covers: [{ kind: 'draft', quantity: units(9) }] });
    expect(await asked()).not.toContainEqual(expect.objectContaining({ needId }));
    // It is no supply of the shop; what goes beyond the line is not either.
    expect(await state()).toEqual({ ...before, pegged: 9 });

    must(await undoCommand(books.deps, mira, req({ undoKey: fill.key })));
    expect(must(await readOrder(books.deps, mira, orderId)).lines).toEqual([]);
    expect((await asked()).map((n) => n.needId)).toContain(needId);
    must(await fillFromNeeds(books.deps, mira, req({ ...fill.input })));
    const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;
    // What its supplier sends to a customer nobody brings along from the counter.
    const brought = { orderId, version: await version(), deliveryNote: '', businessDate: '' };
    expect(await buyOverCounter(books.deps, mira, req(brought))).toMatchObject({ error: { kind: 'several_places' } });
    must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })));
    must(await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'phone' as const })));
    must(await confirmDispatch(books.deps, mira, counted(orderId, (await part())?.id ?? 0, '10')));
    expect(await view(id)).toMatchObject({ state: 'done', lines: [{ handedOver: units(9) }] });
    expect([await state(), await level()]).toEqual([before, stock]);
  });

  test('what goes straight is no stock to come; its need is as urgent as the day it is wanted', async () => {
    const asked = req({ itemId: item, locationId: SHOP, quantity: '5', packId: null, note: '' });
    must(await askByHand(books.deps, mira, asked));
    const ofShop = async () =>
      (await needsOf(books, mira)).needs.find(
        (n) => n.itemId === item && n.locationId === SHOP && n.boughtFor === null,
      );
    const before = await ofShop();
    expect(before?.runOut).toMatch(/^202[67]-/);
    const id = await order('straight', '200');
    // Wanted in five working days.
    expect((await own())[0]).toMatchObject({ runOut: '2026-11-30' });
    await accept('20');
    await buy();
    expect((await ofShop())?.runOut).toBe(before?.runOut);
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(id)), lines: 'all' as const })));
    must(await undoCommand(books.deps, mira, req({ undoKey: asked.key })));
  });

  test('a kit can’t go straight', async () => {
    const kit = await books.one<{ id: number }>("SELECT id FROM item WHERE status = 'active' AND id <> ? LIMIT 1", [
      item,
    ]);
    await books.owner.query('INSERT INTO kit_component (kit_id, component_id, quantity) VALUES (?, ?, 2)', [
      kit.id,
      item,
    ]);
    expect(await enter('straight', '1', kit.id)).toMatchObject({
      error: { kind: 'invalid_field', field: 'lines.0', fault: { kind: 'not_straight' } },
    });
    await books.owner.query('DELETE FROM kit_component WHERE kit_id = ?', [kit.id]);
  });
});

describe('per demand', () => {
  const policy = async (kind: string, was: string) => {
    const edit = {
      ...{ itemId: item, locationId: SHOP },
      ...{ was: { kind: was, min: '', max: '' }, now: { kind, min: '', max: '' } },
    };
    must(await savePolicies(books.deps, mira, req({ edits: [edit] })));
  };

  test('exactly the line is bought; what comes lies ready for it before anybody else', async () => {
    const row = await books.rows<{ kind: string }>('SELECT kind FROM policy WHERE item_id = ? AND location_id = ?', [
      item,
      SHOP,
    ]);
    if (row.length > 0)
      await books.owner.query('DELETE FROM policy WHERE item_id = ? AND location_id = ?', [item, SHOP]);
    await policy('per_demand', '');
    // Everything that lies there is promised to somebody else by hand first.
    const free = await books.one<{ q: string }>(
      'SELECT on_hand - allocated AS q FROM level WHERE item_id = ? AND location_id = ?',
      [item, SHOP],
    );
    const first = await order('collect', String(Math.max(1, Number(free.q))));
    const id = await order('collect', '14');
    const need = (await own()).find((n) => n.boughtFor?.href === `/promises/${id}`);
    expect(need).toMatchObject({ base: units(20), boughtFor: { straight: false } });
    expect(await state()).toMatchObject({ backordered: 0 });
    await accept('2');
    expect(await state()).toMatchObject({ pegged: 14 });
    expect(await line(id)).toMatchObject({ missing: 0, covers: [{ kind: 'tray', quantity: units(14) }] });
    const { orderId, partId } = await buy();
    must(await receiveGoods(books.deps, mira, counted(orderId, partId, '20')));
    expect(await line(id)).toMatchObject({ ready: units(14), state: 'ready' });
    expect(await own()).toEqual([]);
    must(await handOver(books.deps, mira, req({ ...(await at(id)), locationId: SHOP, lines: [] })));
    expect((await view(id)).state).toBe('done');
    must(await cancelCustomerLines(books.deps, mira, req({ ...(await at(first)), lines: 'all' as const })));
  });
});
