import { mkdtempSync, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Values } from '@/core/sheets';
import type { Handler } from '@/jobs/handlers';
import { sendWaitingMail } from '@/jobs/mail';
import { tick } from '@/jobs/tick';
import { LEASE_SECONDS, workOnce } from '@/jobs/worker';
import type { ListFile } from '@/services/lists/fileColumns';
import { markChanged } from '@/services/planning/recompute';
import { setPlanningRules } from '@/services/planning/setPlanningRules';
import { approveOrder } from '@/services/purchase/approveOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { cancelJob } from '@/services/work/cancelJob';
import { readJobExport } from '@/services/work/readJobExport';
import { readJobs } from '@/services/work/readJobs';
import { readMailExport } from '@/services/work/readMailExport';
import { startJob } from '@/services/work/startJob';
import { readMailbox, startMailbox } from '@/standins/mailbox';
import { acceptSome, type Books, freshBooks, MONDAY, mira, must, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());
beforeEach(async () => {
  await books.owner.query('DELETE FROM job');
  books.deps.setClock(MONDAY);
});

const later = (seconds: number) =>
  books.deps.setClock(new Date(books.deps.clock().getTime() + seconds * 1000).toISOString());
const pages = async (file: ListFile) => {
  const all: Values[][] = [];
  for await (const page of file.rows) all.push(page);
  return all;
};
const start = async () => must(await startJob(books.deps, mira, req({ kind: 'check-needs' as const }))).jobId;
const job = async (id: number) => {
  const found = must(await readJobs(books.deps, mira)).jobs.find((j) => j.id === id);
  if (!found) throw new Error(`no job ${id}`);
  return found;
};
const worker = (id: string, handler?: Handler) => ({
  id,
  deps: books.deps,
  ...(handler ? { kinds: { 'check-needs': handler } } : {}),
});

describe('work in the background', () => {
  test('a check of all needs says how far it is, mends what differs, and ends', async () => {
    await books.owner.query('UPDATE item_location_state SET fingerprint = 1 WHERE item_id IN (3, 70)');
    const id = await start();
    expect(await start()).toBe(id);
    expect(await job(id)).toMatchObject({ state: 'waiting', who: 'Mira Rook', canCancel: true });
    expect((await workOnce(worker('a')))?.id).toBe(id);
    expect(await job(id)).toMatchObject({ state: 'done', done: 81, total: 81, attempts: 1, canCancel: false });
    expect((await markChanged(books.deps)).changed).toBe(0);
    expect(await workOnce(worker('a'))).toBeNull();
  });

  test('a change that touches everything is left to the worker, in its own transaction', async () => {
    const was = { trigger: 'at_or_below' as const, refill: 'up_to_max' as const };
    const rules = { trigger: 'strictly_below' as const, refill: 'up_to_max' as const };
    must(await setPlanningRules(books.deps, mira, req({ ...rules, was })));
    expect(must(await readJobs(books.deps, mira))).toMatchObject({
      marked: 81 * 4,
      jobs: [{ name: 'Needs after a change to many items', state: 'waiting' }],
    });
    await workOnce(worker('a'));
    const after = must(await readJobs(books.deps, mira));
    expect(after).toMatchObject({ marked: 0, jobs: [{ state: 'done', done: 324, total: 324 }] });
    expect((await markChanged(books.deps)).changed).toBe(0);
    expect(await setPlanningRules(books.deps, mira, req({ ...rules, was }))).toMatchObject({
      error: { kind: 'changed_meanwhile', what: 'policy' },
    });
  });

  test('a worker that dies: another goes on where it was, once the lease has ended; the dead one can’t write any more', async () => {
    const id = await start();
    let release: (() => void) | null = null;
    const seen: unknown[] = [];
    const first = workOnce(
      worker('dies', async (_deps, { step }) => {
        await step({ done: 40, total: 100, resumeAt: { after: 40 } });
        await new Promise<void>((go) => {
          release = go;
        });
        await step({ done: 50, total: 100, resumeAt: { after: 50 } });
        seen.push('wrote after it was dead');
      }),
    );
    while (!release) await new Promise((go) => setTimeout(go, 10));
    const second = worker('takes over', async (_deps, { resumeAt, step }) => {
      seen.push(resumeAt);
      await step({ done: 100, total: 100, resumeAt: null });
    });
    expect(await workOnce(second)).toBeNull();
    later(LEASE_SECONDS + 1);
    expect((await workOnce(second))?.id).toBe(id);
    (release as () => void)();
    await first;
    expect(seen).toEqual([{ after: 40 }]);
    expect(await job(id)).toMatchObject({ state: 'done', done: 100, attempts: 2 });
  });

  test('two workers: each job goes to one', async () => {
    await start();
    const slow: Handler = () => new Promise((go) => setTimeout(go, 100));
    const both = await Promise.all([workOnce(worker('a', slow)), workOnce(worker('b', slow))]);
    expect(both.filter(Boolean)).toHaveLength(1);
  });

  test('cancelled while waiting, while running, and not after it ended', async () => {
    const waiting = await start();
    must(await cancelJob(books.deps, mira, req({ jobId: waiting })));
    expect(await job(waiting)).toMatchObject({ state: 'cancelled' });
    const running = await start();
    await workOnce(
      worker('a', async (_deps, { step }) => {
        await step({ done: 1, total: 9, resumeAt: 1 });
        must(await cancelJob(books.deps, mira, req({ jobId: running })));
        await step({ done: 2, total: 9, resumeAt: 2 });
        throw new Error('went on after it was cancelled');
      }),
    );
    expect(await job(running)).toMatchObject({ state: 'cancelled', done: 2 });
    expect(await cancelJob(books.deps, mira, req({ jobId: running }))).toMatchObject({ error: { kind: 'not_found' } });
  });

  test('a fault is tried again later, five times in all, and then said', async () => {
    const id = await start();
    const log = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    const faulty: Handler = async () => {
      throw new Error('the disk is full');
    };
    await workOnce(worker('a', faulty));
    expect(await job(id)).toMatchObject({ state: 'waiting', attempts: 1, fault: 'the disk is full' });
    expect(await workOnce(worker('a', faulty))).toBeNull();
    for (let n = 0; n < 4; n += 1) {
      later(60);
      await workOnce(worker('a', faulty));
    }
    expect(await job(id)).toMatchObject({ state: 'failed', attempts: 5 });
    expect(log).toHaveBeenCalledTimes(5);
    log.mockRestore();
  });

  test('a new business day is begun by the worker', async () => {
    books.deps.setClock('2026-11-24T06:00:00Z');
    await tick(books.deps);
    await tick(books.deps);
    expect(must(await readJobs(books.deps, mira)).jobs.map((j) => j.name)).toEqual(['The new business day']);
    await workOnce(worker('a'));
    expect(await books.one('SELECT needs_as_of AS day FROM company')).toEqual({ day: '2026-11-24' });
    const file = must(await readJobExport(books.deps, mira));
    expect(file).toMatchObject({ title: 'In the background', today: '2026-11-24' });
    const shown = must(await readJobs(books.deps, mira)).jobs.map((j) => ({
      what: j.name,
      done: j.done,
      who: 'Vorrat',
    }));
    expect(await pages(file)).toMatchObject([shown]);
    expect(shown).toHaveLength(1);
  });
});

describe('mail', () => {
  const sendAnOrder = async () => {
    await acceptSome(books, '3');
    const suppliers = await books.rows<{ id: number }>(
      "SELECT DISTINCT supplier_id AS id FROM tray_line WHERE state = 'in_tray'",
    );
    const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: suppliers.map((s) => s.id) })));
    const orderId = made?.orderId ?? 0;
    const version = async () => must(await readOrder(books.deps, mira, orderId)).head.version;
    const { number } = must(await approveOrder(books.deps, mira, req({ orderId, version: await version() })));
    const sent = await sendOrder(books.deps, mira, req({ orderId, version: await version(), how: 'email' as const }));
    return { orderId, number, sent };
  };
  const outbox = () =>
    books.rows<{ state: string; attempts: number; fault: string; recipient: string }>(
      'SELECT state, attempts, fault, recipient FROM outbox_mail ORDER BY id',
    );

  test('goes out of the outbox after the commit; a server that is away is tried again; sent twice it is one mail', async () => {
    const { number } = await sendAnOrder();
    await sendWaitingMail(books.deps, 'smtp://127.0.0.1:1');
    expect(await outbox()).toMatchObject([{ state: 'waiting', attempts: 1, fault: expect.stringContaining('ECONN') }]);
    const folder = mkdtempSync(join(tmpdir(), 'vorrat-mailbox-'));
    const mailbox = await startMailbox(folder, 0);
    const url = `smtp://127.0.0.1:${mailbox.port}`;
    expect(await sendWaitingMail(books.deps, url)).toBe(0);
    later(10);
    expect(await sendWaitingMail(books.deps, url)).toBe(1);
    expect(await outbox()).toMatchObject([{ state: 'sent', attempts: 2, fault: '' }]);
    const [mail] = await readMailbox(folder, 10);
    expect(mail).toMatchObject({
      from: '"Quillon Yarn & Cloth" <purchasing@quillon.example>',
      subject: `Purchase order ${number} from Quillon Yarn & Cloth`,
    });
    expect(mail?.text).toContain(`Purchase order ${number}\nDate: 23 Nov 2026`);
    // The worker died between sending and noting it: the same mail again.
    await books.owner.query("UPDATE outbox_mail SET state = 'waiting', next_try_at = '2026-11-23'");
    expect(await sendWaitingMail(books.deps, url)).toBe(1);
    expect(readdirSync(folder)).toHaveLength(1);
    expect(await sendWaitingMail(books.deps, '')).toBe(0);
    await mailbox.close();
    expect(await violations(books)).toEqual([]);
    const file = must(await readMailExport(books.deps, mira));
    const [[line, ...more] = []] = await pages(file);
    expect(more).toEqual([]);
    expect(line).toMatchObject({
      subject: mail?.subject,
      to: mail?.to,
      state: 'sent',
      attempts: 3,
      by: 'Mira Rook',
    });
  });

  test('a supplier without an address: said, and the order stays as it was', async () => {
    await books.owner.query("UPDATE supplier SET email = ''");
    const { orderId, sent } = await sendAnOrder();
    expect(sent).toMatchObject({ error: { kind: 'no_mail_address' } });
    expect(await books.one('SELECT state FROM purchase_order WHERE id = ?', [orderId])).toEqual({ state: 'approved' });
    expect(await outbox()).toHaveLength(1);
  });
});
