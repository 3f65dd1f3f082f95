import type { Actor } from '@/core/people';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { markChanged } from '@/services/planning/recompute';
import { takeBack } from '@/services/planning/takeBack';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, cellsOf, freshBooks, mira, must, needOf, otto, req, setMinMax, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

const undo = (key: string, actor: Actor = mira) => undoCommand(books.deps, actor, req({ undoKey: key }));
const need = () => needOf(books, '10412-07', 'HS');
async function accept(packs = '6') {
  const n = await need();
  const request = req({ needId: n.id, fingerprint: n.fingerprint, packs });
  must(await acceptNeed(books.deps, mira, request));
  const line = await books.one<{ id: number }>("SELECT MAX(id) AS id FROM tray_line WHERE state = 'in_tray'");
  return { key: request.key, trayLineId: line.id };
}
async function make() {
  const request = req({ supplierIds: [1] });
  const [made] = must(await makeOrders(books.deps, mira, request));
  return { key: request.key, orderId: made?.orderId ?? 0 };
}
const head = async (orderId: number) => must(await readOrder(books.deps, otto, orderId)).head;
const versioned = async (orderId: number) => req({ orderId, version: (await head(orderId)).version });
const inTray = async () => (await books.rows("SELECT id FROM tray_line WHERE state = 'in_tray'")).length;

describe('undo', () => {
  test('an accepted need is open again; a second time, and by somebody else, it is refused', async () => {
    const before = await need();
    const { key } = await accept();
    expect((await need()).state).toBe('none');
    expect(await undo(key, otto)).toMatchObject({ error: { kind: 'not_undoable', because: 'unknown' } });
    expect(must(await undo(key))).toEqual({ undone: 'accept-need' });
    expect(await need()).toMatchObject({ state: 'open', suggested: before.suggested });
    expect(await inTray()).toBe(0);
    expect(await undo(key)).toMatchObject({ error: { kind: 'not_undoable', because: 'already_undone' } });
  });

  test('what was taken back is in its tray again', async () => {
    const { trayLineId } = await accept();
    const request = req({ trayLineId });
    must(await takeBack(books.deps, mira, request));
    expect((await need()).state).toBe('open');
    must(await undo(request.key));
    expect((await need()).state).toBe('none');
    must(await takeBack(books.deps, mira, req({ trayLineId })));
  });

  test('orders made go back into their trays; approved ones are cancelled with their number', async () => {
    await accept();
    const first = await make();
    must(await undo(first.key));
    expect(await head(first.orderId)).toMatchObject({ state: 'put_back', number: null });
    expect(await inTray()).toBe(1);
    const second = await make();
    const { number } = must(await approveOrder(books.deps, mira, await versioned(second.orderId)));
    must(await undo(second.key));
    expect(await head(second.orderId)).toMatchObject({ state: 'cancelled', number });
    expect(await inTray()).toBe(1);
  });

  test('an approval, and a put back, are taken back', async () => {
    const { orderId } = await make();
    const approval = await versioned(orderId);
    must(await approveOrder(books.deps, mira, approval));
    must(await undo(approval.key));
    expect(await head(orderId)).toMatchObject({ state: 'draft' });
    must(await approveOrder(books.deps, mira, await versioned(orderId)));
    const putBack = await versioned(orderId);
    must(await putBackOrder(books.deps, mira, putBack));
    expect(await inTray()).toBe(1);
    must(await undo(putBack.key));
    expect(await head(orderId)).toMatchObject({ state: 'approved' });
    expect(await inTray()).toBe(0);
    must(await putBackOrder(books.deps, mira, await versioned(orderId)));
  });

  test('refused whole when somebody else has touched one of the orders since; who and what is said', async () => {
    const extra = await needOf(books, '22290-01', 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: extra.id, fingerprint: extra.fingerprint, packs: '3' })));
    const suppliers = await books.rows<{ id: number }>(
      "SELECT DISTINCT supplier_id AS id FROM tray_line WHERE state = 'in_tray'",
    );
    const request = req({ supplierIds: suppliers.map((s) => s.id) });
    const made = must(await makeOrders(books.deps, mira, request));
    expect(made.length).toBeGreaterThan(1);
    const touched = made.at(-1)?.orderId ?? 0;
    const part = must(await readOrder(books.deps, otto, touched)).lines[0]?.parts[0];
    const edit = {
      orderId: touched,
      field: 'wantedDate' as const,
      partId: part?.id ?? 0,
      was: part?.wantedDate ?? '',
      now: '2026-12-17',
    };
    must(await editOrder(books.deps, otto, req(edit)));
    expect(await undo(request.key)).toMatchObject({
      error: { kind: 'touched_since', who: 'Otto Quillon', action: 'line 1: wanted date' },
    });
    for (const m of made) expect((await head(m.orderId)).state).toBe('draft');
    for (const m of made) must(await putBackOrder(books.deps, otto, await versioned(m.orderId)));
  });

  test('somebody else has ordered what was accepted: said, and it stays ordered', async () => {
    const short = await needOf(books, '10530-03', 'MH');
    const request = req({ needId: short.id, fingerprint: short.fingerprint, packs: '3' });
    must(await acceptNeed(books.deps, mira, request));
    const { supplierId } = await books.one<{ supplierId: number }>(
      "SELECT supplier_id AS supplierId FROM tray_line WHERE state = 'in_tray' ORDER BY id DESC LIMIT 1",
    );
    const [made] = must(await makeOrders(books.deps, otto, req({ supplierIds: [supplierId] })));
    expect(await undo(request.key)).toMatchObject({
      error: { kind: 'touched_since', who: 'Otto Quillon', action: 'ordered' },
    });
    expect((await head(made?.orderId ?? 0)).state).toBe('draft');
  });

  test('what one has gone on with oneself is gone on with', async () => {
    const { key, orderId } = await make();
    const approved = await versioned(orderId);
    must(await approveOrder(books.deps, mira, approved));
    const { key: sendKey, input } = await versioned(orderId);
    must(await sendOrder(books.deps, mira, { key: sendKey, input: { ...input, how: 'phone' as const } }));
    expect(await undo(key)).toMatchObject({ error: { kind: 'not_in_this_state', state: 'sent' } });
    expect(await undo(approved.key)).toMatchObject({ error: { kind: 'not_in_this_state' } });
    expect(await undo(sendKey)).toMatchObject({ error: { kind: 'not_undoable', because: 'unknown' } });
  });

  test('a cell of a draft, and min and max, get their old value; not over what somebody else has set', async () => {
    const other = await needOf(books, '10688-02', 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: other.id, fingerprint: other.fingerprint, packs: '4' })));
    const { orderId } = await make();
    const part = must(await readOrder(books.deps, mira, orderId)).lines[0]?.parts[0];
    const packs = async () => must(await readOrder(books.deps, mira, orderId)).lines[0]?.packs;
    const cell = { orderId, partId: part?.id ?? 0, field: 'packs' as const };
    const edit = req({ ...cell, was: '4', now: ' 7 ' });
    must(await editOrder(books.deps, mira, edit));
    expect(await packs()).toBe(7_000_000);
    must(await undo(edit.key));
    expect(await packs()).toBe(4_000_000);
    const again = req({ ...cell, was: '4', now: '8' });
    must(await editOrder(books.deps, mira, again));
    must(await editOrder(books.deps, otto, req({ ...cell, was: '8', now: '9' })));
    expect(await undo(again.key)).toMatchObject({ error: { kind: 'touched_since', who: 'Otto Quillon' } });
    expect(await packs()).toBe(9_000_000);

    const was = await cellsOf(books, 1, 1);
    const set = (min: string, seen: typeof was) => req({ itemId: 1, locationId: 1, min, max: '', was: seen });
    const own = set('77', was);
    must(await setMinMax(books.deps, mira, own));
    must(await undo(own.key));
    expect(await cellsOf(books, 1, 1)).toEqual(was);
    const mine = set('78', was);
    must(await setMinMax(books.deps, mira, mine));
    must(await setMinMax(books.deps, otto, set('79', { min: '78', max: '' })));
    expect(await undo(mine.key)).toMatchObject({ error: { kind: 'touched_since', who: 'Otto Quillon' } });
    expect(await cellsOf(books, 1, 1)).toEqual({ min: '79', max: '' });
  });

  test('goods booked in are taken back as a reversal', async () => {
    const part = await books.one<{ id: number }>(
      'SELECT d.id FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id WHERE l.order_id = 7 AND d.location_id = 1',
    );
    const counted = [{ partId: part.id, quantity: '1', unit: 'pack' as const }];
    const request = req({ orderId: 7, locationId: 1, deliveryNote: '', businessDate: '', counted });
    must(await receiveGoods(books.deps, mira, request));
    must(await undo(request.key));
    expect(await books.one('SELECT reason FROM receipt_reversal')).toEqual({ reason: 'undone' });
  });
});
