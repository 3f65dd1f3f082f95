import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { APIRequestContext } from '@playwright/test';
import { expect, signIn, test } from '../support';

type Sent = { readonly key: string; readonly command: string; readonly input: unknown; status: number | null };

test.setTimeout(240_000);

// kill -9 of database and server in turns while clients work: what was acknowledged is there, what was not takes effect
// exactly once when it is repeated with its key, and the books are sound.
test('database and server are killed again and again; nothing is lost, nothing doubled', async ({
  page,
  world,
  playwright,
  baseURL,
}) => {
  await signIn(page, 'otto');
  const { cookies } = await page.context().storageState();
  const cookie = cookies.map((c) => `${c.name}=${c.value}`).join('; ');
  const needs = await world.rows<{ id: number }>(
    "SELECT id FROM need WHERE state = 'open' AND source_id IS NOT NULL ORDER BY id LIMIT 6",
  );
  const parts = await world.rows<{ part: number; orderId: number; place: number }>(
    `SELECT d.id AS part, l.order_id AS orderId, d.location_id AS place FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id
      WHERE l.order_id IN (5, 6, 7) ORDER BY d.id LIMIT 3`,
  );
  const decisionsBefore = Number((await world.rows<{ n: number }>('SELECT COUNT(*) AS n FROM decision'))[0]?.n);
  const receiptsBefore = Number((await world.rows<{ n: number }>('SELECT COUNT(*) AS n FROM goods_receipt'))[0]?.n);
  const sent: Sent[] = [];
  let running = true;
  let unanswered = 0;

  /** Sends until there is an answer; the same key every time. */
  const send = async (client: APIRequestContext, command: string, input: unknown): Promise<Sent> => {
    const entry: Sent = {
      key: `kills-${sent.length}-${Math.random().toString(36).slice(2, 14)}-key`,
      command,
      input,
      status: null,
    };
    sent.push(entry);
    while (entry.status === null) {
      const response = await client
        .post(`/api/commands/${command}`, { data: { key: entry.key, input }, headers: { cookie }, timeout: 20_000 })
        .catch(() => null);
      // 503 and 500 say nothing was done, or that it is not known: only the key tells.
      if (response && response.status() < 500) entry.status = response.status();
      else {
        unanswered += 1;
        await pause(40);
      }
    }
    return entry;
  };

  const rowsOr = async <T>(sql: string, values: unknown[]): Promise<T[]> => world.rows<T>(sql, values).catch(() => []);
  const buyer = async (needId: number) => {
    const client = await playwright.request.newContext({ baseURL });
    while (running) {
      const [need] = await rowsOr<{ fingerprint: string; state: string }>(
        'SELECT fingerprint, state FROM need WHERE id = ?',
        [needId],
      );
      if (need?.state === 'open')
        await send(client, 'accept-need', { needId, fingerprint: need.fingerprint, packs: '30' });
      const [line] = await rowsOr<{ id: number }>(
        "SELECT t.id FROM tray_line t JOIN need n ON n.item_id = t.item_id AND n.location_id = t.location_id WHERE n.id = ? AND t.state = 'in_tray'",
        [needId],
      );
      if (line) await send(client, 'take-back', { trayLineId: line.id });
      else await pause(20);
    }
    await client.dispose();
  };
  const receiver = async ({ part, orderId, place }: (typeof parts)[number]) => {
    const client = await playwright.request.newContext({ baseURL });
    while (running) {
      const counted = [{ partId: part, quantity: '1', unit: 'base' }];
      await send(client, 'receive-goods', { orderId, locationId: place, deliveryNote: '', businessDate: '', counted });
    }
    await client.dispose();
  };

  const clients = [...needs.map((n) => buyer(n.id)), ...parts.map(receiver)];
  for (let round = 0; round < 4; round += 1) {
    await pause(2500);
    await world.database.stop('SIGKILL');
    await pause(200);
    await world.startDatabase();
    await pause(2500);
    await world.restartServer();
  }
  await pause(2000);
  running = false;
  await Promise.all(clients);

  // Every command repeated once more with its key gives what it gave before.
  const client = await playwright.request.newContext({ baseURL });
  for (const entry of sent.filter((_, i) => i % 5 === 0)) {
    const again = await client.post(`/api/commands/${entry.command}`, {
      data: { key: entry.key, input: entry.input },
      headers: { cookie },
    });
    if (entry.status === 200) expect(again.status()).toBe(200);
  }
  await client.dispose();

  const succeeded = (commands: string[]) => sent.filter((s) => s.status === 200 && commands.includes(s.command)).length;
  const decisions =
    Number((await world.rows<{ n: number }>('SELECT COUNT(*) AS n FROM decision'))[0]?.n) - decisionsBefore;
  const receipts =
    Number((await world.rows<{ n: number }>('SELECT COUNT(*) AS n FROM goods_receipt'))[0]?.n) - receiptsBefore;
  expect(succeeded(['accept-need', 'take-back'])).toBeGreaterThan(20);
  expect(succeeded(['receive-goods'])).toBeGreaterThan(20);
  expect(unanswered).toBeGreaterThan(4);
  expect(decisions).toBe(succeeded(['accept-need', 'take-back']));
  expect(receipts).toBe(succeeded(['receive-goods']));

  const root = join(__dirname, '..', '..', '..');
  const verified = execFileSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'verify.ts')], {
    env: { ...process.env, ...world.database.env() },
    encoding: 'utf8',
    cwd: root,
  });
  expect(verified).toContain('The books are sound.');
});
