import { quantile } from '../../../scripts/benchmarks/figure';
import { openAndPlan, ROWS, rowInFocus, scan, sellOut, typeAll } from '../../../scripts/benchmarks/handScript';
import { expect, signIn, test } from '../support';

const DELAY_MS = 150;
const OFFLINE_MS = 60_000;

// Nothing here is about time: a slow machine may take it.
test.setTimeout(900_000);

// The absolute goals (focus p95 < 50 ms, no task > 200 ms) are figures of the bench; here it counts that nothing is lost.
test('two hundred needs by hand, with scans, a conflict, an expired session and a minute without line', async ({
  page,
  context,
  browser,
  baseURL,
  world,
}) => {
  await signIn(page, 'mira');
  await sellOut(
    page,
    await world.rows(
      "SELECT item_id AS itemId, location_id AS locationId, on_hand AS onHand FROM level l JOIN location p ON p.id = l.location_id WHERE p.kind <> 'transit'",
    ),
  );
  const openCount = async () =>
    Number((await world.rows<{ n: number }>("SELECT COUNT(*) AS n FROM need WHERE state = 'open'"))[0]?.n);
  const planned = await openAndPlan(page, DELAY_MS);
  expect(planned).toHaveLength(ROWS);
  const left = (await openCount()) - ROWS;
  const keys = await context.newCDPSession(page);

  const other = await (await browser.newContext({ baseURL, locale: 'en-GB' })).newPage();
  await signIn(other, 'otto');
  const contested = planned[60];
  if (!contested) throw new Error('no sixtieth need');
  const decide = async () => {
    const [need] = await world.rows<{ fingerprint: string }>('SELECT fingerprint FROM need WHERE id = ?', [
      contested.needId,
    ]);
    const input = { needId: contested.needId, fingerprint: need?.fingerprint, packs: '3' };
    const sent = await other.request.post('/api/commands/accept-need', { data: { key: 'otto-was-first-here', input } });
    expect(sent.status()).toBe(200);
  };
  const field = () => page.locator('[data-current=true] input').inputValue();

  const happenings: Record<number, () => Promise<void>> = {
    // Scans in between: of something that is not in the list, and of the item the hand is at.
    20: async () => {
      const before = await field();
      await scan(keys, '4006381333931');
      await expect(page.getByRole('alert').filter({ hasText: '4006381333931' })).toBeVisible();
      expect(await field()).toBe(before);
    },
    30: async () => {
      await page.keyboard.press('7');
      await scan(keys, '96385074');
      await expect(page.getByRole('alert').filter({ hasText: '96385074' })).toBeVisible();
      // The field is restored: the one digit of the hand is there, and so is the caret behind it.
      expect(await field()).toBe('7');
      await page.keyboard.press('Escape');
    },
    40: async () => {
      const item = planned[45]?.item ?? '';
      const first = planned.findIndex((p) => p.item === item);
      await scan(keys, item);
      await expect.poll(() => rowInFocus(page)).toBe(planned[first]?.index);
    },
    // The conflict is forced while the list is open and the hand has not come there yet.
    50: decide,
    // The session ends under the hand; the question comes when the hand rests.
    100: async () => {
      await world.rows('DELETE FROM session WHERE user_id = 1');
    },
    110: async () => {
      await expect(page.getByRole('heading', { name: 'Sign in again' })).toBeVisible();
      await page.getByLabel('Name').fill('mira');
      await page.getByLabel('Password').fill('quillon');
      await page.keyboard.press('Enter');
      await expect(page.getByRole('heading', { name: 'Sign in again' })).toBeHidden();
    },
    150: async () => {
      await context.setOffline(true);
      setTimeout(() => context.setOffline(false), OFFLINE_MS);
    },
  };
  const figures = await typeAll(page, planned, happenings);
  // The strip said that entries wait; with the line back they are saved without anybody doing anything.
  await expect(page.getByText('entries wait here and will be saved when the line is back')).toBeVisible();
  await expect(page.getByText('will be saved')).toBeHidden({ timeout: OFFLINE_MS + 30_000 });
  await expect(page.getByText('entries are being saved')).toBeVisible();
  await expect(page.getByText('entries are being saved')).toBeHidden({ timeout: 60_000 });
  await expect(page.getByText(/^\d+ needs/)).toHaveText(`${left} needs`, { timeout: 30_000 });

  const decided = await world.rows<{ needId: number; packs: string; user: number }>(
    'SELECT d.need_id AS needId, t.pack_quantity AS packs, d.user_id AS user FROM decision d JOIN tray_line t ON t.decision_id = d.id',
  );
  const wanted = planned.map((p) =>
    p === contested
      ? { needId: p.needId, packs: '3.000000', user: 2 }
      : { needId: p.needId, packs: `${p.packs}.000000`, user: 1 },
  );
  const byNeed = (a: { needId: number }, b: { needId: number }) => a.needId - b.needId;
  expect([...decided].sort(byNeed)).toEqual([...wanted].sort(byNeed));

  // The contested row says so, with the entry still in it.
  await page.getByRole('grid').evaluate((grid, top) => {
    grid.scrollTop = top;
  }, contested.index * 44);
  const row = page.locator(`[data-index="${contested.index}"]`);
  await expect(row.getByRole('alert')).toContainText(/already decided|changed meanwhile/);
  await expect(row.getByRole('textbox')).toHaveValue(contested.packs);

  // Every Enter moved on before its own answer was there.
  expect(figures.focus.length).toBeGreaterThanOrEqual(ROWS - 1);
  expect(figures.focus.filter((f) => !f.before)).toEqual([]);
  const p95 = quantile(
    figures.focus.map((f) => f.ms),
    0.95,
  );
  console.log(JSON.stringify({ focusP95Ms: p95, longestTaskMs: figures.longestTaskMs }));
});
