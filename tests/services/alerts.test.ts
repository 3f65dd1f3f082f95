import { alertMail, raiseAlerts } from '@/services/alerts/raiseAlerts';
import { readAlertSettings, readAlerts } from '@/services/alerts/readAlerts';
import { seeAlerts, setAlerts } from '@/services/alerts/setAlerts';
import { readFrame } from '@/services/people/readFrame';
import { countStock } from '@/services/stock/countStock';
import { planCount } from '@/services/stock/planCount';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, jun, MONDAY, mira, must, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
beforeEach(() => books.deps.setClock(MONDAY));
afterAll(() => books.close());

const [HS, MH, WY] = [1, 3, 4] as const;
const rule = (
  matter: 'below_zero' | 'below_min' | 'transfer_asked' | 'count_due',
  how: 'at_once' | 'daily',
  byMail = false,
) => ({
  ...{ matter, how, byMail },
});
const mails = () =>
  books.rows<{ recipient: string; subject: string; body: string }>(
    "SELECT recipient, subject, body FROM outbox_mail WHERE entity = 'alert' ORDER BY id",
  );
const sell = async (itemId: number, quantity: string) =>
  must(
    await sellGoods(
      books.deps,
      mira,
      req({ locationId: HS, businessDate: '', lines: [{ itemId, quantity, allocationId: null }] }),
    ),
  );
const count = async (itemId: number, quantity: string) =>
  must(await countStock(books.deps, mira, req({ locationId: HS, note: '', lines: [{ itemId, quantity }] })));
const itemId = async (number: string) =>
  (await books.one<{ id: number }>('SELECT id FROM item WHERE number = ?', [number])).id;

test('a matter is told once while it lasts, again when it comes back; by mail once as well', async () => {
  must(
    await setAlerts(
      books.deps,
      mira,
      req({ mail: 'mira@quillon.example', rules: [rule('below_zero', 'at_once', true)] }),
    ),
  );
  await raiseAlerts(books.deps, 'at_once');
  const before = must(await readAlerts(books.deps, mira)).length;
  const sent = (await mails()).length;
  const a = await itemId('10412-02');
  const { onHand } = await books.one<{ onHand: string }>(
    'SELECT on_hand AS onHand FROM level WHERE item_id = ? AND location_id = 1',
    [a],
  );
  await sell(a, String(Number(onHand) + 2));
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(1);
  await sell(a, '1');
  books.deps.setClock('2026-11-23T11:00:00Z');
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(0);
  expect(must(await readAlerts(books.deps, mira)).length).toBe(before + 1);
  const told = await mails();
  expect(told.length).toBe(sent + 1);
  expect(told.at(-1)).toMatchObject({ recipient: 'mira@quillon.example' });
  expect(told.at(-1)?.subject).toMatch(/^Below zero: .*, Harbour Street$/);
  expect(told.at(-1)?.body).toContain('-2 ball');
  // Put right, it ends; below zero again, it is another matter.
  await count(a, '5');
  books.deps.setClock('2026-11-23T11:05:00Z');
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(0);
  expect(must(await readAlerts(books.deps, mira)).length).toBe(before);
  await sell(a, '6');
  books.deps.setClock('2026-11-23T11:10:00Z');
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(1);
  expect((await mails()).length).toBe(sent + 2);
});

test('daily alerts come with the day, at the person’s places only; seen ones are not counted', async () => {
  must(
    await setAlerts(
      books.deps,
      jun,
      req({ mail: '', rules: [rule('below_min', 'daily'), rule('count_due', 'daily')] }),
    ),
  );
  const scope = { locationId: MH, what: 'all' as const, category: '', shelf: '', itemIds: [], blind: false };
  must(await planCount(books.deps, jun, req({ ...scope, name: 'All', everyDays: 30, firstOn: '' })));
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(0);
  const below = await books.one<{ n: number }>(
    'SELECT COUNT(*) AS n FROM item_location_state WHERE below_min = 1 AND location_id = 3',
  );
  expect(below.n).toBeGreaterThan(0);
  expect(await raiseAlerts(books.deps, 'daily')).toBe(below.n + 1);
  const alerts = must(await readAlerts(books.deps, jun));
  expect(alerts.every((x) => x.location === 'Market Hall')).toBe(true);
  expect(alerts.find((x) => x.matter === 'count_due')?.about).toBe('All');
  expect((await readFrame(books.deps, jun)).counts.alerts).toBe(alerts.length);
  must(await seeAlerts(books.deps, jun, req({ ids: alerts.slice(1).map((x) => x.id) })));
  expect((await readFrame(books.deps, jun)).counts.alerts).toBe(1);
  // Seen by its person only.
  must(await seeAlerts(books.deps, mira, req({ ids: alerts.map((x) => x.id) })));
  expect((await readFrame(books.deps, jun)).counts.alerts).toBe(1);
  expect(await raiseAlerts(books.deps, 'daily')).toBe(0);
  // What is not wanted any more goes.
  must(await setAlerts(books.deps, jun, req({ mail: '', rules: [rule('count_due', 'daily')] })));
  expect(must(await readAlerts(books.deps, jun)).map((x) => x.matter)).toEqual(['count_due']);
});

test('who is asked for goods hears of it', async () => {
  must(
    await setAlerts(
      books.deps,
      mira,
      req({ mail: 'm@quillon.example', rules: [rule('transfer_asked', 'at_once', true)] }),
    ),
  );
  books.deps.setClock('2026-11-23T12:00:00Z');
  const asked = { fromLocationId: WY, toLocationId: MH, wantedDate: '', note: '' };
  const lines = [{ itemId: await itemId('10412-02'), quantity: '3' }];
  const { transfer } = must(await requestTransfer(books.deps, mira, req({ ...asked, lines })));
  expect(await raiseAlerts(books.deps, 'at_once')).toBe(1);
  expect((await mails()).at(-1)?.subject).toBe(`A place asks for goods: ${transfer}, Wendel Yard`);
  expect(must(await readAlertSettings(books.deps, mira))).toEqual({
    mail: 'm@quillon.example',
    rules: [rule('transfer_asked', 'at_once', true)],
  });
});

test('a mail tells by matter, with whole figures', () => {
  const row = {
    ...{
      id: 1,
      itemId: 7,
      refId: null,
      raisedAt: '',
      seen: 0,
      itemNumber: '10412-07',
      itemName: 'Fen merino',
      unit: 'ball',
    },
    ...{ location: 'Old Mill', onHand: '20.000000', level: '30.000000', max: null, excess: null, about: null },
  };
  const { subject, body } = alertMail(
    [
      { ...row, matter: 'below_min' as const },
      { ...row, matter: 'above_max' as const, excess: '100.000000', max: '60.500000' },
    ],
    'Quillon',
  );
  expect(subject).toBe('2 alerts from Quillon');
  expect(body).toBe(
    [
      'At or below the minimum',
      '  Fen merino (10412-07) at Old Mill: 20 ball on hand, minimum 30',
      '',
      'Above the maximum',
      '  Fen merino (10412-07) at Old Mill: 100 ball above the maximum of 60.5',
      '',
    ].join('\n'),
  );
});

test('mail needs an address', async () => {
  const set = (mail: string, byMail: boolean) =>
    setAlerts(books.deps, mira, req({ mail, rules: [rule('below_min', 'daily', byMail)] }));
  expect(await set('', true)).toMatchObject({ error: { field: 'mail', fault: { kind: 'not_an_address' } } });
  expect(await set('mira', false)).toMatchObject({ error: { field: 'mail' } });
  must(await set('', false));
});

test('raising and ending alerts waits for no sale: levels, states and marks that others hold are read, not locked', async () => {
  const kinds = [rule('below_zero', 'at_once'), rule('below_min', 'at_once'), rule('transfer_asked', 'at_once')];
  must(await setAlerts(books.deps, mira, req({ mail: '', rules: kinds })));
  await raiseAlerts(books.deps, 'at_once');
  const [low] = await books.rows<{ itemId: number; locationId: number }>(
    `SELECT s.item_id AS itemId, s.location_id AS locationId FROM item_location_state s JOIN level l USING (item_id, location_id)
      WHERE s.below_min = 1 AND l.on_hand > 0 LIMIT 1`,
  );
  if (!low) throw new Error('nothing is below its minimum');
  // One matter more and one less than was told, so that there is something to raise and something to end.
  await books.owner.query('UPDATE level SET on_hand = -on_hand WHERE item_id = ? AND location_id = ?', [
    low.itemId,
    low.locationId,
  ]);
  const told = await books.one<{ id: number }>(
    "SELECT id FROM alert WHERE user_id = 1 AND matter = 'below_min' AND live = 1 LIMIT 1",
  );
  await books.owner.query("UPDATE alert SET matter_key = 'gone' WHERE id = ?", [told.id]);

  const other = await books.owner.getConnection();
  try {
    await other.query('START TRANSACTION');
    for (const table of ['level', 'item_location_state', 'need', 'transfer'])
      await other.query(`SELECT * FROM ${table} FOR UPDATE`);
    // Would fail after five seconds of waiting for a lock, six times.
    expect(await raiseAlerts(books.deps, 'at_once')).toBeGreaterThan(0);
  } finally {
    await other.query('ROLLBACK');
    other.release();
    await books.owner.query('UPDATE level SET on_hand = -on_hand WHERE item_id = ? AND location_id = ?', [
      low.itemId,
      low.locationId,
    ]);
  }
  expect(await books.one('SELECT live FROM alert WHERE id = ?', [told.id])).not.toMatchObject({ live: 1 });
});
