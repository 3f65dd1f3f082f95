import { acceptNeed } from '@/services/planning/acceptNeed';
import { acceptNeeds } from '@/services/planning/acceptNeeds';
import { askByHand } from '@/services/planning/askByHand';
import { markChanged } from '@/services/planning/recompute';
import { setAside } from '@/services/planning/setAside';
import { takeBack } from '@/services/planning/takeBack';
import { cancelCustomerLines } from '@/services/promise/cancelCustomerLines';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readTopUp } from '@/services/purchase/readTopUp';
import { topUpTray } from '@/services/purchase/topUpTray';
import { confirmDispatch } from '@/services/stock/confirmDispatch';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { seeded } from '../../scripts/demoData/random';
import { type Books, freshBooks, must, otto, req, violations } from './support';

// Whatever is done, undoing it leaves the books exactly as they were: seeded steps over the demo network, each undone and compared,
// most of them then done again, so that later ones start from other books.
let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

/** What the books say, without what only tells of their history (ids, versions, who and when). */
const pictures: Readonly<Record<string, string>> = {
  level: 'SELECT item_id, location_id, on_hand, allocated, blocked, inspection, value_minor FROM level ORDER BY 1, 2',
  state: `SELECT item_id, location_id, on_hand, on_the_way, in_trays, owed, backordered, planned, pegged, position_quantity,
                 shortage, suggested, need_state, below_min, source_id, supply_location_id
            FROM item_location_state ORDER BY 1, 2`,
  need: `SELECT item_id, location_id, peg_of, peg, state, cause, shortage, suggested, source_id FROM need
          WHERE state <> 'none' ORDER BY 1, 2, 3, 4`,
  tray: `SELECT supplier_id, item_id, location_id, customer_line_id, pack_quantity, base_quantity FROM tray_line
          WHERE state = 'in_tray' ORDER BY 1, 2, 3, 4, 5`,
  order: `SELECT o.supplier_id, o.state, l.item_id, l.pack_quantity, l.price_amount, d.location_id, d.customer_line_id, d.base_quantity,
                 d.received_quantity, d.received_value_minor
            FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
           WHERE o.state IN ('draft', 'approved', 'sent') AND l.base_quantity > 0 ORDER BY 1, 2, 3, 4, 6, 8`,
  hand: 'SELECT item_id, location_id, quantity FROM hand_need ORDER BY 1, 2',
  customer: `SELECT o.number, o.state, l.line_no, l.way, l.handed_over, l.cancelled,
                    (SELECT SUM(a.quantity - a.taken) FROM customer_demand d JOIN allocation a ON a.id = d.allocation_id
                      WHERE d.line_id = l.id AND a.state = 'held') AS held
               FROM customer_order o JOIN customer_line l ON l.order_id = o.id ORDER BY 1, 3`,
  transfer: `SELECT t.from_location_id, t.to_location_id, t.state, l.item_id, l.asked, l.approved, l.shipped
               FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
              WHERE t.state IN ('requested', 'approved', 'shipped') AND (l.asked > 0 OR l.approved > 0) ORDER BY 1, 2, 3, 4, 5`,
};
async function picture(): Promise<Record<string, unknown[]>> {
  const all: Record<string, unknown[]> = {};
  for (const [name, sql] of Object.entries(pictures)) all[name] = await books.rows(sql);
  return all;
}

const random = seeded(29);
const upTo = (n: number) => Math.floor(n * random());
const one = <T>(rows: readonly T[]): T | undefined => rows[upTo(rows.length)];
type Undoable = (() => Promise<{ key: string; ok: boolean } | null>) & object;
type Sent = { readonly key: string };
/** Runs a command with a request, and says by which key it can be undone. */
const run = async <R extends Sent>(request: R, command: (r: R) => Promise<{ ok: boolean }>) => ({
  key: request.key,
  ok: (await command(request)).ok,
});

const openNeeds = () =>
  books.rows<{ needId: number; fingerprint: string }>(
    "SELECT id AS needId, fingerprint FROM need WHERE state = 'open' AND (source_id IS NOT NULL OR supply_location_id IS NOT NULL) ORDER BY id",
  );
const ordersIn = (state: string) =>
  books.rows<{ orderId: number; version: number }>(
    `SELECT id AS orderId, version FROM purchase_order WHERE state IN (${state}) ORDER BY id`,
  );
const parts = (straight: boolean) =>
  books.rows<{ orderId: number; locationId: number; partId: number }>(
    `SELECT o.id AS orderId, d.location_id AS locationId, d.id AS partId
       FROM purchase_order o JOIN order_line l ON l.order_id = o.id JOIN delivery_part d ON d.order_line_id = l.id
       JOIN item i ON i.id = l.item_id AND i.tracking = 'none'
      WHERE o.state IN ('approved', 'sent') AND d.base_quantity > d.received_quantity
        AND d.customer_line_id IS ${straight ? 'NOT NULL' : 'NULL'} ORDER BY d.id`,
  );
const goods = (part: { orderId: number; locationId: number; partId: number }) => {
  const counted = [{ partId: part.partId, quantity: String(1 + upTo(9)), unit: 'base' as const }];
  return req({ ...part, deliveryNote: '', businessDate: '', counted });
};

const commands: Readonly<Record<string, Undoable>> = {
  accept: async () => {
    const need = one(await openNeeds());
    return need ? run(req({ ...need, packs: String(1 + upTo(5)) }), (r) => acceptNeed(books.deps, otto, r)) : null;
  },
  together: async () => {
    const needs = (await openNeeds()).slice(0, 4).map((n) => ({ ...n, packs: String(1 + upTo(3)) }));
    return needs.length > 0 ? run(req({ needs }), (r) => acceptNeeds(books.deps, otto, r)) : null;
  },
  aside: async () => {
    const [need] = await books.rows<{ needId: number; fingerprint: string }>(
      "SELECT id AS needId, fingerprint FROM need WHERE state = 'open' AND peg_of = 'pair' ORDER BY id DESC LIMIT 1",
    );
    const asked = {
      kind: random() < 0.5 ? ('put_off' as const) : ('leave_out' as const),
      until: '+9',
      reason: 'not now',
    };
    return need ? run(req({ needs: [need], ...asked }), (r) => setAside(books.deps, otto, r)) : null;
  },
  byHand: async () => {
    const at = { itemId: 1 + upTo(20), locationId: 1 + upTo(3), packId: null, note: '' };
    return run(req({ ...at, quantity: String(1 + upTo(30)) }), (r) => askByHand(books.deps, otto, r));
  },
  takeBack: async () => {
    const line = one(
      await books.rows<{ trayLineId: number }>(
        "SELECT id AS trayLineId FROM tray_line WHERE state = 'in_tray' ORDER BY id",
      ),
    );
    return line ? run(req(line), (r) => takeBack(books.deps, otto, r)) : null;
  },
  topUp: async () => {
    const tray = one(
      await books.rows<{ id: number }>(
        "SELECT DISTINCT supplier_id AS id FROM tray_line WHERE state = 'in_tray' ORDER BY 1",
      ),
    );
    const asked = { supplierId: tray?.id ?? 0, target: 'minimum' as const };
    const found = tray ? must(await readTopUp(books.deps, otto, asked)) : null;
    return found ? run(req({ ...asked, amount: found.amount }), (r) => topUpTray(books.deps, otto, r)) : null;
  },
  make: async () => {
    const trays = await books.rows<{ id: number }>(
      "SELECT DISTINCT supplier_id AS id FROM tray_line WHERE state = 'in_tray' ORDER BY 1",
    );
    const supplierIds = trays.map((t) => t.id);
    return supplierIds.length > 0 ? run(req({ supplierIds }), (r) => makeOrders(books.deps, otto, r)) : null;
  },
  approve: async () => {
    const draft = one(await ordersIn("'draft'"));
    return draft ? run(req(draft), (r) => approveOrder(books.deps, otto, r)) : null;
  },
  putBack: async () => {
    const draft = one(await ordersIn("'draft', 'approved'"));
    return draft ? run(req(draft), (r) => putBackOrder(books.deps, otto, r)) : null;
  },
  receive: async () => {
    const part = one(await parts(false));
    return part ? run(goods(part), (r) => receiveGoods(books.deps, otto, r)) : null;
  },
  dispatch: async () => {
    const part = one(await parts(true));
    return part ? run(goods(part), (r) => confirmDispatch(books.deps, otto, r)) : null;
  },
  cancelCustomer: async () => {
    const open = one(
      await books.rows<{ orderId: number; version: number }>(
        "SELECT id AS orderId, version FROM customer_order WHERE state = 'open' ORDER BY id",
      ),
    );
    return open ? run(req({ ...open, lines: 'all' as const }), (r) => cancelCustomerLines(books.deps, otto, r)) : null;
  },
};

/** A customer now and then, some of them served straight. */
async function customer(): Promise<void> {
  const way = random() < 0.6 ? ('straight' as const) : ('collect' as const);
  const line = { itemId: 1 + upTo(20), packId: null, quantity: String(1 + upTo(40)), locationId: 1 + upTo(3), way };
  await enterCustomerOrder(
    books.deps,
    otto,
    req({
      ...{ customerId: null, customer: { name: `Customer ${upTo(9)}`, mail: '', phone: '', address: '' } },
      ...{ channel: 'counter' as const, reference: '', delivers: null, priority: null, note: '' },
      lines: [{ ...line, wantedDate: '+5', shipBy: '', holdUntil: '' }],
    }),
  );
}

test('undo restores the books exactly, whatever was done and whatever the books', async () => {
  const names = Object.keys(commands);
  const undone: Record<string, number> = {};
  for (let n = 0; n < 90; n += 1) {
    if (n % 6 === 0) await customer();
    const name = names[n % names.length] as string;
    const before = await picture();
    const done = await commands[name]?.();
    if (!done?.ok) {
      // What is refused changes nothing.
      expect({ name, n, books: await picture() }).toEqual({ name, n, books: before });
      continue;
    }
    must(await undoCommand(books.deps, otto, req({ undoKey: done.key })));
    expect({ name, n, books: await picture() }).toEqual({ name, n, books: before });
    undone[name] = (undone[name] ?? 0) + 1;
    // On from other books.
    if (random() < 0.7) await commands[name]?.();
  }
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
  // Every command was really done and undone.
  expect(names.filter((k) => (undone[k] ?? 0) < 1)).toEqual([]);
});
