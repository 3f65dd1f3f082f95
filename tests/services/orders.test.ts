import type { Actor } from '@/core/people';
import type { OrderAction, OrderState } from '@/core/purchase';
import type { Result } from '@/core/result';
import type { Failure } from '@/services/failure';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { amendOrder, dropAmendment } from '@/services/purchase/amendOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { askApproval, refuseOrder, withdrawOrder } from '@/services/purchase/askApproval';
import { confirmOrder } from '@/services/purchase/confirmOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { cancelOrder, closeOrder, cutSupply, openOrderAgain } from '@/services/purchase/endOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import type { OrderEdit } from '@/services/purchase/orderCell';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { setTray } from '@/services/purchase/setTray';
import { receiveGoods } from '@/services/stock/receiveGoods';
import {
  type Books,
  cellsOf,
  edda,
  freshBooks,
  jun,
  mira,
  must,
  needOf,
  otto,
  req,
  setMinMax,
  violations,
} from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

const view = async (orderId: number) => must(await readOrder(books.deps, otto, orderId));
const withVersion = async (orderId: number) => req({ orderId, version: (await view(orderId)).head.version });
/** The same with more. */
const asked = async <M extends object>(orderId: number, more: M) => {
  const { key, input } = await withVersion(orderId);
  return { key, input: { ...input, ...more } };
};
const edit = (input: OrderEdit, actor = mira) => editOrder(books.deps, actor, req(input));

let raised = 1000;

/** A draft with two lines from Hollinmere; what an earlier test left in the trays is taken along. */
async function draft(): Promise<number> {
  for (const [number, code, packs] of [
    ['10412-07', 'HS', '6'],
    ['10688-02', 'HS', '6'],
  ] as const) {
    let need = await needOf(books, number, code);
    const { n: waiting } = await books.one<{ n: number }>(
      "SELECT COUNT(*) AS n FROM tray_line WHERE state = 'in_tray' AND item_id = ?",
      [need.itemId],
    );
    if (waiting > 0) continue;
    if (need.state !== 'open') {
      // Bought already: a higher minimum makes it short again.
      raised += 1000;
      const cell = { itemId: need.itemId, locationId: need.locationId, min: String(raised), max: String(raised) };
      const was = await cellsOf(books, need.itemId, need.locationId);
      must(await setMinMax(books.deps, mira, req({ ...cell, was })));
      need = await needOf(books, number, code);
    }
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs })));
  }
  // Not onto a draft that an earlier test has opened again.
  must(await setTray(books.deps, mira, req({ supplierId: 1, held: false, becomes: 'new' as const, orderId: null })));
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
  return made?.orderId ?? 0;
}

/** Restoring is the undoing of a put back (undo.test.ts). */
type Action = Exclude<OrderAction, 'restore'>;
type Act = (id: number, actor?: Actor) => Promise<Result<unknown, Failure>>;
const reason = { reason: 'said on the phone' };
const actions: Record<Action, Act> = {
  edit: async (id, actor = mira) => {
    const order = await view(id);
    const part = order.lines[0]?.parts[0];
    const was = part?.wantedDate ?? '';
    const now = was === '2026-12-10' ? '2026-12-11' : '2026-12-10';
    return edit({ orderId: id, field: 'wantedDate', partId: part?.id ?? 0, was, now }, actor);
  },
  ask: async (id, actor = mira) => askApproval(books.deps, actor, await asked(id, { userId: null, note: '' })),
  withdraw: async (id, actor = mira) => withdrawOrder(books.deps, actor, await withVersion(id)),
  refuse: async (id, actor = mira) => refuseOrder(books.deps, actor, await asked(id, reason)),
  approve: async (id, actor = mira) => approveOrder(books.deps, actor, await withVersion(id)),
  reopen: async (id, actor = mira) => reopenOrder(books.deps, actor, await withVersion(id)),
  send: async (id, actor = mira) => sendOrder(books.deps, actor, await asked(id, { how: 'printed' as const })),
  confirm: async (id, actor = mira) =>
    confirmOrder(books.deps, actor, await asked(id, { reference: '', parts: [], prices: [] })),
  receive: async (id, actor = mira) => {
    const part = (await view(id)).lines[0]?.parts[0];
    const counted = [{ partId: part?.id ?? 0, quantity: '1', unit: 'pack' as const }];
    const input = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted };
    return receiveGoods(books.deps, actor, req(input));
  },
  amend: async (id, actor = mira) => amendOrder(books.deps, actor, await withVersion(id)),
  drop_amendment: async (id, actor = mira) => dropAmendment(books.deps, actor, await withVersion(id)),
  cut: async (id, actor = mira) =>
    cutSupply(
      books.deps,
      actor,
      await asked(id, { ...reason, partId: null, lineId: (await view(id)).lines[0]?.id ?? 0 }),
    ),
  cancel: async (id, actor = mira) => cancelOrder(books.deps, actor, await asked(id, reason)),
  close: async (id, actor = mira) => closeOrder(books.deps, actor, await asked(id, reason)),
  open_again: async (id, actor = mira) => openOrderAgain(books.deps, actor, await withVersion(id)),
  put_back: async (id, actor = mira) => putBackOrder(books.deps, actor, await withVersion(id)),
};

// Each path is what leads to the state; then every action is tried in it, through the services on the database, first by
// everybody who may not.
const paths: Record<OrderState, Action[]> = {
  draft: [],
  awaiting: ['ask'],
  approved: ['approve'],
  sent: ['approve', 'send'],
  confirmed: ['approve', 'send', 'confirm'],
  amending: ['approve', 'send', 'amend'],
  amendment_awaiting: ['approve', 'send', 'amend', 'edit', 'ask'],
  closed: ['approve', 'send', 'close'],
  put_back: ['put_back'],
  cancelled: ['approve', 'put_back'],
};
const allowed: Record<OrderState, Action[]> = {
  draft: ['edit', 'ask', 'approve', 'put_back'],
  awaiting: ['withdraw', 'refuse', 'approve'],
  // Never sent: it is opened for editing or put back; changes and cancellations are told to a supplier.
  approved: ['reopen', 'send', 'receive', 'put_back'],
  sent: ['confirm', 'receive', 'amend', 'cut', 'cancel', 'close'],
  confirmed: ['confirm', 'receive', 'amend', 'cut', 'cancel', 'close'],
  amending: ['edit', 'ask', 'approve', 'receive', 'drop_amendment'],
  amendment_awaiting: ['withdraw', 'refuse', 'approve', 'receive'],
  closed: ['open_again'],
  put_back: [],
  cancelled: [],
};
/** Who may do what: everything is the buyer's and the owner's; goods are booked in by shops too, for their own place. */
const roles: readonly (readonly [Actor, readonly Action[]])[] = [
  [jun, []],
  [edda, []],
  [{ ...jun, locations: [1] }, ['receive']],
  [otto, Object.keys(actions) as Action[]],
  [mira, Object.keys(actions) as Action[]],
];

describe('transitions', () => {
  const table = (Object.keys(paths) as OrderState[]).flatMap((s) =>
    (Object.keys(actions) as Action[]).map((a) => [s, a] as const),
  );
  test.each(table)('%s: %s', async (state, action) => {
    const id = await draft();
    for (const step of paths[state]) must(await actions[step](id));
    const before = await view(id);
    expect(before.head.state).toBe(state);
    for (const [actor, may] of roles.filter(([, may]) => !may.includes(action))) {
      expect(may).not.toContain(action);
      expect(await actions[action](id, actor)).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    }
    expect((await view(id)).head).toEqual(before.head);
    const fits = allowed[state].includes(action);
    expect(before.can.includes(action)).toBe(fits);
    const result = await actions[action](id, fits ? roles.at(-1)?.[0] : otto);
    if (fits) must(result);
    else expect(result).toMatchObject({ ok: false, error: { kind: 'not_in_this_state', state, action } });
    const now = (await view(id)).head.state;
    // Leave the trays full again for the next case: what was not received goes back, or is brought in whole.
    if (now === 'draft' || (now === 'approved' && state !== 'amending' && state !== 'amendment_awaiting'))
      await actions.put_back(id);
  });

  test('all of it left the books sound', async () => expect(await violations(books)).toEqual([]));
});

describe('putting back', () => {
  let fresh: Books;
  beforeAll(async () => {
    fresh = books;
    books = await freshBooks();
  });
  afterAll(async () => {
    await books.close();
    books = fresh;
  });

  test('a draft goes back into its trays with the quantities it has now, and draws no number', async () => {
    const id = await draft();
    const part = (await view(id)).lines[0]?.parts[0];
    must(await edit({ orderId: id, field: 'packs', partId: part?.id ?? 0, was: '6', now: '5' }));
    expect(must(await actions.put_back(id))).toEqual({ lines: 2 });
    expect(await books.one('SELECT state, number FROM purchase_order WHERE id = ?', [id])).toEqual({
      state: 'put_back',
      number: null,
    });
    expect(
      await books.rows("SELECT pack_quantity AS packs FROM tray_line WHERE state = 'in_tray' ORDER BY id"),
    ).toEqual([{ packs: '5.000000' }, { packs: '6.000000' }]);
    expect((await needOf(books, '10412-07', 'HS')).state).toBe('none');
    expect(await violations(books)).toEqual([]);
  });

  test('opened again after approval it keeps its number; put back then it is cancelled with it', async () => {
    const id = await draft();
    const { number } = must(await approveOrder(books.deps, mira, await withVersion(id)));
    must(await actions.reopen(id));
    expect((await view(id)).head).toMatchObject({ state: 'draft', number });
    expect(must(await approveOrder(books.deps, mira, await withVersion(id)))).toEqual({ number });
    must(await actions.put_back(id));
    expect((await view(id)).head).toMatchObject({ state: 'cancelled', number });
    expect(await violations(books)).toEqual([]);
  });

  test('one line goes back to its tray, the rest stays', async () => {
    const id = await draft();
    const line = (await view(id)).lines[1];
    must(await edit({ orderId: id, field: 'remove', lineId: line?.id ?? 0, was: '' }));
    expect((await view(id)).lines).toHaveLength(1);
    expect(await books.rows("SELECT COUNT(*) AS n FROM tray_line WHERE state = 'in_tray'")).toEqual([{ n: 1 }]);
    expect(await violations(books)).toEqual([]);
    must(await actions.put_back(id));
  });

  test('a line that was entered by hand is removed, not promised to a tray', async () => {
    const { lines } = await view(7);
    expect(lines.map((l) => l.fromTray)).toEqual([false, false]);
    must(await actions.reopen(7));
    must(await edit({ orderId: 7, field: 'remove', lineId: lines[1]?.id ?? 0, was: '' }));
    const { history, lines: rest } = await view(7);
    expect(rest).toHaveLength(1);
    expect(history.at(-1)?.action).toBe('line 2: removed');
    expect(await violations(books)).toEqual([]);
  });

  describe('two people in one order', () => {
    test('changes that do not touch are both kept; those that do are shown', async () => {
      const id = await draft();
      const order = await view(id);
      const [first, second] = order.lines;
      const part = first?.parts[0];
      const results = await Promise.all([
        edit({ orderId: id, field: 'packs', partId: part?.id ?? 0, was: '5', now: '7' }, mira),
        edit({ orderId: id, field: 'price', lineId: second?.id ?? 0, was: '24.75', now: '24,10' }, otto),
      ]);
      results.forEach(must);
      const after = await view(id);
      expect(after.lines[0]?.packs).toBe(7_000_000);
      expect(after.lines[1]?.price).toBe('24.1');
      expect(
        await edit({ orderId: id, field: 'packs', partId: part?.id ?? 0, was: '5', now: '9' }, otto),
      ).toMatchObject({
        error: { kind: 'changed_meanwhile', what: 'value', now: '7' },
      });
      expect((await view(id)).lines[0]?.packs).toBe(7_000_000);
      must(await actions.put_back(id));
    });

    test('an order that changed after it was read is not approved unread', async () => {
      const id = await draft();
      const stale = await withVersion(id);
      must(await actions.edit(id));
      expect(await approveOrder(books.deps, otto, stale)).toMatchObject({
        error: { kind: 'changed_meanwhile', what: 'order', who: 'Mira Rook' },
      });
      must(await actions.put_back(id));
    });
  });

  describe('approval', () => {
    test('a line has the latest edition, unless another is typed, and the item’s note beside it; the edition goes with the mail', async () => {
      await books.owner.query(
        "UPDATE item SET edition = '2nd edition', buyer_note = 'Ask for one dye lot.' WHERE number = '10412-07'",
      );
      const id = await draft();
      const line = (await view(id)).lines.find((l) => l.itemNumber === '10412-07');
      expect([line?.edition, line?.buyerNote]).toEqual(['2nd edition', 'Ask for one dye lot.']);
      const lineId = line?.id ?? 0;
      const change = { orderId: id, field: 'edition' as const, lineId, was: '2nd edition', now: '1st edition' };
      must(await edit(change));
      expect(await edit({ ...change, now: '3rd' })).toMatchObject({
        error: { kind: 'changed_meanwhile', what: 'value', now: '1st edition' },
      });
      must(await actions.approve(id));
      const { key, input } = await withVersion(id);
      must(await sendOrder(books.deps, mira, { key, input: { ...input, how: 'email' } }));
      const { body } = await books.one<{ body: string }>('SELECT body FROM outbox_mail ORDER BY id DESC LIMIT 1');
      expect(body).toMatch(/moss\n {3}Edition 1st edition\n/);
      expect(body).not.toContain('dye lot');
      expect((await view(id)).lines.find((l) => l.id === lineId)?.edition).toBe('1st edition');
      await books.owner.query("UPDATE item SET edition = '', buyer_note = '' WHERE number = '10412-07'");
    });

    test('not without a price, unless the line is free of charge', async () => {
      const need = await needOf(books, '40950-01', 'OM');
      must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '4' })));
      const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [4] })));
      const id = made?.orderId ?? 0;
      expect(await actions.approve(id)).toMatchObject({
        error: { kind: 'not_ready', findings: [{ kind: 'price_missing', lineNo: 1 }] },
      });
      const lineId = (await view(id)).lines[0]?.id ?? 0;
      expect(await edit({ orderId: id, field: 'price', lineId, was: '', now: 'cheap' })).toMatchObject({
        error: { fault: { kind: 'not_a_price' } },
      });
      must(await edit({ orderId: id, field: 'freeOfCharge', lineId, was: 'false', now: 'true' }));
      must(await actions.approve(id));
      expect((await view(id)).net).toBe(0);
    });

    test('above the limit it is the owner’s', async () => {
      const id = await draft();
      const line = (await view(id)).lines[0];
      must(await edit({ orderId: id, field: 'price', lineId: line?.id ?? 0, was: line?.price ?? '', now: '999' }));
      expect(await actions.approve(id)).toEqual({
        ok: false,
        error: { kind: 'above_limit', limit: 250_000, currency: 'EUR' },
      });
      must(await approveOrder(books.deps, otto, await withVersion(id)));
    });
  });
});
