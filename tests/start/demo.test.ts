import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import type { IncomingMessage } from 'node:http';
import { request } from 'node:https';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createConnection, type RowDataPacket } from 'mysql2/promise';

const root = join(__dirname, '..', '..');
let folder: string;
let port: number;
const started: Start[] = [];

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'vorrat-start-'));
  port = await freePort();
});
afterAll(async () => {
  for (const start of started) start.signal('SIGKILL');
  for (const pid of [serverPid(), databasePid()]) if (pid && isThere(pid)) process.kill(pid, 'SIGKILL');
  rmSync(folder, { recursive: true, force: true });
});

const freePort = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });
const isThere = (pid: number) => existsSync(`/proc/${pid}`);
const databasePid = () => {
  const file = join(folder, 'mariadbd.pid');
  return existsSync(file) ? Number(readFileSync(file, 'utf8')) : null;
};
const starterPid = () => Number(JSON.parse(readFileSync(join(folder, 'start.json'), 'utf8')).starter);
/** The server's process: the one that was started for our port. */
const serverPid = (): number | null => {
  for (const entry of readdirSync('/proc').filter((e) => /^\d+$/.test(e))) {
    try {
      const [, script, at] = readFileSync(`/proc/${entry}/cmdline`, 'utf8').split('\0');
      if (script?.endsWith('server.mjs') && at === String(port)) return Number(entry);
    } catch {
      // Gone meanwhile.
    }
  }
  return null;
};
/** The worker and the stand-ins that belong to our data folder. */
const besidePids = (): number[] =>
  readdirSync('/proc')
    .filter((e) => /^\d+$/.test(e))
    .filter((entry) => {
      try {
        const command = readFileSync(`/proc/${entry}/cmdline`, 'utf8');
        const ours = readFileSync(`/proc/${entry}/environ`, 'utf8').includes(`VORRAT_DATA=${folder}`);
        return ours && /src\/(jobs|standins)\/main\.ts/.test(command);
      } catch {
        return false;
      }
    })
    .map(Number);
const workerPid = () =>
  besidePids().find((pid) => readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('src/jobs/main.ts')) ?? null;
const until = async (what: string, condition: () => boolean, withinMs = 60_000) => {
  for (const end = Date.now() + withinMs; !condition(); ) {
    if (Date.now() > end) throw new Error(`waited in vain for: ${what}`);
    await new Promise((done) => setTimeout(done, 50));
  }
};

type Start = {
  readonly child: ChildProcess;
  readonly output: () => string;
  readonly up: () => Promise<void>;
  readonly ended: () => Promise<number>;
  readonly signal: (signal: NodeJS.Signals) => void;
};

/** `npm run …` as in a terminal: a process group of its own, to which the terminal sends Ctrl-C. */
function start(
  args: readonly string[],
  { at = port, env = {} }: { at?: number; env?: Record<string, string> } = {},
): Start {
  let output = '';
  const child = spawn('npm', ['run', '--silent', ...args], {
    cwd: root,
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, VORRAT_DATA: folder, VORRAT_PORT: String(at), VORRAT_CLOCK: '2026-11-23T09:00:00Z', ...env },
  });
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (d) => {
      output += d;
    });
  const ended = new Promise<number>((resolve) => child.on('close', (code) => resolve(code ?? 130)));
  const it: Start = {
    child,
    output: () => output,
    up: async () => {
      await until(`the address\n${output}`, () => output.includes('Ctrl-C stops it.') || child.exitCode !== null);
      if (!output.includes('Ctrl-C stops it.')) throw new Error(output);
    },
    ended: () => ended,
    signal: (signal) => {
      try {
        process.kill(-(child.pid as number), signal);
      } catch {
        // It has ended already.
      }
    },
  };
  started.push(it);
  return it;
}

const url = (path: string) => `http://127.0.0.1:${port}${path}`;
const post = (path: string, body: unknown, cookie = '') =>
  fetch(url(path), {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: url(''), cookie },
    body: JSON.stringify(body),
  });
async function signIn(): Promise<string> {
  const response = await post('/api/session', { login: 'mira', password: 'quillon' });
  expect(response.status).toBe(200);
  return response.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .join('; ');
}

let commands = 0;
/** Sets a minimum through the application; fails unless it was acknowledged. */
async function setMinimum(min: number): Promise<void> {
  const was = (await policy()) ?? { min: '', max: '' };
  const input = { edits: [{ itemId: 7, locationId: 1, was, now: { min: String(min), max: '9000' } }] };
  commands += 1;
  const key = `start-command-test-${commands}-${min}`;
  const response = await post('/api/commands/save-policies', { key, input }, await signIn());
  expect([response.status, await response.text()]).toEqual([200, expect.any(String)]);
}

/** Asked of the database itself. */
async function rows(sql: string): Promise<RowDataPacket[]> {
  const { port: at, owner } = JSON.parse(readFileSync(join(folder, 'settings.json'), 'utf8'));
  const login = { host: '127.0.0.1', port: at, user: 'vorrat_owner', password: owner, database: 'vorrat' };
  const connection = await createConnection(login);
  const [found] = await connection.query<RowDataPacket[]>(sql);
  await connection.end();
  return found;
}

async function policy(): Promise<{ min: string; max: string } | null> {
  const [row] = await rows(
    'SELECT min_quantity AS min, max_quantity AS max FROM policy WHERE item_id = 7 AND location_id = 1',
  );
  return row ? { min: String(Number(row.min)), max: String(Number(row.max)) } : null;
}
const minimum = async () => Number((await policy())?.min);

/** Signs in over TLS with a certificate of our own, claiming another address. */
const signInOverTls = (login: string, password: string) =>
  new Promise<IncomingMessage>((resolve, reject) => {
    const headers = { 'content-type': 'application/json', 'x-forwarded-for': '203.0.113.9' };
    const to = { host: '127.0.0.1', port, path: '/api/session', method: 'POST', headers, rejectUnauthorized: false };
    request(to, resolve).on('error', reject).end(JSON.stringify({ login, password }));
  });

/** Nothing of a start is left: no process, and the port is free. */
async function allGone(pids: readonly (number | null | undefined)[]) {
  for (const pid of pids) await until(`process ${pid} to end`, () => !pid || !isThere(pid), 10_000);
  await expect(fetch(url('/'))).rejects.toThrow();
}

test('npm run demo: from nothing to the address and the accounts; Ctrl-C stops all of it', async () => {
  const demo = start(['demo']);
  await demo.up();
  expect(demo.output()).toContain('Demo data written');
  expect(demo.output()).toContain(`Vorrat is at http://127.0.0.1:${port}`);
  for (const login of ['mira', 'otto', 'jun', 'edda']) expect(demo.output()).toMatch(new RegExp(`${login} +quillon`));
  expect((await fetch(url('/sign-in'))).status).toBe(200);
  await setMinimum(111);

  const second = start(['demo'], { at: await freePort() });
  expect(await second.ended()).not.toBe(0);
  expect(second.output().trim()).toBe(
    `Vorrat already runs on this data, at port ${port}; stop that one first (Ctrl-C there).`,
  );
  expect((await fetch(url('/sign-in'))).status).toBe(200);

  expect(besidePids()).toHaveLength(2);
  // A worker that dies is replaced.
  const worker = workerPid() as number;
  process.kill(worker, 'SIGKILL');
  await until('another worker', () => ![null, worker].includes(workerPid()));
  const pids = [serverPid(), starterPid(), databasePid(), ...besidePids()];
  expect(pids.every((pid) => pid && isThere(pid))).toBe(true);
  demo.signal('SIGINT');
  await demo.ended();
  expect(demo.output()).toContain('Stopping');
  await allGone(pids);
});

test('a taken port is said, with another to try; nothing is started', async () => {
  const other = createServer();
  await new Promise<void>((done) => other.listen(port, '127.0.0.1', done));
  const demo = start(['demo']);
  expect(await demo.ended()).not.toBe(0);
  expect(demo.output().trim()).toBe(
    `Port ${port} is taken by another program. Choose another: VORRAT_PORT=${port + 1} npm run demo`,
  );
  await new Promise((done) => other.close(done));
  expect(isThere(databasePid() ?? 0)).toBe(false);
  const wrong = start(['demo'], { at: 70_000 });
  expect(await wrong.ended()).not.toBe(0);
  expect(wrong.output().trim()).toBe('VORRAT_PORT=70000 is not a port number.');
});

test('after kill -9 of the server, the database and the start command the next start has every committed change', async () => {
  const first = start(['demo']);
  await first.up();
  expect(first.output()).not.toContain('Demo data written');
  expect(await minimum()).toBe(111);
  await setMinimum(222);
  const server = serverPid() as number;
  process.kill(server, 'SIGKILL');
  await first.ended();
  expect(first.output()).toContain('The server has ended.');
  await allGone([server, databasePid()]);

  const second = start(['demo']);
  await second.up();
  expect(await minimum()).toBe(222);
  await setMinimum(333);
  const database = databasePid() as number;
  process.kill(database, 'SIGKILL');
  await until('the database to be gone', () => !isThere(database));
  const response = await post('/api/session', { login: 'mira', password: 'quillon' });
  expect(response.status).toBe(503);
  const left = serverPid();
  second.signal('SIGINT');
  await second.ended();
  await allGone([left]);

  const third = start(['demo']);
  await third.up();
  expect(await minimum()).toBe(333);
  await setMinimum(444);
  // The server goes with its start command; the database stays and is found again.
  const orphans = [serverPid(), ...besidePids()];
  process.kill(starterPid(), 'SIGKILL');
  await allGone(orphans);
  expect(isThere(databasePid() as number)).toBe(true);

  const fourth = start(['demo']);
  await fourth.up();
  expect(await minimum()).toBe(444);
  const last = [serverPid(), databasePid()];
  fourth.signal('SIGTERM');
  await fourth.ended();
  await allGone(last);
});

test('sign-in attempts are kept under the true address, whatever the client says; with TLS the cookie is for TLS only', async () => {
  const [cert, key] = [join(folder, 'cert.pem'), join(folder, 'key.pem')];
  const made = ['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '1', '-subj', '/CN=localhost'];
  execFileSync('openssl', [...made, '-keyout', key, '-out', cert], { stdio: 'ignore' });
  const half = start(['demo'], { env: { VORRAT_TLS_CERT: cert } });
  expect(await half.ended()).not.toBe(0);
  expect(half.output().trim()).toBe('For TLS both VORRAT_TLS_CERT and VORRAT_TLS_KEY have to name a file.');

  const demo = start(['demo'], { env: { VORRAT_TLS_CERT: cert, VORRAT_TLS_KEY: key } });
  await demo.up();
  expect(demo.output()).toContain(`Vorrat is at https://127.0.0.1:${port}`);
  const signed = await signInOverTls('nobody', 'x');
  expect(signed.statusCode).toBe(401);
  expect(await rows("SELECT DISTINCT address FROM sign_in_attempt WHERE login = 'nobody'")).toEqual([
    { address: '127.0.0.1' },
  ]);
  const cookie = await signInOverTls('mira', 'quillon');
  expect(cookie.headers['set-cookie']?.[0]).toMatch(/; Secure/i);
  demo.signal('SIGINT');
  await demo.ended();
});

test('verify-data looks at the same data folder, with the server running or not', async () => {
  const demo = start(['demo']);
  await demo.up();
  const sound = start(['verify-data']);
  expect(await sound.ended()).toBe(0);
  expect(sound.output()).toContain('The books are sound.');
  await rows('UPDATE level SET on_hand = on_hand + 1 LIMIT 1');
  demo.signal('SIGINT');
  await demo.ended();
  const unsound = start(['verify-data']);
  expect(await unsound.ended()).toBe(1);
  expect(unsound.output()).toMatch(/ 1 {2}levels equal the sum of their movements/);
  expect(isThere(databasePid() ?? 0)).toBe(false);
});

test('--reset makes fresh demo data', async () => {
  const demo = start(['demo', '--', '--reset']);
  await demo.up();
  expect(demo.output()).toContain('Demo data written');
  expect(await minimum()).not.toBe(444);
  demo.signal('SIGINT');
  await demo.ended();
});

test('npm run dev serves the same data with the development server', async () => {
  const dev = start(['dev']);
  await dev.up();
  const page = await fetch(url('/sign-in'));
  expect(page.status).toBe(200);
  expect(await page.text()).toContain('Password');
  const pids = [serverPid(), databasePid()];
  dev.signal('SIGINT');
  await dev.ended();
  await allGone(pids);
});
