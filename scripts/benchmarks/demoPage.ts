import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import type { Pool } from 'mysql2/promise';
import { openPool } from '@/data/pool';
import launchOptions from '../lib/chromium.json';

const lib = (file: string) => import(join(__dirname, '..', 'lib', file));

/** Builds the application and seeds the demo, once for the benches that open it in a browser. */
export async function prepareDemo(): Promise<void> {
  const { build } = await lib('application.mjs');
  const { seededFolder } = await lib('testData.mjs');
  await build();
  await seededFolder();
}

/** A page of the buyer's on a fresh copy of the demo, with its database; both are gone afterwards. */
export async function withDemoPage<T>(name: string, body: (page: Page, pool: Pool) => Promise<T>): Promise<T> {
  const { serve, endServer } = await lib('application.mjs');
  const { Database, freePort } = await lib('database.mjs');
  const { CLOCK, templateFolder } = await lib('testData.mjs');
  const folder = join(templateFolder, '..', `bench-${name}`);
  rmSync(folder, { recursive: true, force: true });
  cpSync(templateFolder, folder, { recursive: true });
  const database = await new Database(folder).start();
  const port = await freePort();
  const env = { ...database.env(), VORRAT_CLOCK: CLOCK };
  const server = await serve({ port, env, output: 'inherit' });
  const browser = await chromium.launch(launchOptions);
  const { port: databasePort, owner } = database.settings;
  const pool = openPool(
    { host: '127.0.0.1', port: databasePort, user: 'vorrat_owner', password: owner, database: 'vorrat' },
    1,
  );
  try {
    const page = await browser.newPage({ baseURL: `http://127.0.0.1:${port}`, viewport: { width: 1280, height: 800 } });
    await page.request.post('/api/session', { data: { login: 'mira', password: 'quillon' } });
    return await body(page, pool);
  } finally {
    await pool.end();
    await browser.close();
    await endServer(server);
    await database.stop('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}
