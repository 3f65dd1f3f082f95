import { cpSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { openPool } from '@/data/pool';
import launchOptions from '../lib/chromium.json';
import { type Figure, quantile } from './figure';
import { type HandFigures, openAndPlan, sellOut, typeAll } from './handScript';

const DELAY_MS = 150;
const lib = (file: string) => import(join(__dirname, '..', 'lib', file));

/** Two hundred needs typed at 8 keys a second in a real browser, on a fresh copy of the demo whose stock is sold out. */
async function run(delayMs: number): Promise<HandFigures> {
  const { serve, endServer } = await lib('application.mjs');
  const { Database, freePort } = await lib('database.mjs');
  const { CLOCK, templateFolder } = await lib('testData.mjs');
  const folder = join(templateFolder, '..', 'bench-hand');
  rmSync(folder, { recursive: true, force: true });
  cpSync(templateFolder, folder, { recursive: true });
  const database = await new Database(folder).start();
  const port = await freePort();
  const env = { ...database.env(), VORRAT_CLOCK: CLOCK };
  const server = await serve({ port, env, output: 'inherit' });
  const browser = await chromium.launch(launchOptions);
  try {
    const page = await browser.newPage({ baseURL: `http://127.0.0.1:${port}`, viewport: { width: 1280, height: 800 } });
    await page.request.post('/api/session', { data: { login: 'mira', password: 'quillon' } });
    const { port: databasePort, owner } = database.settings;
    const pool = openPool(
      { host: '127.0.0.1', port: databasePort, user: 'vorrat_owner', password: owner, database: 'vorrat' },
      1,
    );
    const [stock] = await pool.query(
      `SELECT item_id AS itemId, location_id AS locationId, on_hand AS onHand FROM level l
         JOIN location p ON p.id = l.location_id WHERE p.kind <> 'transit'`,
    );
    await pool.end();
    await sellOut(page, stock as unknown as Parameters<typeof sellOut>[1]);
    return await typeAll(page, await openAndPlan(page, delayMs));
  } finally {
    await browser.close();
    await endServer(server);
    await database.stop('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
}

/** From Enter to the focus on the next row, 95th percentile, and the longest task of the page, while every answer of the
 *  server takes 150 ms longer; baseline: the same without that. The goals are of the values. */
export async function handBench(): Promise<Figure[]> {
  const { build } = await lib('application.mjs');
  const { seededFolder } = await lib('testData.mjs');
  await build();
  await seededFolder();
  const undelayed = await run(0);
  const delayed = await run(DELAY_MS);
  const p95 = (f: HandFigures) =>
    quantile(
      f.focus.map((x) => x.ms),
      0.95,
    );
  const figure = (name: string, value: number, baseline: number, goal: number): Figure => ({
    name: `hand: ${name} with ${DELAY_MS} ms of delay, goal of the value; baseline: without`,
    value: Math.round(value),
    unit: 'ms',
    baseline: Math.round(baseline),
    ratio: Number((value / Math.max(1, baseline)).toFixed(2)),
    goal,
  });
  return [
    figure('Enter to focus on the next row, 95th percentile,', p95(delayed), p95(undelayed), 50),
    figure('longest task', delayed.longestTaskMs, undelayed.longestTaskMs, 200),
  ];
}
