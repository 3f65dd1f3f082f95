import { ok } from '@/core/result';
import { markDirty, peekDirty } from '@/data/repositories/marks';
import { readSnapshot, write } from '@/data/transaction';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { beginDay, bringUpToDate, fullNeedRun, markChanged, recomputeDirty } from '@/services/planning/recompute';
import { takeBack } from '@/services/planning/takeBack';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { postMovements } from '@/services/stock/postMovements';
import { readArrivals } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { seeded } from '../../scripts/demoData/random';
import {
  type Books,
  cellsOf,
  freshBooks,
  mira,
  must,
  needOf,
  needsOf,
  otto,
  req,
  setMinMax,
  violations,
} from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(() => books.close());

const sell = (itemId: number, locationId: number, quantity: number) =>
  write(books.deps.pool, async (tx) => {
    const document = { kind: 'sales_day' as const, id: null, line: null };
    const sale = {
      itemId,
      locationId,
      kind: 'sale' as const,
      businessDate: '2026-11-23',
      quantity: -quantity,
      value: null,
      document,
    };
    return postMovements(tx, null, '2026-11-23 10:00:00', '2026-11-23', [sale]);
  });

const stored = () => books.rows('SELECT * FROM item_location_state ORDER BY item_id, location_id');

const recomputeOf = async (itemId: number) => {
  const pairs = [1, 2, 3, 4].map((locationId) => ({ itemId, locationId }));
  await write(books.deps.pool, async (tx) => ok(markDirty(tx, pairs)));
  await recomputeDirty(books.deps, 200);
};

/** Everything computed afresh, for comparison column by column. */
async function compareWithFullRun() {
  const before = await stored();
  await books.owner.query('DELETE FROM item_location_state');
  const { pairs, changed } = await fullNeedRun(books.deps);
  expect(changed).toBe(pairs);
  expect(await stored()).toEqual(before);
}

describe('stored needs', () => {
  test('after any sequence of events the incremental state equals a full run in every column', async () => {
    const random = seeded(7);
    const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
    const events = {
      sell: async () => {
        await sell(1 + Math.floor(random() * 80), 1 + Math.floor(random() * 4), Math.ceil(random() * 30) * 1_000_000);
        await recomputeDirty(books.deps, 200);
      },
      accept: async () => {
        const need = pick((await needsOf(books, mira)).needs.filter((n) => n.supplierId));
        if (!need) return;
        const packs = String(Math.max(1, Math.ceil((need.packs / 1_000_000) * random())));
        await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs }));
      },
      takeBack: async () => {
        const line = pick(await books.rows<{ id: number }>("SELECT id FROM tray_line WHERE state = 'in_tray'"));
        if (line) await takeBack(books.deps, mira, req({ trayLineId: line.id }));
      },
      policy: async () => {
        const row = pick(
          await books.rows<{ itemId: number; locationId: number | null }>(
            'SELECT item_id AS itemId, location_id AS locationId FROM policy',
          ),
        );
        const min = Math.floor(random() * 60);
        if (!row) return;
        const was = await cellsOf(books, row.itemId, row.locationId);
        must(await setMinMax(books.deps, mira, req({ ...row, min: random() < 0.1 ? '' : String(min), max: '', was })));
      },
      make: async () => {
        await makeOrders(books.deps, mira, req({ supplierIds: [1 + Math.floor(random() * 8)] }));
      },
      edit: async () => {
        const part = pick(
          await books.rows<{ partId: number; orderId: number; packs: string }>(
            `SELECT d.id AS partId, o.id AS orderId, d.pack_quantity AS packs FROM purchase_order o JOIN order_line l ON l.order_id = o.id
               JOIN delivery_part d ON d.order_line_id = l.id WHERE o.state = 'draft'`,
          ),
        );
        if (!part) return;
        const { orderId, partId } = part;
        const now = String(1 + Math.floor(random() * 9));
        await editOrder(
          books.deps,
          mira,
          req({ orderId, partId, field: 'packs' as const, was: String(Number(part.packs)), now }),
        );
        if (random() < 0.5)
          await editOrder(
            books.deps,
            mira,
            req({ orderId, partId, field: 'wantedDate' as const, was: '2026-12-01', now: '+200' }),
          );
      },
      decide: async () => {
        const order = pick(await books.rows<{ id: number }>("SELECT id FROM purchase_order WHERE state = 'draft'"));
        if (!order) return;
        const { head } = must(await readOrder(books.deps, otto, order.id));
        const request = req({ orderId: order.id, version: head.version });
        await (random() < 0.6 ? approveOrder(books.deps, otto, request) : putBackOrder(books.deps, otto, request));
      },
      receive: async () => {
        const arrival = pick(must(await readArrivals(books.deps, otto, { locationId: null })).arrivals);
        if (!arrival) return;
        const counted = arrival.lines.map((l) => ({
          partId: l.partId,
          quantity: String(Math.floor(random() * 8)),
          unit: 'pack' as const,
        }));
        await receiveGoods(
          books.deps,
          otto,
          req({
            orderId: arrival.orderId,
            locationId: arrival.locationId,
            deliveryNote: '',
            businessDate: '',
            counted,
          }),
        );
      },
    };
    const kinds = Object.keys(events) as (keyof typeof events)[];
    for (let n = 1; n <= 200; n += 1) {
      await events[pick(kinds) as keyof typeof events]();
      if (n % 25 === 0) {
        expect((await markChanged(books.deps)).changed).toBe(0);
        await compareWithFullRun();
        expect(await violations(books)).toEqual([]);
      }
    }
  });

  test('a need accepted smaller than suggested stays away until the shortage has grown by a pack', async () => {
    const need = await needOf(books, '10412-03', 'WY');
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '1' })));
    expect((await needOf(books, '10412-03', 'WY')).state).toBe('decided');
    await sell(need.itemId, need.locationId, 9_000_000);
    await recomputeDirty(books.deps, 200);
    expect((await needOf(books, '10412-03', 'WY')).state).toBe('decided');
    await sell(need.itemId, need.locationId, 1_000_000);
    await recomputeDirty(books.deps, 200);
    const back = await needOf(books, '10412-03', 'WY');
    expect(back.state).toBe('open');
    // What was accepted still counts: 124 + 10 sold − 10 in the tray.
    expect(back.shortage).toBe('124.000000');
  });

  test('a mark left behind by a crash is taken by the next look', async () => {
    const need = await needOf(books, '10412-11', 'HS');
    await sell(need.itemId, need.locationId, 5_000_000);
    expect((await needOf(books, '10412-11', 'HS')).shortage).toBe(need.shortage);
    await needsOf(books, mira);
    expect((await needOf(books, '10412-11', 'HS')).shortage).toBe('81.000000');
    expect(await readSnapshot(books.deps.pool, (tx) => peekDirty(tx, 10))).toEqual([]);
  });

  test('a full run marks exactly the pairs whose stored state is missing, wrong, or whose stock changed places', async () => {
    const of = (item: number, place: number) => `WHERE item_id = ${item} AND location_id = ${place}`;
    await books.owner.query(`DELETE FROM item_location_state ${of(2, 3)}`);
    await books.owner.query(`UPDATE item_location_state SET fingerprint = fingerprint + 1 ${of(5, 1)}`);
    await books.owner.query(
      `UPDATE level SET on_hand = IF(location_id = 1, 41, 43) WHERE item_id = 9 AND location_id < 3`,
    );
    await recomputeOf(9);
    await books.owner.query(
      `UPDATE level SET on_hand = IF(location_id = 1, 43, 41) WHERE item_id = 9 AND location_id < 3`,
    );
    expect((await markChanged(books.deps)).changed).toBe(4);
    const marked = await readSnapshot(books.deps.pool, (tx) => peekDirty(tx, 10));
    expect(marked.map((p) => [p.itemId, p.locationId])).toEqual([
      [2, 3],
      [5, 1],
      [9, 1],
      [9, 2],
    ]);
  });

  test('a mark set while another recomputation is under way is not lost', async () => {
    const pair = { itemId: 1, locationId: 1 };
    await Promise.all(
      Array.from({ length: 12 }, async (_, i) => {
        await sell(pair.itemId, pair.locationId, (i + 1) * 1_000_000);
        await recomputeDirty(books.deps, 200);
      }),
    );
    await recomputeDirty(books.deps, 200);
    expect((await markChanged(books.deps)).changed).toBe(0);
  });

  test('a new day moves the horizon: a part wanted later comes into reach', async () => {
    const part = await books.one<{ id: number }>(
      `SELECT d.id FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id JOIN item i ON i.id = l.item_id
        JOIN location p ON p.id = d.location_id WHERE i.number = '10412-07' AND p.code = 'HS' AND d.received_quantity = 0`,
    );
    await books.owner.query("UPDATE delivery_part SET wanted_date = '2026-12-08' WHERE id = ?", [part.id]);
    await write(books.deps.pool, async (tx) => ok(markDirty(tx, [await needOf(books, '10412-07', 'HS')])));
    await recomputeDirty(books.deps, 200);
    expect((await needOf(books, '10412-07', 'HS')).shortage).toBe('64.000000');
    const keys = () => books.rows("SELECT 1 FROM idempotency_key WHERE created_at < '2026-10-31'");
    expect((await keys()).length).toBeGreaterThan(0);
    const attempts = () => books.rows('SELECT login FROM sign_in_attempt');
    await books.owner.query(
      "INSERT INTO sign_in_attempt (login, address, at) VALUES ('old', '::1', '2026-10-20'), ('new', '::1', '2026-11-29')",
    );
    books.deps.setClock('2026-11-30T09:00:00Z');
    await bringUpToDate(books.deps);
    expect((await needOf(books, '10412-07', 'HS')).shortage).toBe('54.000000');
    await beginDay(books.deps);
    expect(await keys()).toEqual([]);
    expect(await attempts()).toEqual([{ login: 'new' }]);
    expect((await needOf(books, '10412-07', 'HS')).shortage).toBe('54.000000');
  });
});
