import { units } from '@/core/quantity';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { readAskedFor } from '@/services/purchase/askedFor';
import { buyOneToOne } from '@/services/purchase/buyOneToOne';
import { cancelOrder } from '@/services/purchase/endOrder';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { takeMaterials } from '@/services/purchase/takeMaterials';
import { tellColleague } from '@/services/purchase/tellColleague';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, freshBooks, mira, must, otto, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const begin = async (supplierId = 1) =>
  must(await newOrder(books.deps, mira, req({ supplierId, locationId: 1, addressId: null }))).orderId;
const view = async (id: number) => must(await readOrder(books.deps, mira, id));
const asked = async (id: number) => must(await readAskedFor(books.deps, mira, id));
const itemIdOf = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;
const material = async (job: string, number: string, quantity: string, neededOn: string) =>
  books.rows(
    "INSERT INTO job_material (job, name, location_id, item_id, quantity, needed_on) VALUES (?, 'Curtains', 1, ?, ?, ?)",
    [job, await itemIdOf(number), quantity, neededOn],
  );

describe('materials of our own jobs', () => {
  test('are taken over in whole packs by when the job needs them, and the order says for which', async () => {
    // A Sunday: the goods have to be there on the Friday before.
    await material('W-12', '10412-07', '25', '2026-12-13');
    const id = await begin();
    const { materials } = await asked(id);
    // 25 balls are 3 bags of 10.
    expect(materials).toMatchObject([
      { job: 'W-12', open: units(25), packs: units(3), base: units(30), packName: 'bag', neededOn: '2026-12-13' },
    ]);
    const materialIds = materials.map((m) => m.id);
    expect(must(await takeMaterials(books.deps, mira, req({ orderId: id, materialIds })))).toEqual({ taken: 1 });
    const { lines, head } = await view(id);
    expect(lines[0]).toMatchObject({ packs: units(3), boughtFor: ['job W-12, Curtains'] });
    expect(lines[0]?.parts[0]?.wantedDate).toBe('2026-12-11');
    // What stands on an order is not taken again.
    expect((await asked(id)).materials).toEqual([]);
    expect(await takeMaterials(books.deps, mira, req({ orderId: await begin(), materialIds }))).toMatchObject({
      error: { kind: 'not_found' },
    });
    must(await approveOrder(books.deps, mira, req({ orderId: id, version: head.version })));
    expect(must(await readOrderPaper(books.deps, mira, id)).lines[0]?.references).toEqual(['W-12']);
    // An order that is cancelled gives it back.
    const at = async () => ({ orderId: id, version: (await view(id)).head.version });
    must(await sendOrder(books.deps, mira, req({ ...(await at()), how: 'phone' as const, to: '' })));
    must(await cancelOrder(books.deps, mira, req({ ...(await at()), reason: 'not made' })));
    expect((await asked(await begin())).materials).toMatchObject([{ job: 'W-12', open: units(25) }]);
  });

  test('what a job needed before today is wanted now', async () => {
    await material('W-19', '10412-11', '5', '2026-11-20');
    const id = await begin();
    const materialIds = (await asked(id)).materials.map((m) => m.id);
    must(await takeMaterials(books.deps, mira, req({ orderId: id, materialIds })));
    expect((await view(id)).lines[0]?.parts[0]?.wantedDate).toBe('2026-11-23');
    await books.rows("UPDATE job_material SET done = 1 WHERE job = 'W-19'");
  });

  test('only what is open, and only what the supplier sells', async () => {
    await material('W-13', '10412-11', '5', '2026-12-18');
    await books.rows("UPDATE job_material SET done = 1 WHERE job = 'W-12'");
    expect((await asked(await begin())).materials.map((m) => m.job)).toEqual(['W-13']);
    const stranger = await books.one<{ id: number }>(
      'SELECT id FROM supplier WHERE id NOT IN (SELECT supplier_id FROM source WHERE item_id = ?) LIMIT 1',
      [await itemIdOf('10412-11')],
    );
    expect((await asked(await begin(stranger.id))).materials).toEqual([]);
  });
});

test('what a customer waits for is put on the order by choice, with its reckoning', async () => {
  const itemId = await itemIdOf('10412-12');
  const line = {
    ...{ itemId, packId: null, quantity: '400', locationId: 1, way: 'collect' as const },
    ...{ wantedDate: '2026-11-30', shipBy: '', holdUntil: '' },
  };
  must(
    await enterCustomerOrder(
      ...([books.deps, mira] as const),
      req({
        ...{ customerId: null, customer: { name: 'Ada Lund', mail: '', phone: '', address: '' } },
        ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '', lines: [line] },
      }),
    ),
  );
  const id = await begin();
  const { needs } = await asked(id);
  const own = needs.find((n) => n.itemNumber === '10412-12');
  expect(own).toMatchObject({ who: 'customers wait', location: 'Harbour Street' });
  const others = needs.length - 1;
  // Words that no item has take nothing.
  const none = { orderId: id, locationId: null, warned: true, words: 'no such yarn' };
  expect(must(await fillFromNeeds(books.deps, mira, req(none)))).toMatchObject({ taken: 0 });
  const taken = { orderId: id, locationId: null, warned: true, needIds: [own?.needId ?? 0] };
  expect(must(await fillFromNeeds(books.deps, mira, req(taken)))).toMatchObject({ taken: 1 });
  expect((await view(id)).lines.map((l) => l.itemNumber)).toEqual(['10412-12']);
  expect((await asked(id)).needs).toHaveLength(others);
});

test('a customer’s line is bought for one to one by hand: named on the order, laid by when it comes, undone whole', async () => {
  const itemId = await itemIdOf('10412-11');
  const policy = await books.rows('SELECT id FROM need WHERE peg > 0');
  const line = {
    ...{ itemId, packId: null, quantity: '300', locationId: 1, way: 'collect' as const },
    ...{ wantedDate: '2027-02-01', shipBy: '', holdUntil: '' },
  };
  must(
    await enterCustomerOrder(
      ...([books.deps, mira] as const),
      req({
        ...{ customerId: null, customer: { name: 'Tove Lind', mail: '', phone: '', address: '' } },
        ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '', lines: [line] },
      }),
    ),
  );
  const id = await begin();
  const own = (await asked(id)).lines.find((l) => l.who.endsWith('Tove Lind'));
  expect(own).toMatchObject({ of: 'customer_demand', itemNumber: '10412-11', location: 'Harbour Street' });
  const [open, packs] = [own?.open ?? 0, own?.packs ?? 0];
  expect(open).toBeGreaterThan(0);
  const buy = req({ orderId: id, lines: [{ of: 'customer_demand' as const, id: own?.id ?? 0 }] });
  expect(must(await buyOneToOne(books.deps, mira, buy))).toEqual({ taken: 1 });
  const [bought] = (await view(id)).lines;
  expect(bought).toMatchObject({ itemNumber: '10412-11', packs });
  expect(bought?.boughtFor[0]).toMatch(/^CO2611-/);
  // Nothing of it can be bought a second time.
  expect((await asked(id)).lines.map((l) => l.id)).not.toContain(own?.id);
  const twice = { orderId: id, lines: [{ of: 'customer_demand' as const, id: own?.id ?? 0 }] };
  expect(await buyOneToOne(books.deps, mira, req(twice))).toMatchObject({ error: { kind: 'not_found' } });
  const decision = await books.one<{ reckoning: string }>('SELECT reckoning FROM decision ORDER BY id DESC LIMIT 1');
  expect(JSON.parse(decision.reckoning)).toMatchObject({ kind: 'per_demand', toBuy: open });
  expect(await violations(books)).toEqual([]);

  must(await undoCommand(books.deps, mira, req({ undoKey: buy.key })));
  expect((await view(id)).lines).toEqual([]);
  expect((await asked(id)).lines.map((l) => l.id)).toContain(own?.id);
  expect(await books.rows("SELECT id FROM need WHERE peg > 0 AND state <> 'none'")).toHaveLength(policy.length);
  expect(await violations(books)).toEqual([]);

  must(await buyOneToOne(books.deps, mira, req(buy.input)));
  const { head, lines } = await view(id);
  must(await approveOrder(books.deps, otto, req({ orderId: id, version: head.version })));
  const counted = [{ partId: lines[0]?.parts[0]?.id ?? 0, quantity: String(packs / 1e6), unit: 'pack' as const }];
  const goods = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted };
  must(await receiveGoods(books.deps, mira, req(goods)));
  const held = await books.one<{ q: string }>(
    'SELECT a.quantity - a.taken AS q FROM customer_demand d JOIN allocation a ON a.id = d.allocation_id WHERE d.id = ?',
    [own?.id],
  );
  expect(Number(held.q)).toBe(300);
});

test('a line of a shop’s request is bought for one to one by hand', async () => {
  const itemId = await itemIdOf('10412-11');
  const want = { fromLocationId: 3, toLocationId: 1, lines: [{ itemId, quantity: '900' }], note: '', wantedDate: '' };
  must(await requestTransfer(books.deps, mira, req(want)));
  const id = await begin();
  const own = (await asked(id)).lines.find((l) => l.of === 'transfer_line');
  expect(own?.who).toContain('Harbour Street');
  const lines = [{ of: 'transfer_line' as const, id: own?.id ?? 0 }];
  must(await buyOneToOne(books.deps, mira, req({ orderId: id, lines })));
  expect((await view(id)).lines[0]?.boughtFor[0]).toMatch(/^T2611-/);
});

test('two buyers at once take the material of a job once', async () => {
  await material('W-21', '10412-07', '10', '2026-12-18');
  const [one, other] = [await begin(), await begin()];
  const materialIds = (await asked(one)).materials.filter((m) => m.job === 'W-21').map((m) => m.id);
  const both = await Promise.all([
    takeMaterials(books.deps, mira, req({ orderId: one, materialIds })),
    takeMaterials(books.deps, otto, req({ orderId: other, materialIds })),
  ]);
  expect(both.filter((r) => r.ok)).toHaveLength(1);
  expect((await view(one)).lines.length + (await view(other)).lines.length).toBe(1);
});

test('two buyers at once buy a line one to one once', async () => {
  const itemId = await itemIdOf('10412-12');
  const want = { fromLocationId: 3, toLocationId: 2, lines: [{ itemId, quantity: '700' }], note: '', wantedDate: '' };
  must(await requestTransfer(books.deps, mira, req(want)));
  const [one, other] = [await begin(), await begin()];
  const own = (await asked(one)).lines.find((l) => l.of === 'transfer_line' && l.itemNumber === '10412-12');
  const lines = [{ of: 'transfer_line' as const, id: own?.id ?? 0 }];
  const both = await Promise.all([
    buyOneToOne(books.deps, mira, req({ orderId: one, lines })),
    buyOneToOne(books.deps, otto, req({ orderId: other, lines })),
  ]);
  expect(both.filter((r) => r.ok)).toHaveLength(1);
  expect((await view(one)).lines.length + (await view(other)).lines.length).toBe(1);
});

test('a colleague is told of an order by mail, and its history says so', async () => {
  const id = await begin();
  const { colleagues } = await view(id);
  expect(colleagues.map((c) => c.name)).toContain('Otto Quillon');
  const otto = colleagues.find((c) => c.name === 'Otto Quillon')?.id ?? 0;
  must(await tellColleague(books.deps, mira, req({ orderId: id, userId: otto, note: 'for the window' })));
  const [mail] = await books.rows<{ recipient: string; subject: string; body: string }>(
    'SELECT recipient, subject, body FROM outbox_mail ORDER BY id DESC LIMIT 1',
  );
  expect(mail).toMatchObject({
    recipient: 'otto@quillon.example',
    subject: 'For your information: a draft to Hollinmere Spinners',
  });
  expect(mail?.body).toContain('for the window');
  expect((await view(id)).history.at(-1)).toMatchObject({ action: 'told a colleague' });
  const nobody = { orderId: id, userId: 999, note: '' };
  expect(await tellColleague(books.deps, mira, req(nobody))).toMatchObject({ error: { kind: 'not_found' } });
});
