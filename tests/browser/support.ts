import type { ChildProcess } from 'node:child_process';
import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { createConnection, type RowDataPacket } from 'mysql2/promise';

type DatabaseServer = {
  settings: { port: number; owner: string; root: string };
  socket: string;
  start: (port?: number) => Promise<unknown>;
  stop: (signal?: string) => Promise<void>;
  env: () => Record<string, string>;
};

/** A server and a database of this worker alone. */
type Site = {
  url: string;
  folder: string;
  port: number;
  database: DatabaseServer;
  clock: Record<string, string>;
  server: ChildProcess;
  serve: () => Promise<ChildProcess>;
};

export type World = {
  readonly url: string;
  readonly database: DatabaseServer;
  /** The time of the test, for a process beside its server. */
  readonly clock: Record<string, string>;
  /** The database server back after it was stopped. */
  readonly startDatabase: () => Promise<unknown>;
  /** kill -9 of the application server. */
  readonly killServer: () => Promise<void>;
  /** A new one at the same address. */
  readonly serveAgain: () => Promise<void>;
  /** Where the mailbox stand-in keeps what it receives. */
  readonly mailbox: string;
  readonly rows: <T>(sql: string, values?: unknown[]) => Promise<T[]>;
};

/** The code with which a test founds a company. */
export const SETUP_CODE = 'a-code-for-tests';

const root = join(__dirname, '..', '..');
const scripts = (file: string) => import(join(root, 'scripts', 'lib', file));

/** Each worker has its own server and its own copy of the seeded data folder; each test starts from a fresh copy. */
export const test = base.extend<{ world: World }, { site: Site; durable: boolean }>({
  /** Whether the database waits for the disk: for tests that pull the plug. */
  durable: [false, { option: true, scope: 'worker' }],
  site: [
    async ({ durable }, use, info) => {
      const { Database, freePort } = await scripts('database.mjs');
      const { serve, endServer } = await scripts('application.mjs');
      const { templateFolder, CLOCK } = await scripts('testData.mjs');
      const folder = join(root, '.data', `test-browser-${info.workerIndex}`);
      rmSync(folder, { recursive: true, force: true });
      cpSync(templateFolder, folder, { recursive: true });
      const port = await freePort();
      const database = new Database(folder, { durable }) as DatabaseServer;
      await database.start(port);
      const web = await freePort();
      const clock = { VORRAT_CLOCK: CLOCK, VORRAT_CLOCK_SET: String(Date.now()) };
      const beside = { VORRAT_MAILBOX: join(folder, 'mailbox'), VORRAT_SETUP_CODE: SETUP_CODE };
      const env = { ...database.env(), ...clock, ...beside };
      const site: Site = {
        url: `http://127.0.0.1:${web}`,
        folder,
        port,
        database,
        clock,
        serve: () => serve({ port: web, env, output: 'ignore' }),
        server: await serve({ port: web, env, output: 'ignore' }),
      };
      await use(site);
      await endServer(site.server);
      await database.stop('SIGKILL');
      rmSync(folder, { recursive: true, force: true });
    },
    { scope: 'worker', timeout: 120_000 },
  ],
  world: async ({ site }, use) => {
    const { templateFolder } = await scripts('testData.mjs');
    await site.database.stop('SIGKILL');
    rmSync(site.folder, { recursive: true, force: true });
    cpSync(templateFolder, site.folder, { recursive: true });
    const startDatabase = () => site.database.start(site.port);
    await startDatabase();
    const rows = async <T>(sql: string, values: unknown[] = []) => {
      const { port, owner } = site.database.settings;
      const login = {
        host: '127.0.0.1',
        port,
        user: 'vorrat_owner',
        password: owner,
        database: 'vorrat',
        dateStrings: true,
      };
      const connection = await createConnection(login);
      const [found] = await connection.query<RowDataPacket[]>(sql, values);
      await connection.end();
      return found as T[];
    };
    const killServer = async () => {
      const { endServer } = await scripts('application.mjs');
      await endServer(site.server, 'SIGKILL');
    };
    const serveAgain = async () => {
      site.server = await site.serve();
    };
    await use({
      url: site.url,
      database: site.database,
      clock: site.clock,
      startDatabase,
      killServer,
      serveAgain,
      mailbox: join(site.folder, 'mailbox'),
      rows,
    });
  },
  baseURL: async ({ site }, use) => use(site.url),
  page: async ({ page }, use) => {
    const goto = page.goto.bind(page);
    page.goto = async (url, options) => {
      const response = await goto(url, options);
      await ready(page);
      return response;
    };
    await use(page);
  },
});

export { expect };

/** The stand-ins; the server of the test knows their mailbox by its folder. */
export async function startStandins(world: World): Promise<{ child: ChildProcess; env: Record<string, string> }> {
  const { startStandins: start } = await scripts('application.mjs');
  return start(world.mailbox, { env: {}, output: 'ignore' });
}

/** The worker in the background, beside a test's server. */
export async function startWorker(world: World, env: Record<string, string> = {}): Promise<ChildProcess> {
  const { startWorker: start } = await scripts('application.mjs');
  return start({ env: { ...world.database.env(), ...world.clock, ...env }, output: 'ignore' });
}

/** The database of a test without a company, as npm start makes it. */
export async function emptyCompany(world: World): Promise<void> {
  const { runTs } = await scripts('say.mjs');
  const env = { ...world.database.env(), ...world.clock };
  const { code, out } = await runTs('scripts/prepare.ts', ['--reset', '--own'], { env, quiet: true });
  if (code !== 0) throw new Error(out);
}

/** The page answers to keys and clicks, not only shows. */
export const ready = (page: Page) => page.locator('html[data-ready]').waitFor({ state: 'attached' });

/** Signs in; whoever begins at Today goes on to Needs. */
export async function signIn(page: Page, login: string): Promise<void> {
  await page.goto('/sign-in');
  await ready(page);
  await page.getByLabel('Name').fill(login);
  await page.getByLabel('Password').fill('quillon');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
  await ready(page);
  if (new URL(page.url()).pathname !== '/today') return;
  const needs = waiting(page, 'Needs');
  if ((await needs.count()) === 0) return;
  await needs.click();
  await page.waitForURL((url) => url.pathname === '/needs');
  await ready(page);
}

/** The row of a need. */
export const needRow = (page: Page, item: string, place: string): Locator =>
  page.getByRole('row', { name: new RegExp(`^${item}, ${place}, below minimum`) });

/** What stands at a stop of the ruler. */
export const waiting = (page: Page, stop: string): Locator =>
  page.getByRole('navigation', { name: 'Work' }).getByRole('link', { name: stop });

/** Presses Tab until this has the focus, as someone without a mouse does. */
export async function tabTo(page: Page, target: Locator, most = 80): Promise<void> {
  await target.waitFor();
  for (let n = 0; n < most; n += 1) {
    if (await target.evaluate((el) => el === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error('not reached by Tab');
}
