import type { Page } from '@playwright/test';
import type { Pool } from 'mysql2/promise';
import { prepareDemo, withDemoPage } from './demoPage';
import type { Figure } from './figure';

const LINES = 20;
const STANDING = 100;

/** Types lines into the one field of an order that has so many already; the longest task of the page meanwhile, in ms. */
async function longestTask(page: Page, pool: Pool, standing: number): Promise<number> {
  const [rows] = await pool.query(
    `SELECT f.supplier_id AS supplierId, i.number FROM source f JOIN item i ON i.id = f.item_id
      WHERE f.supplier_id = (SELECT supplier_id FROM source GROUP BY supplier_id ORDER BY COUNT(*) DESC LIMIT 1)
        AND i.status = 'active' ORDER BY i.id LIMIT ${STANDING + LINES}`,
  );
  const sold = rows as { supplierId: number; number: string }[];
  const send = async <T>(name: string, input: object): Promise<T> => {
    const key = `bench-entry-${name}-${standing}-xxxxxxxx`;
    const response = await page.request.post(`/api/commands/${name}`, { data: { key, input } });
    if (!response.ok()) throw new Error(`${name}: ${await response.text()}`);
    return ((await response.json()) as { value: T }).value;
  };
  const supplierId = sold[0]?.supplierId ?? 0;
  const { orderId } = await send<{ orderId: number }>('new-order', { supplierId, locationId: 1, addressId: null });
  if (standing > 0) {
    const pasted = sold.slice(0, standing).map((s) => `${s.number}\t2`);
    await send('paste-lines', { orderId, locationId: 1, rows: pasted });
  }
  await page.goto(`/orders/${orderId}`);
  await page.evaluate(`window.longest = 0; new PerformanceObserver((list) => {
    for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration);
  }).observe({ type: 'longtask' });`);
  const field = page.getByRole('combobox', { name: 'Add a line' });
  for (const { number } of sold.slice(-LINES)) {
    await field.focus();
    await page.keyboard.type(`3 ${number}`, { delay: 125 });
    await page.getByRole('listbox', { name: 'What fits' }).getByRole('option').first().waitFor();
    const saved = page.waitForResponse((r) => r.url().endsWith('/add-order-line'));
    await page.keyboard.press('Enter');
    await saved;
  }
  return page.evaluate('window.longest') as Promise<number>;
}

/** The longest task of the page while twenty lines are typed at 8 keys a second into an order of a hundred lines; baseline: into an
 *  empty one. The goal is of the value. */
export async function entryBench(): Promise<Figure[]> {
  await prepareDemo();
  const empty = await withDemoPage('entry', (page, pool) => longestTask(page, pool, 0));
  const full = await withDemoPage('entry', (page, pool) => longestTask(page, pool, STANDING));
  return [
    {
      name: `entry: longest task while ${LINES} lines are typed into an order of ${STANDING}, goal of the value; baseline: into an empty one`,
      ...{ value: Math.round(full), unit: 'ms', baseline: Math.round(empty) },
      ...{ ratio: Number((full / Math.max(1, empty)).toFixed(2)), goal: 200 },
    },
  ];
}
