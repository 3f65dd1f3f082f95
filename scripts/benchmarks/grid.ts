import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import launchOptions from '../lib/chromium.json';
import { type Figure, quantile } from './figure';
import { ITEMS, LOCATIONS, largeBooks } from './largeBooks';

const JUMPS = 60;
const lib = (file: string) => import(join(__dirname, '..', 'lib', file));

/** Scrolls to a share of the list by its scroll bar; the time until rows of that place stand there, in ms. As text, because
 *  it runs in the page. */
const jump = (page: Page, share: number): Promise<number> =>
  page.evaluate<number>(`new Promise((resolve, reject) => {
    const grid = document.querySelector('[role=grid]');
    const rows = Number(grid.getAttribute('aria-rowcount')) - 1;
    const started = performance.now();
    grid.scrollTop = ${share} * (grid.scrollHeight - grid.clientHeight);
    const wanted = Math.floor(${share} * (rows - 1));
    const look = () => {
      const lines = [...grid.querySelectorAll('[data-index]')];
      const near = lines.filter((l) => Math.abs(Number(l.dataset.index) - wanted) < 60);
      if (near.length > 0 && near.every((l) => l.querySelector('input, select'))) resolve(performance.now() - started);
      else if (performance.now() - started > 20000) reject(new Error('row ' + wanted + ' never came'));
      else requestAnimationFrame(look);
    };
    requestAnimationFrame(look);
  })`);

async function jumps(page: Page, path: string): Promise<number[]> {
  await page.goto(path);
  await page.locator('[role=grid] input').first().waitFor();
  const times: number[] = [];
  // The same places every time, all over the list.
  for (let n = 1; n <= JUMPS; n += 1) times.push(await jump(page, (n * 0.618034) % 1));
  return times;
}

/** Types a minimum, fills it down and pastes a block over it. */
async function work(page: Page): Promise<void> {
  const cell = page.locator('[role=grid] input[aria-label^="Minimum"]').first();
  await cell.fill('31');
  for (let n = 0; n < 12; n += 1) await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await cell.evaluate((field) => {
    const data = new DataTransfer();
    data.setData('text/plain', Array.from({ length: 200 }, (_, i) => `${20 + i}\t${400 + i}`).join('\n'));
    field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await page.waitForTimeout(1500);
}

/** The policy sheet over 50,000 items × 15 locations in a real browser: from a scroll to any place until its rows are there.
 *  95th percentile of sixty; baseline: the same on a sheet of one item, whose rows are all there. The goal of 300 ms is one
 *  of the value. And the longest task of the page meanwhile, a block of two columns and 200 rows pasted included. */
export async function gridBench(): Promise<Figure[]> {
  const { settings } = await largeBooks();
  const { build, serve, endServer } = await lib('application.mjs');
  const { freePort } = await lib('database.mjs');
  await build();
  const port = await freePort();
  const env = {
    VORRAT_DB_PORT: String(settings.port),
    VORRAT_DB_USER: settings.user,
    VORRAT_DB_PASSWORD: settings.password,
    VORRAT_DB_NAME: settings.database,
    VORRAT_CLOCK: '2026-11-23T09:00:00Z',
  };
  const server = await serve({ port, env, output: 'inherit' });
  const browser = await chromium.launch(launchOptions);
  try {
    const page = await browser.newPage({ baseURL: `http://127.0.0.1:${port}`, viewport: { width: 1280, height: 800 } });
    const signedIn = await page.request.post('/api/session', { data: { login: 'mira', password: 'quillon' } });
    if (!signedIn.ok()) throw new Error(`not signed in: ${signedIn.status()}`);
    // What keeps the page from answering: tasks over 50 ms, as the browser tells them (W3C Long Tasks).
    await page.addInitScript(`window.longTasks = [];
      new PerformanceObserver((l) => window.longTasks.push(...l.getEntries().map((e) => e.duration)))
        .observe({ type: 'longtask', buffered: true })`);
    const longest = () => page.evaluate<number>('Math.max(0, ...window.longTasks)');
    const few = await jumps(page, '/policies?q=10412-01');
    await work(page);
    const baselineTask = await longest();
    const many = await jumps(page, '/policies');
    await work(page);
    const longestTask = await longest();
    const [value, baseline] = [quantile(many, 0.95), quantile(few, 0.95)];
    return [
      {
        name: `grid: any of ${ITEMS * (LOCATIONS + 1)} rows in view, 95th percentile, goal of the value; baseline: a sheet of one item`,
        value: Math.round(value),
        unit: 'ms',
        baseline: Math.round(baseline),
        ratio: Number((value / baseline).toFixed(2)),
        goal: 300,
      },
      {
        name: `grid: longest task while ${ITEMS * (LOCATIONS + 1)} rows are scrolled, filled and pasted, goal of the value; baseline: a sheet of one item`,
        value: Math.round(longestTask),
        unit: 'ms',
        baseline: Math.round(baselineTask),
        ratio: Number((longestTask / Math.max(1, baselineTask)).toFixed(2)),
        goal: 200,
      },
    ];
  } finally {
    await browser.close();
    await endServer(server);
  }
}
