import { fromDecimal } from '@/core/quantity';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { previewPolicies } from '@/services/planning/previewPolicies';
import { readOutlook } from '@/services/planning/readOutlook';
import { markChanged, recomputeDirty } from '@/services/planning/recompute';
import { savePolicies } from '@/services/planning/savePolicies';
import { takeBack } from '@/services/planning/takeBack';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { cancelTransfer } from '@/services/stock/cancelTransfer';
import { readTransfer } from '@/services/stock/readTransfers';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { refuseTransfer } from '@/services/stock/refuseTransfer';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, needsOf, req, violations } from './support';

// What a place asks of another whose policy is "per demand" is bought one to one. Source: calculations 3 (hard pegs).
let books: Books;
let item = 0;
const [MH, WY] = [3, 4] as const;
const units = (n: number) => fromDecimal(String(n));

beforeAll(async () => {
  books = await freshBooks();
  item = (await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-02'")).id;
  const was = { kind: '', min: '', max: '' };
  const row = await books.rows<{ kind: string | null; min: string | null; max: string | null }>(
    'SELECT kind, min_quantity AS min, max_quantity AS max FROM policy WHERE item_id = ? AND location_id = ?',
    [item, WY],
  );
  const plain = (q: string | null | undefined) => (q === null || q === undefined ? '' : String(Number(q)));
  if (row[0]) Object.assign(was, { kind: row[0].kind ?? '', min: plain(row[0].min), max: plain(row[0].max) });
  const edit = { itemId: item, locationId: WY, was, now: { kind: 'per_demand', min: '', max: '' } };
  must(await savePolicies(books.deps, mira, req({ edits: [edit] })));
});
afterAll(() => books.close());
/** Whatever was done: the books add up, and nothing differs from a full run. */
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

const ask = async (quantity: string) => {
  const lines = [{ itemId: item, quantity }];
  const input = { fromLocationId: WY, toLocationId: MH, wantedDate: '', note: '', lines };
  return must(await requestTransfer(books.deps, mira, req(input))).transferId;
};
const state = async () => {
  const s = await books.one<Record<string, string>>(
    'SELECT on_hand, on_the_way, in_trays, owed, planned, pegged, position_quantity FROM item_location_state WHERE item_id = ? AND location_id = ?',
    [item, WY],
  );
  return Object.fromEntries(Object.entries(s).map(([k, v]) => [k, Number(v)]));
};
/** The needs that are bought for lines of transfers, from this place. */
const pegged = async () => (await needsOf(books, mira)).needs.filter((n) => n.itemId === item && n.boughtFor !== null);
const askedBy = (n: { boughtFor: { href: string } | null }) => Number(n.boughtFor?.href.split('/').at(-1));
const needFor = async (transferId: number) => {
  const need = (await pegged()).find((n) => askedBy(n) === transferId);
  if (!need) throw new Error('no need for it');
  return need;
};
const accept = async (transferId: number, packs: string) => {
  const { id, fingerprint } = await needFor(transferId);
  const request = req({ needId: id, fingerprint, packs });
  return { key: request.key, ...must(await acceptNeed(books.deps, mira, request)) };
};
const order = async () => {
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
  const orderId = made?.orderId ?? 0;
  const { lines } = must(await readOrder(books.deps, mira, orderId));
  const line = lines.find((l) => l.itemId === item);
  return { orderId, partId: line?.parts[0]?.id ?? 0 };
};
const send = async (orderId: number) => {
  const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;
  must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })));
  must(await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'phone' as const })));
};
const receive = async (orderId: number, partId: number, quantity: string) => {
  const counted = [{ partId, quantity, unit: 'base' as const }];
  const input = { orderId, locationId: WY, deliveryNote: '', businessDate: '', counted };
  return must(await receiveGoods(books.deps, mira, req(input)));
};
const lineOf = async (transferId: number) => must(await readTransfer(books.deps, mira, transferId)).lines[0];

test('asked for, bought, received, promised, sent: exactly the line, whatever else lies there', async () => {
  const before = await state();
  const id = await ask('7');
  const need = await needFor(id);
  expect(need).toMatchObject({
    ...{ locationId: WY, causes: ['shop_asks'], base: units(10), packs: units(1) },
    boughtFor: { href: `/stock/transfers/${id}`, who: 'Market Hall', kind: 'request', straight: false },
    reckoning: { kind: 'per_demand', toBuy: units(7), quantity: units(10) },
  });
  // The line is in no position: it has its own need.
  expect(await state()).toMatchObject({ planned: before.planned, position_quantity: before.position_quantity });

  await accept(id, '1');
  expect(await pegged()).toEqual([]);
  // Seven of the bag are promised; the three beyond it count for everybody.
  expect(await state()).toMatchObject({ pegged: 7, in_trays: (before.in_trays ?? 0) + 3 });
  const kept = await books.one<{ reckoning: string; shortage: string }>(
    'SELECT reckoning, shortage FROM decision ORDER BY id DESC LIMIT 1',
  );
  expect(kept.shortage).toBe('7.000000');
  expect(JSON.parse(kept.reckoning)).toMatchObject({ kind: 'per_demand', toBuy: 7_000_000 });

  const { orderId, partId } = await order();
  await send(orderId);
  expect(await state()).toMatchObject({ pegged: 7, on_the_way: (before.on_the_way ?? 0) + 3 });
  expect(await lineOf(id)).toMatchObject({ liesReady: 0, boughtFor: units(7) });
  const outlook = must(await readOutlook(books.deps, mira, { itemId: item, locationId: WY }));
  expect(outlook.demands.filter((d) => d.kind === 'asked')).toMatchObject([{ quantity: units(7) }]);

  // Part of it: four lie ready, three are still on the way.
  await receive(orderId, partId, '4');
  expect(await lineOf(id)).toMatchObject({ liesReady: units(4), boughtFor: units(3) });
  expect(await state()).toMatchObject({ owed: (before.owed ?? 0) + 4, pegged: 3 });
  const held = await books.rows<{ q: string; promisedTo: string }>(
    "SELECT quantity AS q, promised_to AS promisedTo FROM allocation WHERE state = 'held' AND item_id = ? AND location_id = ?",
    [item, WY],
  );
  expect(held).toMatchObject([{ q: '4.000000', promisedTo: expect.stringMatching(/^T2611-\d+ to Market Hall$/) }]);
  await receive(orderId, partId, '6');
  expect(await lineOf(id)).toMatchObject({ liesReady: units(7), boughtFor: 0 });
  expect(await state()).toMatchObject({
    ...{ owed: (before.owed ?? 0) + 7, pegged: 0, on_hand: (before.on_hand ?? 0) + 10 },
    position_quantity: (before.position_quantity ?? 0) + 3,
  });

  // Approved in full out of what lies ready, even if nothing else were free.
  const approve = { transferId: id, version: 1, lines: [{ lineNo: 1, approved: '7' }] };
  must(await approveTransfer(books.deps, mira, req(approve)));
  expect(await state()).toMatchObject({ owed: (before.owed ?? 0) + 7 });
  must(
    await shipApproved(books.deps, mira, req({ transferId: id, version: 2, lines: [{ lineNo: 1, quantity: '7' }] })),
  );
  expect(await state()).toMatchObject({ owed: before.owed, on_hand: (before.on_hand ?? 0) + 3 });
});

test('two lines are two needs; a decision taken back or undone opens its own again', async () => {
  const [a, b] = [await ask('5'), await ask('12')];
  expect((await pegged()).map((n) => [askedBy(n), n.base])).toEqual([
    [a, units(10)],
    [b, units(20)],
  ]);
  const taken = await accept(a, '1');
  expect((await pegged()).map(askedBy)).toEqual([b]);
  must(await takeBack(books.deps, mira, req({ trayLineId: taken.trayLineId ?? 0 })));
  expect(await needFor(a)).toMatchObject({ causes: ['shop_asks'] });
  const again = await accept(a, '1');
  must(await undoCommand(books.deps, mira, req({ undoKey: again.key })));
  expect((await pegged()).map(askedBy)).toEqual([a, b]);
  // Less than the line: the rest is still a need.
  await accept(b, '1');
  expect(await needFor(b)).toMatchObject({ causes: ['shop_asks'], reckoning: { toBuy: units(2) } });
  for (const transferId of [a, b])
    must(await refuseTransfer(books.deps, mira, req({ transferId, version: 1, reason: 'not this year' })));
  expect(await pegged()).toEqual([]);
  // Nobody asks for it now: what was bought is for everybody.
  expect(await state()).toMatchObject({ pegged: 0, in_trays: 10 });
});

test('an order that is cut opens the need again and says so; a reversed receipt does not buy twice', async () => {
  const id = await ask('15');
  await accept(id, '2');
  const { orderId } = await order();
  const { lines } = must(await readOrder(books.deps, mira, orderId));
  const parts = lines.filter((l) => l.itemId === item).flatMap((l) => l.parts);
  // The line of fifteen is the second part; the first was bought for a request that was refused.
  const part = parts.find((p) => p.packs === units(2));
  expect(part).toBeDefined();
  const edit = { orderId, field: 'packs' as const, partId: part?.id ?? 0, was: '2', now: '1' };
  must(await editOrder(books.deps, mira, req(edit)));
  expect(await needFor(id)).toMatchObject({
    ...{ causes: ['shop_asks', 'supply_cut'], base: units(10) },
    reckoning: { toBuy: units(5) },
  });
  await send(orderId);
  const { receiptId } = await receive(orderId, part?.id ?? 0, '10');
  expect(await lineOf(id)).toMatchObject({ liesReady: units(10), boughtFor: 0 });
  must(await reverseReceipt(books.deps, mira, req({ receiptId, reason: 'wrong shade' })));
  // What went back lies ready for nobody; it is expected on its order again.
  expect(await lineOf(id)).toMatchObject({ liesReady: 0, boughtFor: units(10) });
  expect(await needFor(id)).toMatchObject({ reckoning: { toBuy: units(5) } });
  must(await cancelTransfer(books.deps, mira, req({ transferId: id, version: 1 })));
  expect(await pegged()).toEqual([]);
  expect(Number((await state()).owed)).toBe(0);
});

test('before it is saved, what bought one to one would do is counted; an item that is stopped is bought no more', async () => {
  const [a, b] = [await ask('3'), await ask('4')];
  const was = { kind: 'per_demand', min: '', max: '' };
  const edit = { itemId: item, locationId: WY, was, now: { kind: 'phase_out', min: '', max: '' } };
  const effect = must(await previewPolicies(books.deps, mira, [edit]));
  expect(effect.needs.before - effect.needs.after).toBe(2);
  await books.rows("UPDATE item SET status = 'stopped' WHERE id = ?", [item]);
  expect((await markChanged(books.deps, [item])).changed).toBeGreaterThan(0);
  while ((await recomputeDirty(books.deps, 100)) > 0);
  expect(await pegged()).toEqual([]);
  await books.rows("UPDATE item SET status = 'active' WHERE id = ?", [item]);
  await markChanged(books.deps, [item]);
  while ((await recomputeDirty(books.deps, 100)) > 0);
  expect(await pegged()).toHaveLength(2);
  for (const transferId of [a, b]) must(await cancelTransfer(books.deps, mira, req({ transferId, version: 1 })));
});

test('below zero, what comes fills the hole first and only the rest lies ready', async () => {
  const { on_hand } = await state();
  const lines = [{ itemId: item, quantity: String((on_hand ?? 0) + 4), allocationId: null }];
  must(await sellGoods(books.deps, mira, req({ locationId: WY, businessDate: '', lines })));
  const id = await ask('10');
  await accept(id, '1');
  const { orderId, partId } = await order();
  await send(orderId);
  await receive(orderId, partId, '10');
  expect(await lineOf(id)).toMatchObject({ liesReady: units(6), boughtFor: 0 });
  expect(await needFor(id)).toMatchObject({ reckoning: { toBuy: units(4) } });
});

test('of two orders for one line the one that was decided first is promised first, wherever its row stands', async () => {
  const before = await state();
  const id = await ask('14');
  await accept(id, '1');
  const { orderId } = await order();
  await send(orderId);
  await accept(id, '1');
  // Fourteen of the twenty are promised: all of the order, and four of the tray; the six beyond are the tray's.
  expect(await state()).toMatchObject({
    ...{ pegged: 14, on_the_way: before.on_the_way, in_trays: (before.in_trays ?? 0) + 6 },
  });
  must(await cancelTransfer(books.deps, mira, req({ transferId: id, version: 1 })));
  expect(await state()).toMatchObject({ pegged: 0, on_the_way: (before.on_the_way ?? 0) + 10 });
});
