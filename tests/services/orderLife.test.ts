import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { addDays } from '@/core/calendar';
import { units } from '@/core/quantity';
import { orderPdf } from '@/formats/orderPdf';
import { sendWaitingMail } from '@/jobs/mail';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { amendOrder, dropAmendment } from '@/services/purchase/amendOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { askApproval, refuseOrder } from '@/services/purchase/askApproval';
import { type ConfirmOrder, confirmOrder } from '@/services/purchase/confirmOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { closeOrder, cutSupply, openOrderAgain } from '@/services/purchase/endOrder';
import { followUpOrder } from '@/services/purchase/followUp';
import { makeOrders } from '@/services/purchase/makeOrders';
import type { OrderEdit } from '@/services/purchase/orderCell';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { type OrderShow, openOrders, readOrderRows } from '@/services/purchase/readOrders';
import { openTrays } from '@/services/purchase/readTrays';
import { remindSupplier } from '@/services/purchase/remindSupplier';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { setTray } from '@/services/purchase/setTray';
import { splitPart, spreadPart } from '@/services/purchase/splitDeliveries';
import { tellColleague } from '@/services/purchase/tellColleague';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { undoCommand } from '@/services/undo/undoCommand';
import { retryMail } from '@/services/work/retryMail';
import { readMailbox, startMailbox } from '@/standins/mailbox';
import { pdfText } from '../files/pdf';
import { type Books, freshBooks, mira, must, needOf, otto, req, violations } from './support';

let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

const later = (seconds: number) =>
  books.deps.setClock(new Date(books.deps.clock().getTime() + seconds * 1000).toISOString());
const view = async (id: number) => must(await readOrder(books.deps, mira, id));
const asked = async <M extends object>(orderId: number, more: M) =>
  req({ orderId, version: (await view(orderId)).head.version, ...more });
const edit = (input: OrderEdit) => editOrder(books.deps, mira, req(input));

/** A draft from Hollinmere of 6 bags of moss and 6 of another yarn. */
async function draft(): Promise<number> {
  for (const number of ['10412-07', '10688-02']) {
    const need = await needOf(books, number, 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: need.id, fingerprint: need.fingerprint, packs: '6' })));
  }
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
  return made?.orderId ?? 0;
}
async function sent(): Promise<number> {
  const id = await draft();
  must(await approveOrder(books.deps, mira, await asked(id, {})));
  must(await sendOrder(books.deps, mira, await asked(id, { how: 'phone' as const, to: 'Ms Ferrow' })));
  return id;
}
const stateOf = async (number: string) =>
  books.one<{ onTheWay: string; inTrays: string; need: string }>(
    `SELECT on_the_way AS onTheWay, in_trays AS inTrays, need_state AS need FROM item_location_state s
       JOIN item i ON i.id = s.item_id WHERE i.number = ? AND s.location_id = 1`,
    [number],
  );
const firstPart = async (id: number) => {
  const part = (await view(id)).lines[0]?.parts[0];
  if (!part) throw new Error('no part');
  return part;
};

describe('approval', () => {
  test('a named person is asked by mail, and refuses with a reason', async () => {
    const id = await draft();
    const ask = await asked(id, { userId: otto.userId, note: 'before noon, please' });
    must(await askApproval(books.deps, mira, ask));
    expect((await view(id)).head).toMatchObject({ state: 'awaiting', askedBy: 'Mira Rook', asked: 'Otto Quillon' });
    const mail = await books.one<{ recipient: string; subject: string; body: string }>(
      'SELECT recipient, subject, body FROM outbox_mail',
    );
    expect(mail.recipient).toBe('otto@quillon.example');
    expect(mail.subject).toBe('Please approve: a draft to Hollinmere Spinners');
    expect(mail.body).toContain('before noon, please');
    expect((await view(id)).word).toEqual({ kind: 'asks', who: 'Mira Rook', text: 'before noon, please' });
    expect(await refuseOrder(books.deps, otto, await asked(id, { reason: ' ' }))).toMatchObject({
      error: { field: 'reason' },
    });
    must(await refuseOrder(books.deps, otto, await asked(id, { reason: 'we have too much wool' })));
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'draft', asked: null });
    expect(order.history.at(-1)).toMatchObject({ who: 'Otto Quillon', action: 'approval refused' });
    expect(order.word).toEqual({ kind: 'refused', who: 'Otto Quillon', text: 'we have too much wool' });
    // Why it was refused stands there until it is asked for again.
    must(await askApproval(books.deps, mira, await asked(id, { userId: null, note: '' })));
    expect((await view(id)).word).toBeNull();
  });

  test('whoever has no mail address is asked all the same, and can’t be told of it by mail', async () => {
    await books.rows("UPDATE app_user SET mail = '' WHERE login = 'otto'");
    const id = await draft();
    expect((await view(id)).approvers).toMatchObject([{ name: 'Otto Quillon', byMail: false }]);
    expect((await view(id)).colleagues.map((u) => u.name)).not.toContain('Otto Quillon');
    must(await askApproval(books.deps, mira, await asked(id, { userId: otto.userId, note: '' })));
    expect((await view(id)).head).toMatchObject({ state: 'awaiting', asked: 'Otto Quillon' });
    const tell = { orderId: id, userId: otto.userId, note: '' };
    expect(await tellColleague(books.deps, mira, req(tell))).toMatchObject({
      error: { kind: 'no_colleague_mail', name: 'Otto Quillon' },
    });
    expect(await books.rows('SELECT id FROM outbox_mail')).toEqual([]);
    await books.rows("UPDATE app_user SET mail = 'o@quillon.example' WHERE login = 'otto'");
    must(await tellColleague(books.deps, mira, req(tell)));
    expect(await books.rows('SELECT recipient FROM outbox_mail')).toEqual([{ recipient: 'o@quillon.example' }]);
  });

  test('somebody who may not approve it is not asked', async () => {
    const id = await draft();
    expect(await askApproval(books.deps, mira, await asked(id, { userId: 3, note: '' }))).toMatchObject({
      error: { kind: 'invalid_field', field: 'userId', fault: { kind: 'may_not_approve' } },
    });
  });

  test('four eyes: from the limit on somebody else approves than who entered it', async () => {
    await books.owner.query('UPDATE company SET four_eyes_from_minor = 10000');
    const id = await draft();
    expect(await approveOrder(books.deps, mira, await asked(id, {}))).toMatchObject({ error: { kind: 'four_eyes' } });
    expect((await view(id)).fourEyes).toBe(true);
    expect((await view(id)).approvers.map((u) => u.name)).toEqual(['Otto Quillon']);
    must(await approveOrder(books.deps, otto, await asked(id, {})));
  });
});

describe('sending', () => {
  test('a failed mail leaves the order approved; stopped, it can go another way; nothing is sent twice', async () => {
    const id = await draft();
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'email' as const })));
    expect(await sendOrder(books.deps, mira, await asked(id, { how: 'phone' as const }))).toMatchObject({
      error: { kind: 'not_in_this_state', because: 'mail_waits' },
    });
    await sendWaitingMail(books.deps, 'smtp://127.0.0.1:1');
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'approved', sending: 'waiting', sentAt: null });
    expect(order.head.sendingFault).toContain('ECONN');
    const mailId = order.head.sendingMailId ?? 0;
    must(await retryMail(books.deps, mira, req({ mailId, what: 'stop' as const })));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'portal' as const, to: '' })));
    expect((await view(id)).head).toMatchObject({ state: 'sent', sentHow: 'portal', sendingMailId: null });
    expect(await retryMail(books.deps, mira, req({ mailId, what: 'retry' as const }))).toMatchObject({
      error: { kind: 'mail_gone', state: 'overtaken' },
    });
    later(100_000);
    expect(await sendWaitingMail(books.deps, 'smtp://127.0.0.1:1')).toBe(0);
  });

  test('a mail that was stopped and is tried again takes the order to its supplier', async () => {
    const id = await draft();
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'email' as const })));
    const mailId = (await view(id)).head.sendingMailId ?? 0;
    must(await retryMail(books.deps, mira, req({ mailId, what: 'stop' as const })));
    must(await retryMail(books.deps, mira, req({ mailId, what: 'retry' as const })));
    const folder = mkdtempSync(join(tmpdir(), 'vorrat-mailbox-'));
    const mailbox = await startMailbox(folder, 0);
    expect(await sendWaitingMail(books.deps, `smtp://127.0.0.1:${mailbox.port}`)).toBe(1);
    await mailbox.close();
    expect(await readMailbox(folder, 10)).toHaveLength(1);
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'sent', sentHow: 'email', sending: null });
    expect(order.history.at(-1)).toMatchObject({ who: 'Mira Rook', action: 'sent' });
    expect(await retryMail(books.deps, mira, req({ mailId, what: 'stop' as const }))).toMatchObject({
      error: { kind: 'mail_gone' },
    });
  });
});

describe('what has to be done', () => {
  const shown = async (show: OrderShow, search = '') => {
    const { list } = must(await openOrders(books.deps, mira, { show, sort: 'newest', search }));
    return must(await readOrderRows(books.deps, mira, { list, from: 0 })).rows.map((o) => o.id);
  };

  test('lists of what waits for approval, is not confirmed, overdue, confirmed otherwise, to be asked, done', async () => {
    const waiting = await draft();
    must(await askApproval(books.deps, mira, await asked(waiting, { userId: null, note: '' })));
    expect(await shown('approve')).toEqual([waiting]);
    must(await approveOrder(books.deps, mira, await asked(waiting, {})));
    must(await sendOrder(books.deps, mira, await asked(waiting, { how: 'printed' as const })));
    expect(await shown('unconfirmed')).not.toContain(waiting);
    later(5 * 86_400);
    expect(await shown('unconfirmed')).toContain(waiting);
    const part = await firstPart(waiting);
    const parts = [{ partId: part.id, packs: '', date: '2026-12-18', rest: 'open' as const }];
    must(await confirmOrder(books.deps, mira, await asked(waiting, { reference: '', parts, prices: [] })));
    expect(await shown('unconfirmed')).not.toContain(waiting);
    expect(await shown('differs')).toEqual([waiting]);
    must(await followUpOrder(books.deps, mira, await asked(waiting, { next: '2026-11-30', note: '' })));
    expect(await shown('ask')).toEqual([]);
    later(3 * 86_400);
    expect(await shown('ask')).toEqual([waiting]);
    later(20 * 86_400);
    expect(await shown('late')).toContain(waiting);
    expect(await shown('open', 'hollin')).toContain(waiting);
    expect(await shown('open', 'tesselow')).not.toContain(waiting);
    must(await closeOrder(books.deps, mira, await asked(waiting, { reason: 'enough' })));
    expect(await shown('done')).toContain(waiting);
    expect(await shown('open')).not.toContain(waiting);
    books.deps.setClock('2026-11-23T09:00:00Z');
  });

  test('a reminder by mail asks to confirm, or when what is overdue will come, and notes when to ask again', async () => {
    const id = await sent();
    expect(must(await remindSupplier(books.deps, mira, req({ orderId: id })))).toEqual({
      ...{ to: 'orders@hol.example', next: '2026-11-26' },
    });
    expect((await view(id)).head.nextContact).toBe('2026-11-26');
    later(30 * 86_400);
    // What is promised for later is not asked after.
    const secondPart = (await view(id)).lines[1]?.parts[0]?.id;
    await books.rows("UPDATE delivery_part SET promised_date = '2027-02-01' WHERE id = ?", [secondPart]);
    must(await remindSupplier(books.deps, mira, req({ orderId: id })));
    const mails = await books.rows<{ subject: string; body: string }>(
      "SELECT subject, body FROM outbox_mail WHERE entity = 'reminder' ORDER BY id",
    );
    expect(mails.map((m) => m.subject)).toEqual(['Please confirm order 2611-0003', 'When will order 2611-0003 come?']);
    expect(mails[0]?.body).toContain('2. Upland aran');
    expect(mails[1]?.body).toContain('1. Fen merino 4-ply, moss: 6 × bag, expected 1 Dec 2026');
    expect(mails[1]?.body).not.toContain('2. Upland aran');
    books.deps.setClock('2026-11-23T09:00:00Z');
    // Approved, and nobody was told of it.
    expect(await remindSupplier(books.deps, mira, req({ orderId: 7 }))).toMatchObject({
      error: { kind: 'not_in_this_state' },
    });
  });
});

describe('on paper', () => {
  test('the paper says what the order says; a draft has none', async () => {
    const id = await draft();
    expect(await readOrderPaper(books.deps, mira, id)).toMatchObject({ error: { kind: 'not_in_this_state' } });
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    const order = await view(id);
    const paper = must(await readOrderPaper(books.deps, mira, id));
    expect(paper).toMatchObject({ number: '2611-0003', amendment: 0, net: order.net, currency: 'EUR' });
    expect(paper.lines.map((l) => [l.description, l.net, l.theirNumber, l.ourNumber])).toEqual(
      order.lines.map((l) => [l.description, l.net, l.supplierItemNumber, l.itemNumber]),
    );
    const text = pdfText(await orderPdf(paper))
      .flat()
      .join(' ');
    for (const said of ['Purchase order 2611-0003', 'Fen merino 4-ply, moss', 'HOL-10412-07', '6 × bag', '= 60 ball'])
      expect(text).toContain(said);
  });

  test('it goes with the mail', async () => {
    const id = await draft();
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'email' as const })));
    const folder = mkdtempSync(join(tmpdir(), 'vorrat-mailbox-'));
    const mailbox = await startMailbox(folder, 0);
    expect(await sendWaitingMail(books.deps, `smtp://127.0.0.1:${mailbox.port}`)).toBe(1);
    await mailbox.close();
    const [mail] = await readMailbox(folder, 10);
    expect(mail?.attachments).toEqual(['order-2611-0003.pdf']);
  });
});

describe('changes of an order that its supplier knows', () => {
  test('are numbered, marked and told; until then everything counts as it stands', async () => {
    const id = await sent();
    const part = await firstPart(id);
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    must(await edit({ orderId: id, field: 'packs', partId: part.id, was: '6', now: '8' }));
    const line = (await view(id)).lines[1];
    must(await edit({ orderId: id, field: 'remove', lineId: line?.id ?? 0, was: '' }));
    expect(await stateOf('10412-07')).toMatchObject({ onTheWay: '90.000000', inTrays: '0.000000' });
    const order = await view(id);
    expect(order.otherwise).toEqual([
      {
        lineNo: 1,
        description: 'Fen merino 4-ply, moss',
        packName: 'bag',
        kind: 'quantity',
        was: units(6),
        now: units(8),
      },
      expect.objectContaining({ lineNo: 2, kind: 'taken_off', was: units(6) }),
    ]);
    expect(must(await approveOrder(books.deps, mira, await asked(id, {})))).toMatchObject({ amendment: 1 });
    expect((await view(id)).amendments).toMatchObject([{ no: 1, approvedBy: 'Mira Rook', sentAt: null }]);
    // What the supplier knows is not taken back in silence.
    expect(await reopenOrder(books.deps, mira, await asked(id, {}))).toMatchObject({
      error: { because: 'sent_before' },
    });
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'email' as const })));
    const { subject, body } = await books.one<{ subject: string; body: string }>(
      'SELECT subject, body FROM outbox_mail',
    );
    expect(subject).toMatch(/^Purchase order 2611-0003, Change 1 from/);
    expect(body).toContain('1  Fen merino 4-ply, moss: 8 × bag instead of 6 × bag');
    expect(body).toMatch(/2 {2}.*: taken off \(6 × bag\)/);
  });

  test('the limit holds for the changed sum', async () => {
    const id = await sent();
    const line = (await view(id)).lines[0];
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    must(await edit({ orderId: id, field: 'price', lineId: line?.id ?? 0, was: line?.price ?? '', now: '999' }));
    expect(await approveOrder(books.deps, mira, await asked(id, {}))).toMatchObject({ error: { kind: 'above_limit' } });
    must(await askApproval(books.deps, mira, await asked(id, { userId: otto.userId, note: '' })));
    expect((await view(id)).head.state).toBe('amendment_awaiting');
    must(await approveOrder(books.deps, otto, await asked(id, {})));
    expect((await view(id)).head).toMatchObject({ state: 'approved', amendmentNo: 1 });
  });

  test('dropped, everything is as it was, what came meanwhile stays', async () => {
    const id = await sent();
    const before = await view(id);
    const part = await firstPart(id);
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    must(await edit({ orderId: id, field: 'packs', partId: part.id, was: '6', now: '9' }));
    must(await edit({ orderId: id, field: 'remove', lineId: before.lines[1]?.id ?? 0, was: '' }));
    must(
      await splitPart(
        books.deps,
        mira,
        req({ orderId: id, partId: part.id, packs: '3', date: '+14', locationId: 2, broken: false }),
      ),
    );
    const counted = [{ partId: part.id, quantity: '2', unit: 'pack' as const }];
    const came = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted };
    must(await receiveGoods(books.deps, mira, req(came)));
    expect(await edit({ orderId: id, field: 'packs', partId: part.id, was: '6', now: '1' })).toMatchObject({
      error: { fault: { kind: 'less_than_came', came: units(2) } },
    });
    must(await dropAmendment(books.deps, mira, await asked(id, {})));
    const after = await view(id);
    expect(after.head).toMatchObject({ state: 'sent', amendmentNo: 0 });
    expect(after.otherwise).toEqual([]);
    expect(after.lines.map((l) => [l.packs, l.net, l.parts.length])).toEqual(
      before.lines.map((l) => [l.packs, l.net, l.parts.length]),
    );
    expect(after.lines[0]?.parts[0]?.received).toBe(units(20));
    expect(await books.rows("SELECT COUNT(*) AS n FROM tray_line WHERE state = 'in_tray'")).toEqual([{ n: 0 }]);
  });
});

test('a change is not dropped once something came on what it added', async () => {
  const id = await sent();
  const part = await firstPart(id);
  must(await amendOrder(books.deps, mira, await asked(id, {})));
  const off = { orderId: id, partId: part.id, packs: '2', date: '+14', locationId: 1, broken: false };
  must(await splitPart(books.deps, mira, req(off)));
  const added = (await view(id)).lines[0]?.parts[1];
  const counted = [{ partId: added?.id ?? 0, quantity: '1', unit: 'pack' as const }];
  must(
    await receiveGoods(
      books.deps,
      mira,
      req({ orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted }),
    ),
  );
  expect(await dropAmendment(books.deps, mira, await asked(id, {}))).toMatchObject({
    error: { kind: 'not_in_this_state', because: 'goods_received' },
  });
  must(await approveOrder(books.deps, mira, await asked(id, {})));
});

describe('needs onto an order that its supplier knows', () => {
  test('by choice they change it, with what differs; by rule they never do', async () => {
    const id = await sent();
    const slate = await needOf(books, '10412-11', 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: slate.id, fingerprint: slate.fingerprint, packs: '3' })));
    const tray = must(await openTrays(books.deps, mira)).trays.find((t) => t.supplierId === 1);
    expect(tray?.orders.map((o) => o.joins)).toEqual([null]);
    expect(tray?.drafts).toMatchObject([{ id, told: '2611-0003' }]);
    const choice = { supplierId: 1, held: false, becomes: 'joins' as const, orderId: id };
    must(await setTray(books.deps, mira, req(choice)));
    const make = req({ supplierIds: [1] });
    expect(must(await makeOrders(books.deps, mira, make))).toMatchObject([{ orderId: id, joined: true }]);
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'amending', number: '2611-0003' });
    expect(order.otherwise).toMatchObject([{ kind: 'added', now: units(3) }]);
    must(await undoCommand(books.deps, mira, req({ undoKey: make.key })));
    // Nothing of the change is left: it is none any more.
    expect((await view(id)).otherwise).toEqual([]);
    expect((await view(id)).head).toMatchObject({ state: 'sent', amendmentNo: 0 });
    // What else is changed meanwhile keeps it open.
    must(await setTray(books.deps, mira, req(choice)));
    const again = req({ supplierIds: [1] });
    must(await makeOrders(books.deps, mira, again));
    const [line] = (await view(id)).lines;
    const cell = { orderId: id, field: 'packs' as const, partId: line?.parts[0]?.id ?? 0 };
    must(await editOrder(books.deps, mira, req({ ...cell, was: String((line?.packs ?? 0) / 1e6), now: '9' })));
    must(await undoCommand(books.deps, mira, req({ undoKey: again.key })));
    expect((await view(id)).head.state).toBe('amending');
    expect((await view(id)).otherwise).toMatchObject([{ now: units(9) }]);
    must(await dropAmendment(books.deps, mira, await asked(id, {})));
    expect((await view(id)).head.state).toBe('sent');
    // A note that its supplier is not told is not lost either.
    must(await setTray(books.deps, mira, req(choice)));
    const third = req({ supplierIds: [1] });
    must(await makeOrders(books.deps, mira, third));
    const note = {
      orderId: id,
      lineId: line?.id ?? 0,
      field: 'internalNote' as const,
      was: '',
      now: 'two to the window',
    };
    must(await edit(note));
    must(await undoCommand(books.deps, mira, req({ undoKey: third.key })));
    expect((await view(id)).head.state).toBe('amending');
    expect((await view(id)).otherwise).toEqual([]);
    expect((await view(id)).lines[0]?.internalNote).toBe('two to the window');
    must(await dropAmendment(books.deps, mira, await asked(id, {})));
    // Dropped with what it brought, that lies in its tray again.
    must(await setTray(books.deps, mira, req(choice)));
    must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
    must(await dropAmendment(books.deps, mira, await asked(id, {})));
    expect(await books.rows("SELECT pack_quantity AS packs FROM tray_line WHERE state = 'in_tray'")).toEqual([
      { packs: '3.000000' },
    ]);
    expect((await view(id)).lines).toHaveLength(2);
  });

  test('what was taken off by the change is put onto it as a line of its own', async () => {
    const id = await sent();
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    const [moss] = (await view(id)).lines;
    must(await edit({ orderId: id, field: 'remove', lineId: moss?.id ?? 0, was: '' }));
    const choice = { supplierId: 1, held: false, becomes: 'joins' as const, orderId: id };
    must(await setTray(books.deps, mira, req(choice)));
    must(await makeOrders(books.deps, mira, req({ supplierIds: [1] })));
    const lines = (await view(id)).lines.filter((l) => l.itemNumber === moss?.itemNumber);
    expect(lines.map((l) => [l.id === moss?.id, l.packs])).toEqual([
      [true, 0],
      [false, units(6)],
    ]);
  });

  test('what came beside the order keeps its price when its quantity is changed', async () => {
    const id = await sent();
    const { id: itemId } = await books.one<{ id: number }>("SELECT id FROM item WHERE number = '10412-05'");
    const unordered = [{ itemId, quantity: '20', price: '2.50', freeOfCharge: false }];
    const came = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted: [], unordered };
    must(await receiveGoods(books.deps, mira, req(came)));
    const beside = async () => (await view(id)).lines.find((l) => l.unordered);
    const before = await beside();
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    const packs = (q = 0) => String(q / 1e6);
    const part = before?.parts[0];
    const more = { was: packs(part?.packs), now: packs((part?.packs ?? 0) + 1e6) };
    must(await edit({ orderId: id, field: 'packs', partId: part?.id ?? 0, ...more }));
    const after = await beside();
    expect(after?.packs).toBe((before?.packs ?? 0) + 1e6);
    expect([after?.price, after?.per]).toEqual([before?.price, before?.per]);
  });

  test('a line that joins makes the others cheaper where breaks count over a group of items', async () => {
    const id = await sent();
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    const [moss] = (await view(id)).lines;
    const cell = { orderId: id, field: 'packs' as const, partId: moss?.parts[0]?.id ?? 0, was: '6' };
    await books.owner.query("INSERT INTO item_family (name, option_1, price_group) VALUES ('Fen', 'colour', 'FEN')");
    await books.owner.query(
      "UPDATE item SET family_id = (SELECT id FROM item_family WHERE name = 'Fen') WHERE number IN ('10412-07', '10412-11')",
    );
    await books.owner.query(
      "UPDATE source s JOIN item i ON i.id = s.item_id SET s.break_scope = 'price_group' WHERE i.number LIKE '10412-%'",
    );
    const source = 'SELECT s.id FROM source s JOIN item i ON i.id = s.item_id WHERE s.supplier_id = 1 AND i.number';
    await books.owner.query(`DELETE FROM price WHERE source_id = (${source} = '10412-07')`);
    for (const [from, amount] of [
      [0, 30],
      [9, 24],
    ])
      await books.owner.query(
        `INSERT INTO price (source_id, from_packs, valid_from, amount) SELECT id, ?, '2026-01-01', ? FROM (${source} = '10412-07') s`,
        [from, amount],
      );
    must(await edit({ ...cell, now: '5' }));
    must(await edit({ ...cell, was: '5', now: '6' }));
    expect((await view(id)).lines[0]?.expected).toBe('30');
    const slate = await needOf(books, '10412-11', 'HS');
    must(await acceptNeed(books.deps, mira, req({ needId: slate.id, fingerprint: slate.fingerprint, packs: '3' })));
    must(await setTray(books.deps, mira, req({ supplierId: 1, held: false, becomes: 'joins' as const, orderId: id })));
    const make = req({ supplierIds: [1] });
    must(await makeOrders(books.deps, mira, make));
    // Six bags and three are nine.
    expect((await view(id)).lines[0]).toMatchObject({ expected: '24', price: '24' });
    must(await undoCommand(books.deps, mira, req({ undoKey: make.key })));
    expect((await view(id)).lines[0]).toMatchObject({ expected: '30', price: '30' });
  });
});

/** An order as the list of orders has it. */
const summaryOf = async (id: number) => {
  const all = { show: 'all' as const, sort: 'newest' as const, search: '' };
  const head = must(await openOrders(books.deps, mira, all));
  return must(await readOrderRows(books.deps, mira, { list: head.list, from: 0 })).rows.find((o) => o.id === id);
};

describe('confirmation', () => {
  const confirm = async (id: number, more: Partial<ConfirmOrder>) =>
    confirmOrder(books.deps, mira, await asked(id, { reference: 'HS-771', parts: [], prices: [], ...more }));

  test('as ordered: the dates are the wanted ones', async () => {
    const id = await sent();
    expect(must(await confirm(id, {}))).toEqual({ differ: 0, promised: [] });
    const order = await view(id);
    expect(order.head).toMatchObject({ state: 'confirmed', supplierReference: 'HS-771' });
    const part = order.lines[0]?.parts[0];
    expect(part?.confirmedDate).toBe(part?.wantedDate);
  });

  test('what it confirmed its supplier knows: a change of the order says nothing of that again', async () => {
    const id = await sent();
    const line = (await view(id)).lines[0];
    const partId = line?.parts[0]?.id ?? 0;
    const part = { partId, packs: '', date: '11 dec', rest: 'open' as const };
    const price = { lineId: line?.id ?? 0, price: '33.40', toList: false };
    expect(must(await confirm(id, { parts: [part], prices: [price] })).differ).toBe(2);
    const confirmed = (await summaryOf(id))?.confirmed;
    expect(confirmed).toBe((await view(id)).net);
    must(await amendOrder(books.deps, mira, await asked(id, {})));
    // While it is changed it stays confirmed.
    expect((await summaryOf(id))?.confirmed).toBe(confirmed);
    expect((await view(id)).otherwise).toEqual([]);
    must(await edit({ orderId: id, field: 'packs', partId, was: String((line?.packs ?? 0) / 1e6), now: '8' }));
    expect((await view(id)).otherwise).toHaveLength(1);
    must(await dropAmendment(books.deps, mira, await asked(id, {})));
  });

  test('the list counts as received what was ordered, not what came beyond it', async () => {
    const id = await sent();
    const part = await firstPart(id);
    const counted = [{ partId: part.id, quantity: '7', unit: 'pack' as const }];
    const came = { orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted };
    must(await receiveGoods(books.deps, mira, req(came)));
    const order = await view(id);
    expect(await summaryOf(id)).toMatchObject({
      ...{ net: order.net, received: order.lines[0]?.net, open: order.lines[1]?.net, confirmed: 0 },
    });
  });

  test('another date moves what is expected; another price can go to the list', async () => {
    const id = await sent();
    const part = await firstPart(id);
    const line = (await view(id)).lines[0];
    const prices = [{ lineId: line?.id ?? 0, price: '34.10', toList: true }];
    const parts = [{ partId: part.id, packs: '', date: '2027-01-15', rest: 'open' as const }];
    // Whoever may not change prices on file confirms the order, and leaves the list as it is.
    const without = { ...mira, rights: ['orders.read', 'orders.edit'] as const };
    const at = await asked(id, { reference: '', parts, prices });
    expect(await confirmOrder(books.deps, without, at)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(must(await confirm(id, { parts, prices }))).toMatchObject({ differ: 2 });
    const order = await view(id);
    expect(order.lines[0]).toMatchObject({ price: '34.1', priceReason: 'confirmed' });
    expect(order.lines[0]?.parts[0]).toMatchObject({ confirmedDate: '2027-01-15', wantedDate: part.wantedDate });
    const list = await books.one<{ amount: string; reason: string }>(
      'SELECT amount, reason FROM price WHERE source_id = (SELECT source_id FROM order_line WHERE id = ?) ORDER BY valid_from DESC LIMIT 1',
      [line?.id ?? 0],
    );
    expect(list).toEqual({ amount: '34.100000', reason: 'confirmed by the supplier' });
  });

  test('in part: the rest is waited for as a delivery of its own, or does not come and is a need again', async () => {
    const id = await sent();
    const [moss, other] = (await view(id)).lines.map((l) => l.parts[0]);
    const parts = [
      { partId: moss?.id ?? 0, packs: '4', date: '', rest: 'open' as const },
      { partId: other?.id ?? 0, packs: '0', date: '', rest: 'cancelled' as const },
    ];
    expect(must(await confirm(id, { parts }))).toMatchObject({ differ: 2 });
    const order = await view(id);
    expect(order.lines[0]?.parts.map((p) => [p.packs, p.base, p.confirmedDate !== null])).toEqual([
      [units(4), units(40), true],
      [units(2), units(20), false],
    ]);
    expect(order.lines[1]?.parts[0]).toMatchObject({ cancelled: order.lines[1]?.base });
    expect((await needOf(books, '10688-02', 'HS')).state).toBe('open');
    expect((await needOf(books, '10412-07', 'HS')).state).toBe('none');
  });

  test('confirmed again: what nothing is said of stays as it was confirmed; what was not to come can come after all', async () => {
    const id = await sent();
    const part = await firstPart(id);
    const say = async (packs: string, date: string, rest: 'open' | 'cancelled') =>
      must(await confirm(id, { parts: [{ partId: part.id, packs, date, rest }] }));
    const now = async () =>
      (await view(id)).lines[0]?.parts.map((p) => [p.packs, p.base - p.cancelled, p.confirmedDate]);
    await say('4', '11 dec', 'cancelled');
    expect(await now()).toEqual([[units(6), units(40), '2026-12-11']]);
    must(await confirm(id, {}));
    expect(await now()).toEqual([[units(6), units(40), '2026-12-11']]);
    // Of the four that come, three; the fourth later: two are still not to come.
    await say('3', '', 'open');
    expect(await now()).toEqual([
      [units(5), units(30), '2026-12-11'],
      [units(1), units(10), null],
    ]);
    // After all five come of this delivery; then seven, more than were ordered.
    await say('5', '14 dec', 'cancelled');
    expect((await now())?.[0]).toEqual([units(5), units(50), '2026-12-14']);
    await say('2', '', 'cancelled');
    expect((await now())?.[0]).toEqual([units(5), units(20), '2026-12-14']);
    await say('7', '', 'open');
    expect(await now()).toEqual([
      [units(7), units(70), '2026-12-14'],
      [units(1), units(10), '2026-12-01'],
    ]);
    expect((await view(id)).lines[0]).toMatchObject({ packs: units(8), base: units(80) });
  });

  test('less of two deliveries of one line, the rest of both waited for: four deliveries that add up to the line', async () => {
    const id = await draft();
    const line = (await view(id)).lines[0];
    const off = { orderId: id, partId: line?.parts[0]?.id ?? 0, packs: '2', date: '+21', locationId: 2, broken: false };
    must(await splitPart(books.deps, mira, req(off)));
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'phone' as const, to: 'Mr Orr' })));
    const [first, second] = (await view(id)).lines[0]?.parts ?? [];
    const parts = [
      { partId: first?.id ?? 0, packs: '3', date: '', rest: 'open' as const },
      { partId: second?.id ?? 0, packs: '0.5', date: '+28', rest: 'open' as const },
    ];
    expect(must(await confirm(id, { parts }))).toMatchObject({ differ: 2 });
    const after = (await view(id)).lines[0];
    expect(after?.parts.map((p) => [p.packs, p.base, p.locationId, p.confirmedDate !== null])).toEqual([
      [units(3), units(30), 1, true],
      [units(0.5), units(5), 2, true],
      [units(1), units(10), 1, false],
      [units(1.5), units(15), 2, false],
    ]);
    expect(after).toMatchObject({ packs: line?.packs, base: line?.base });
  });

  test('less than what came is refused, and nothing is changed', async () => {
    const id = await sent();
    const part = await firstPart(id);
    const counted = [{ partId: part.id, quantity: '3', unit: 'pack' as const }];
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({ orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    const before = await view(id);
    const parts = [{ partId: part.id, packs: '2', date: '', rest: 'cancelled' as const }];
    expect(await confirm(id, { parts })).toMatchObject({ error: { field: `packs.${part.id}` } });
    expect(await view(id)).toEqual(before);
  });
});

describe('the end', () => {
  test('the rest of a line does not come: its need is back, and Undo expects it again', async () => {
    const id = await sent();
    const line = (await view(id)).lines[0];
    const cut = await asked(id, { reason: 'not made any more', lineId: line?.id ?? 0, partId: null });
    expect(
      await cutSupply(books.deps, mira, await asked(id, { reason: '', lineId: null, partId: null })),
    ).toMatchObject({
      error: { field: 'reason' },
    });
    expect(must(await cutSupply(books.deps, mira, cut))).toEqual({ open: units(60), promised: [] });
    expect((await needOf(books, '10412-07', 'HS')).state).toBe('open');
    must(await undoCommand(books.deps, mira, req({ undoKey: cut.key })));
    expect((await needOf(books, '10412-07', 'HS')).state).toBe('none');
    expect((await view(id)).lines[0]?.parts[0]?.cancelled).toBe(0);
  });

  test('of one delivery nothing comes any more: the others of its line, and of the order, are still expected', async () => {
    const id = await draft();
    const part = await firstPart(id);
    const off = { orderId: id, partId: part.id, packs: '2', date: '+21', locationId: 1, broken: false };
    must(await splitPart(books.deps, mira, req(off)));
    must(await approveOrder(books.deps, mira, await asked(id, {})));
    must(await sendOrder(books.deps, mira, await asked(id, { how: 'phone' as const, to: '' })));
    const second = (await view(id)).lines[0]?.parts[1]?.id ?? 0;
    const cut = await asked(id, { reason: 'sold out', lineId: null, partId: second });
    expect(must(await cutSupply(books.deps, mira, cut)).open).toBe(units(20));
    expect((await view(id)).lines.map((l) => l.parts.map((p) => p.cancelled))).toEqual([[0, units(20)], [0]]);
  });

  test('closed short nothing more is expected; opened again what was cancelled stays so', async () => {
    const id = await sent();
    const part = await firstPart(id);
    const counted = [{ partId: part.id, quantity: '2', unit: 'pack' as const }];
    must(
      await receiveGoods(
        books.deps,
        mira,
        req({ orderId: id, locationId: 1, deliveryNote: '', businessDate: '', counted }),
      ),
    );
    const close = await asked(id, { reason: 'enough' });
    must(await closeOrder(books.deps, mira, close));
    expect((await view(id)).head).toMatchObject({ state: 'closed', before: 'sent' });
    expect(await stateOf('10412-07')).toMatchObject({ onTheWay: '10.000000' });
    must(await openOrderAgain(books.deps, mira, await asked(id, {})));
    expect((await view(id)).head).toMatchObject({ state: 'sent', before: null });
    expect((await view(id)).lines[0]?.parts[0]?.cancelled).toBe(units(40));
    // Somebody has gone on with it: the closing is not undone past that.
    expect(await undoCommand(books.deps, mira, req({ undoKey: close.key }))).toMatchObject({ ok: true });
    expect((await view(id)).lines[0]?.parts[0]?.cancelled).toBe(0);
  });

  test('asked after: when next, and what was said', async () => {
    const id = await sent();
    must(await followUpOrder(books.deps, mira, await asked(id, { next: '+3', note: 'will call back' })));
    const order = await view(id);
    expect(order.head.nextContact).toBe('2026-11-26');
    expect(order.history.at(-1)?.after).toContain('will call back');
  });
});

describe('a line over several deliveries', () => {
  test('days on which nothing is taken in are moved, and said', async () => {
    const id = await draft();
    const part = await firstPart(id);
    const off = { orderId: id, partId: part.id, packs: '1', locationId: 1, broken: false };
    // A Sunday.
    expect(must(await splitPart(books.deps, mira, req({ ...off, date: '2026-12-13' }))).moved).toEqual([
      { from: '2026-12-13', to: '2026-12-14' },
    ]);
    expect(must(await splitPart(books.deps, mira, req({ ...off, date: '2026-12-15' }))).moved).toEqual([]);
    // The place is closed on the day of the second week.
    const second = addDays(part.wantedDate as string, 7);
    await books.owner.query(
      "INSERT INTO closed_days (location_id, from_day, to_day, name) VALUES (1, ?, ?, 'stocktaking')",
      [...[second, second]],
    );
    const spread = must(await spreadPart(books.deps, mira, req({ orderId: id, partId: part.id, weeks: 3 })));
    expect(spread.moved).toMatchObject([{ from: second, to: addDays(second, 1) }]);
    const days = (await view(id)).lines[0]?.parts.map((p) => p.wantedDate);
    expect(days).toEqual(expect.arrayContaining(['2026-12-14', '2026-12-15', addDays(second, 1)]));
    expect(days).not.toContain(second);
  });

  test('split and spread the sum stays, and the order goes back into its tray whole', async () => {
    const id = await draft();
    const part = await firstPart(id);
    const split = (packs: string) => ({
      orderId: id,
      partId: part.id,
      packs,
      date: '+14',
      locationId: 2,
      broken: false,
    });
    expect(await splitPart(books.deps, mira, req(split('6')))).toMatchObject({ error: { field: 'packs' } });
    expect(await splitPart(books.deps, mira, req(split('1.5')))).toMatchObject({
      error: { fault: { kind: 'not_whole_packs' } },
    });
    must(await splitPart(books.deps, mira, req(split('2'))));
    must(await spreadPart(books.deps, mira, req({ orderId: id, partId: part.id, weeks: 3 })));
    const line = (await view(id)).lines[0];
    expect(line?.packs).toBe(units(6));
    expect(line?.parts.map((p) => [p.packs, p.locationId])).toEqual([
      [units(2), 1],
      [units(2), 2],
      [units(1), 1],
      [units(1), 1],
    ]);
    expect(new Set(line?.parts.map((p) => p.wantedDate)).size).toBe(4);
    must(await putBackOrder(books.deps, mira, await asked(id, {})));
    const trays = await books.rows<{ packs: string }>(
      "SELECT pack_quantity AS packs FROM tray_line WHERE state = 'in_tray'",
    );
    expect(trays.map((t) => t.packs)).toEqual(['6.000000', '6.000000']);
  });
});
