import { units } from '@/core/quantity';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { readAskedFor } from '@/services/purchase/askedFor';
import { cancelOrder } from '@/services/purchase/endOrder';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { takeMaterials } from '@/services/purchase/takeMaterials';
import { tellColleague } from '@/services/purchase/tellColleague';
import { type Books, freshBooks, mira, must, req, violations } from './support';

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

test('a colleague is told of an order by mail, and its history says so', async () => {
  const id = await begin();
  const { colleagues } = await view(id);
  expect(colleagues.map((c) => c.name)).toContain('Otto Quillon');
  const otto = colleagues.find((c) => c.name === 'Otto Quillon')?.id ?? 0;
  must(await tellColleague(books.deps, mira, req({ orderId: id, userId: otto, note: 'for the window' })));
  const [mail] = await books.rows<{ recipient: string; subject: string; body: string }>(
    'SELECT recipient, subject, body FROM outbox_mail ORDER BY id DESC LIMIT 1',
  );
  expect(mail).toMatchObject({ recipient: 'otto', subject: 'For your information: a draft to Hollinmere Spinners' });
  expect(mail?.body).toContain('for the window');
  expect((await view(id)).history.at(-1)).toMatchObject({ action: 'told a colleague' });
  const nobody = { orderId: id, userId: 999, note: '' };
  expect(await tellColleague(books.deps, mira, req(nobody))).toMatchObject({ error: { kind: 'not_found' } });
});
