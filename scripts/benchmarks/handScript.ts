import { setTimeout as pause } from 'node:timers/promises';
import type { CDPSession, Page } from '@playwright/test';

/** Two hundred needs decided by a hand: 8 keys a second, two digits and Enter for each. */
export const ROWS = 200;
const KEY_MS = 125;
/** So many lines are reckoned before a sale is answered; of more, the rest would be left to the worker. */
const LINES_AT_ONCE = 200;

type Entry = {
  readonly kind: string;
  readonly id: number;
  readonly itemNumber: string;
  readonly supplierId: number | null;
};
export type Planned = {
  readonly index: number;
  readonly needId: number;
  readonly item: string;
  readonly packs: string;
};

/** What happens beside the hand, by the number of the entry before which it does. */
export type Happenings = Readonly<Record<number, () => Promise<void>>>;

export type HandFigures = {
  /** From each Enter to the focus on another row, in ms; and whether the answer to that entry was still out then. */
  readonly focus: readonly { readonly ms: number; readonly before: boolean }[];
  readonly longestTaskMs: number;
};

/** Sells all stock everywhere, so that every pair with a policy is short. */
export async function sellOut(
  page: Page,
  stock: readonly { readonly itemId: number; readonly locationId: number; readonly onHand: string }[],
): Promise<void> {
  for (const locationId of new Set(stock.map((s) => s.locationId))) {
    const lines = stock
      .filter((s) => s.locationId === locationId && Number(s.onHand) > 0)
      .map((s) => ({ itemId: s.itemId, quantity: String(Number(s.onHand)), allocationId: null }));
    for (let from = 0; from < lines.length; from += LINES_AT_ONCE) {
      const input = { locationId, businessDate: '', lines: lines.slice(from, from + LINES_AT_ONCE), mixLots: true };
      const key = `sell-everything-at-${locationId}-${from}`.padEnd(24, '-');
      const sold = await page.request.post('/api/commands/sell-goods', { data: { key, input } });
      if (!sold.ok()) throw new Error(`not sold at ${locationId}: ${await sold.text()}`);
    }
  }
}

/** Opens Needs with so much delay on every answer, and plans an entry for each of the first two hundred rows that can be
 *  accepted: two digits that differ from row to row. */
export async function openAndPlan(page: Page, delayMs: number): Promise<Planned[]> {
  if (delayMs > 0) {
    await page.route('**/api/**', async (route) => {
      await pause(delayMs);
      await route.continue().catch(() => undefined);
    });
  }
  const opened = page.waitForResponse((r) => r.url().includes('/api/grids/needs') && r.ok());
  await page.goto('/needs', { waitUntil: 'networkidle' });
  await page.getByRole('grid', { name: 'Needs' }).waitFor();
  // More than a page is there, so the second is on its way before anybody looks at it.
  await page.evaluate(`document.querySelector('[role=grid]').scrollTop = 100000`);
  const list = new URL((await opened).url()).searchParams.get('list');
  const planned: Planned[] = [];
  for (let from = 0; planned.length < ROWS; from += 200) {
    const answer = await page.request.get(`/api/grids/needs?list=${list}&from=${from}`);
    const { rows } = ((await answer.json()) as { value: { rows: Entry[] } }).value;
    if (rows.length === 0) throw new Error(`only ${planned.length} needs can be accepted`);
    for (const [i, r] of rows.entries()) {
      const packs = String(10 + ((planned.length * 37) % 90));
      if (r.kind === 'need' && r.supplierId !== null && planned.length < ROWS)
        planned.push({ index: from + i, needId: r.id, item: r.itemNumber, packs });
    }
  }
  await page.evaluate(`document.querySelector('[role=grid]').scrollTop = 0`);
  return planned;
}

/** Measures in the page: on Enter, how long until another row has the focus, and whether its answer had come by then. As
 *  text, because it runs in the page. */
const MEASURE = `(() => {
  const seen = { enters: [], focus: [], longest: 0 };
  window.seen = seen;
  const rowOf = (e) => e && e.closest && e.closest('[data-index]');
  let entered = null;
  window.addEventListener('keydown', (e) => {
    if (e.key === 'Enter') entered = { at: e.timeStamp, row: rowOf(e.target) && rowOf(e.target).dataset.index };
  }, { capture: true });
  window.addEventListener('focusin', (e) => {
    const row = rowOf(e.target);
    if (!entered || !row || row.dataset.index === entered.row) return;
    const saves = performance.getEntriesByType('resource').filter((r) => r.name.includes('/accept-need')).length;
    seen.focus.push({ ms: performance.now() - entered.at, saves });
    entered = null;
  });
  performance.setResourceTimingBufferSize(5000);
  new PerformanceObserver((list) => {
    for (const t of list.getEntries()) seen.longest = Math.max(seen.longest, t.duration);
  }).observe({ type: 'longtask' });
})()`;

/** The index of the row that has the focus, or whose field has it; -1 when none has. */
export const rowInFocus = (page: Page): Promise<number> =>
  page.evaluate<number>(`Number(document.activeElement.closest('[data-index]')?.dataset.index ?? -1)`);

/** A scanner: keys ten milliseconds apart by their own clock, however busy the machine is. */
export async function scan(keys: CDPSession, code: string): Promise<void> {
  await pause(300);
  const start = Date.now() / 1000 - (code.length + 1) * 0.01;
  for (const [i, char] of [...code, 'Enter'].entries()) {
    const key = { key: char, timestamp: start + i * 0.01 };
    const text = char === 'Enter' ? '\r' : char;
    await keys.send('Input.dispatchKeyEvent', { type: 'keyDown', ...key, text });
    await keys.send('Input.dispatchKeyEvent', { type: 'keyUp', ...key });
  }
}

/** Waits until a row has the focus, moving towards it by arrows as a person does who looks at the screen. */
async function goTo(page: Page, index: number): Promise<void> {
  for (let n = 0; n < 40; n += 1) {
    const at = await rowInFocus(page);
    if (at === index) return;
    await page.keyboard.press(at < index ? 'ArrowDown' : 'ArrowUp');
    await pause(30);
  }
  throw new Error(`row ${index} was not reached`);
}

/** Types all that was planned, at the pace of a hand; never waits for the server. */
export async function typeAll(
  page: Page,
  planned: readonly Planned[],
  happenings: Happenings = {},
): Promise<HandFigures> {
  await page.getByRole('grid', { name: 'Needs' }).locator('[data-current=true]').focus();
  await page.evaluate(MEASURE);
  const press = async (key: string) => {
    const next = pause(KEY_MS);
    await page.keyboard.press(key);
    await next;
  };
  for (const [n, entry] of planned.entries()) {
    await happenings[n]?.();
    const at = await rowInFocus(page);
    // The next row has the focus by itself; only after a scan that went elsewhere the hand has to go back.
    if (at !== entry.index) await goTo(page, entry.index);
    for (const digit of entry.packs) await press(digit);
    await press('Enter');
  }
  const seen = await page.evaluate<{ focus: { ms: number; saves: number }[]; longest: number }>('window.seen');
  return {
    focus: seen.focus.map(({ ms, saves }, i) => ({ ms, before: saves <= i })),
    longestTaskMs: seen.longest,
  };
}
