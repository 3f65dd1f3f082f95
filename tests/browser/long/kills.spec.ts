import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { type Connection, createConnection } from 'mysql2/promise';
import { TIMES } from '../../campaign';
import { seededNumbers } from '../../seededNumbers';
import { expect, signIn, startWorker, test, type World } from '../support';

const CLIENTS = 50;
const KILLS_OF_EACH = 10 * TIMES;
/** A wait longer than this outside an outage is a fault. */
const LONGEST_WAIT_MS = 5000;

test.setTimeout(300_000 * TIMES);
test.use({ durable: true });

type Sent = {
  readonly key: string;
  readonly command: string;
  readonly input: unknown;
  /** Requests of this command: when sent, when answered or given up. */
  readonly attempts: { from: number; to: number; status: number | null }[];
  status: number;
};
type Outage = { readonly what: 'database' | 'server'; readonly from: number; to: number; readonly openWrites: number };
type Value = { allocationId?: number; transferId?: number; receiptId?: number; countId?: number };

/** Commands to the server over plain HTTP, each repeated under its key until it is answered. */
class Client {
  constructor(
    private readonly url: string,
    private readonly cookie: string,
    private readonly sent: Sent[],
  ) {}

  async once(command: string, body: string): Promise<{ status: number; value: Value } | null> {
    const headers = { 'Content-Type': 'application/json', cookie: this.cookie };
    try {
      const response = await fetch(`${this.url}/api/commands/${command}`, { method: 'POST', body, headers });
      const { value } = (await response.json()) as { value?: Value };
      // 503 and 500 say that nothing was done, or that it is not known: only the key tells.
      return response.status >= 500 ? null : { status: response.status, value: value ?? {} };
    } catch {
      return null;
    }
  }

  /** The value of a success, null when it was refused. */
  async send(command: string, input: unknown): Promise<Value | null> {
    const key = `kills-${this.sent.length}-${Math.random().toString(36).slice(2)}`.padEnd(24, 'k');
    const entry: Sent = { key, command, input, attempts: [], status: 0 };
    this.sent.push(entry);
    for (;;) {
      const attempt = { from: Date.now(), to: Number.POSITIVE_INFINITY, status: null as number | null };
      entry.attempts.push(attempt);
      const answer = await this.once(command, JSON.stringify({ key, input }));
      attempt.to = Date.now();
      attempt.status = answer?.status ?? null;
      if (answer) {
        entry.status = answer.status;
        return answer.status === 200 ? answer.value : null;
      }
      await pause(50);
    }
  }
}

/** A connection that may look at what transactions are open. */
const rootConnection = (world: World): Promise<Connection> =>
  createConnection({ socketPath: world.database.socket, user: 'root', password: world.database.settings.root });

/** Transactions that have written something and are not yet committed, at this moment. */
async function openWrites(root: Connection): Promise<number> {
  const [rows] = await root.query(
    'SELECT COUNT(*) AS n FROM information_schema.innodb_trx WHERE trx_rows_modified > 0',
  );
  return Number((rows as { n: number }[])[0]?.n);
}
async function deadlocks(root: Connection): Promise<number> {
  const [rows] = await root.query("SHOW GLOBAL STATUS LIKE 'Innodb_deadlocks'");
  return Number((rows as { Value: string }[])[0]?.Value);
}

/** One person at work on three items at four places, with everything that moves stock. */
async function work(client: Client, seed: number, goods: Goods, running: () => boolean): Promise<void> {
  const { upTo, pick } = seededNumbers(seed);
  const mine = { allocations: [] as [number, number, number][], transfers: [] as number[], receipts: [] as number[] };
  const place = () => 1 + upTo(4);
  const doings = [
    async () => {
      const lines = [{ itemId: pick(goods.items), quantity: String(1 + upTo(3)), allocationId: null }];
      await client.send('sell-goods', { locationId: place(), businessDate: '', lines });
    },
    async () => {
      const [itemId, locationId] = [pick(goods.items), place()];
      const promise = { itemId, locationId, quantity: String(1 + upTo(2)), promisedTo: `customer ${seed}` };
      const made = await client.send('allocate-stock', promise);
      if (made?.allocationId) mine.allocations.push([made.allocationId, itemId, locationId]);
    },
    async () => {
      const [allocationId, itemId, locationId] = mine.allocations.pop() ?? [];
      if (!allocationId) return;
      if (upTo(2) === 0) await client.send('release-allocation', { allocationId });
      else {
        const lines = [{ itemId, quantity: '1', allocationId }];
        await client.send('sell-goods', { locationId, businessDate: '', lines });
      }
    },
    async () => {
      const from = place();
      const lines = goods.items.slice(0, 1 + upTo(2)).map((itemId) => ({ itemId, quantity: '1' }));
      const way = { fromLocationId: from, toLocationId: (from % 4) + 1 };
      const made = await client.send('ship-transfer', { ...way, lines });
      if (made?.transferId) mine.transfers.push(made.transferId);
    },
    async () => {
      const transferId = mine.transfers.pop();
      if (!transferId) return;
      const lost = upTo(8) === 0;
      const line = { lineNo: 1, received: lost ? '' : '1', lost: lost ? '1' : '', reason: lost ? 'broken' : '' };
      await client.send('receive-transfer', { transferId, lines: [line] });
    },
    async () => {
      const { partId, orderId, locationId } = pick(goods.parts);
      const counted = [
        { partId, quantity: String(1 + upTo(9)), unit: 'base', lots: upTo(2) === 0 ? `K${upTo(6)}` : '' },
      ];
      const head = { orderId, locationId, deliveryNote: '', businessDate: upTo(4) === 0 ? '2026-11-19' : '' };
      const made = await client.send('receive-goods', { ...head, counted });
      if (made?.receiptId) mine.receipts.push(made.receiptId);
    },
    async () => {
      const receiptId = upTo(2) === 0 ? mine.receipts.pop() : undefined;
      if (receiptId) await client.send('reverse-receipt', { receiptId, reason: 'counted twice' });
    },
    async () => {
      const lines = goods.items.map((itemId) => ({ itemId, quantity: String(upTo(40)) }));
      await client.send('count-stock', { locationId: place(), note: '', lines: lines.slice(0, 1 + upTo(3)) });
    },
    async () => {
      // A count goes on while others sell; it is posted late.
      const scope = { what: 'marked', category: '', shelf: '', name: 'In the middle of work', blind: true };
      const begun = await client.send('begin-count', { ...scope, locationId: place(), itemIds: goods.items });
      if (!begun?.countId) return;
      const countId = begun.countId;
      const lines = goods.items.map((itemId) => ({ itemId, round: 'first', quantity: String(upTo(40)) }));
      await client.send('enter-count', { countId, countedAt: '', lines });
      await client.send('post-count', { countId, asCounted: true });
    },
  ];
  // Promises are made as often as they are ended.
  const drawn = [...doings, doings[1] as (typeof doings)[number]];
  while (running()) await pick(drawn)();
}

type Goods = {
  readonly items: readonly number[];
  readonly parts: readonly { partId: number; orderId: number; locationId: number }[];
};

/** Documents in the books, by the command that makes them. */
async function made(world: World): Promise<Record<string, number>> {
  const queries: Record<string, string> = {
    'sell-goods': "SELECT COUNT(*) AS n FROM stock_document WHERE kind = 'sale'",
    'count-stock': `SELECT COUNT(*) AS n FROM stock_document d LEFT JOIN stock_count c ON c.document_id = d.id
                     WHERE d.kind = 'count' AND c.id IS NULL`,
    'begin-count': 'SELECT COUNT(*) AS n FROM stock_count',
    'post-count': "SELECT COUNT(*) AS n FROM stock_count WHERE state = 'posted'",
    // What the rule puts by for customers is no command's.
    'allocate-stock': "SELECT COUNT(*) AS n FROM change_record WHERE entity = 'allocation' AND action = 'allocated'",
    'release-allocation': "SELECT COUNT(*) AS n FROM change_record WHERE entity = 'allocation' AND action = 'released'",
    'ship-transfer': 'SELECT COUNT(*) AS n FROM transfer',
    'receive-transfer': "SELECT COUNT(*) AS n FROM change_record WHERE entity = 'transfer' AND action = 'received'",
    'receive-goods': 'SELECT COUNT(*) AS n FROM goods_receipt',
    'reverse-receipt': 'SELECT COUNT(*) AS n FROM receipt_reversal',
  };
  const counts: Record<string, number> = {};
  for (const [command, sql] of Object.entries(queries)) {
    counts[command] = Number((await world.rows<{ n: number }>(sql))[0]?.n);
  }
  return counts;
}

// kill -9 of database and server in turns while fifty people move the stock of three items: what was acknowledged is
// there, what was not takes effect exactly once when it is repeated with its key, and the books are sound.
test(`fifty people on three items, database and server killed ${KILLS_OF_EACH} times each: nothing is lost, nothing doubled`, async ({
  page,
  world,
}) => {
  await signIn(page, 'otto');
  const { cookies } = await page.context().storageState();
  const cookie = cookies.map((c) => `${c.name}=${c.value}`).join('; ');
  const worker = await startWorker(world);
  const parts = await world.rows<{ partId: number; orderId: number; locationId: number; itemId: number }>(
    `SELECT d.id AS partId, l.order_id AS orderId, d.location_id AS locationId, l.item_id AS itemId
       FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id WHERE l.order_id IN (6, 7) ORDER BY d.id DESC LIMIT 4`,
  );
  const items = [...new Set(parts.map((p) => p.itemId))].slice(0, 3);
  const goods = { items, parts: parts.filter((p) => items.includes(p.itemId)) };
  expect(items).toHaveLength(3);
  const before = await made(world);

  const sent: Sent[] = [];
  const outages: Outage[] = [];
  let running = true;
  let allDeadlocks = 0;
  const people = Array.from({ length: CLIENTS }, (_, i) =>
    work(new Client(world.url, cookie, sent), 1000 + i, goods, () => running),
  );
  const unknown: { committed: number; rolledBack: number } = { committed: 0, rolledBack: 0 };

  /** Kills one of the two in the middle of work and brings it back; then looks what became of what was under way. */
  const outage = async (what: Outage['what']) => {
    let root = await rootConnection(world);
    root.on('error', () => undefined);
    // The moment of a kill is not chosen; it falls where it falls.
    await pause(1000 + Math.random() * 1000);
    if (what === 'database') allDeadlocks += await deadlocks(root);
    const open = await openWrites(root);
    const underWay = sent.filter((s) => s.status === 0);
    const from = Date.now();
    if (what === 'database') {
      await world.database.stop('SIGKILL');
      root.destroy();
      await world.startDatabase();
      root = await rootConnection(world);
    } else await world.killServer();
    // Before anything is repeated under its key: a key that is there was committed, its answer lost.
    for (const s of underWay.filter((u) => u.status === 0)) {
      const [row] = (
        await root.query('SELECT 1 FROM vorrat.idempotency_key WHERE idem_key = ?', [s.key])
      )[0] as object[];
      if (row) unknown.committed += 1;
      else unknown.rolledBack += 1;
    }
    root.destroy();
    if (what === 'server') await world.serveAgain();
    outages.push({ what, from, to: Date.now(), openWrites: open });
  };
  for (let round = 0; round < KILLS_OF_EACH; round += 1) {
    await outage('database');
    await outage('server');
  }
  const last = await rootConnection(world);
  // On a slow machine a minute is not enough for each command to happen often: the work goes on until it has.
  const succeededOf = (command: string) => sent.filter((s) => s.command === command && s.status === 200).length;
  const often = () => Object.keys(before).every((command) => succeededOf(command) > 5);
  for (let waited = 0; waited < 60_000 && (waited < 3000 || !often()); waited += 500) await pause(500);
  running = false;
  await Promise.all(people);
  allDeadlocks += await deadlocks(last);
  last.destroy();

  // What was acknowledged is there, and nothing else is: each command took effect exactly once.
  const after = await made(world);
  for (const [command, count] of Object.entries(after)) {
    const succeeded = succeededOf(command);
    expect({ command, made: count - (before[command] ?? 0) }).toEqual({ command, made: succeeded });
    expect({ command, often: succeeded > 5 }).toEqual({ command, often: true });
  }
  // Repeated once more with its key, a command that succeeded says so again and does nothing. (A refusal changed nothing,
  // its key is free: what was refused may succeed later.)
  const again = new Client(world.url, cookie, []);
  for (const s of sent.filter((e) => e.status === 200).filter((_, i) => i % 20 === 0)) {
    const answer = await again.once(s.command, JSON.stringify({ key: s.key, input: s.input }));
    expect(answer?.status).toBe(200);
  }
  expect(await made(world)).toEqual(after);

  const kills = outages.length;
  const hits = outages.filter((o) => o.openWrites > 0).length;
  const attempts = sent.flatMap((s) => s.attempts);
  const quiet = attempts.filter((a) => outages.every((o) => a.to < o.from || a.from > o.to));
  const longest = Math.max(...quiet.map((a) => a.to - a.from));
  const figures = {
    commands: sent.length,
    succeeded: sent.filter((s) => s.status === 200).length,
    repeated: attempts.length - sent.length,
    kills,
    hits,
    ...unknown,
    deadlocks: allDeadlocks,
    longest,
  };
  console.log(JSON.stringify(figures));
  expect(kills).toBe(2 * KILLS_OF_EACH);
  expect(hits).toBeGreaterThanOrEqual(Math.ceil(kills / 3));
  expect(unknown.committed).toBeGreaterThan(0);
  expect(unknown.rolledBack).toBeGreaterThan(0);
  expect(allDeadlocks / sent.length).toBeLessThan(0.01);
  expect(longest).toBeLessThan(LONGEST_WAIT_MS);
  expect(worker.exitCode).toBeNull();
  worker.kill('SIGKILL');

  const root = join(__dirname, '..', '..', '..');
  const verified = execFileSync(process.execPath, ['--import', 'tsx', join(root, 'scripts', 'verify.ts')], {
    env: { ...process.env, ...world.database.env() },
    encoding: 'utf8',
    cwd: root,
  });
  expect(verified).toContain('The books are sound.');
});
