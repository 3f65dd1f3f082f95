import { expect, signIn, test } from '../support';

// "What about my order?": taken by keyboard, part of it put by, the rest covered by an order that is on its way; the customer
// is told; it arrives, and all of it is handed over.
test('a customer’s order from the counter to its hand-over', async ({ page, world }) => {
  await signIn(page, 'mira');
  await page.goto('/promises/new');
  await page.getByLabel('Customer', { exact: true }).fill('Ottoline Wrexley');
  await page.getByLabel('Mail').fill('ottoline@wrexley');
  await page.getByLabel(/^Wanted/).fill('+21');
  const entry = page.getByLabel('Add a line');
  // Quantity, pack and item in any order; the first that fits is taken.
  await entry.fill('2 bag fen moss');
  await entry.press('Enter');
  await expect(
    page
      .getByText('more is asked for')
      .or(page.getByText('bag', { exact: true }))
      .first(),
  ).toBeVisible();
  await entry.fill('22610-01 two');
  await entry.press('Enter');
  await expect(page.getByText('Nothing fits “22610-01 two”').first()).toBeVisible();
  await entry.fill('22610-01 1,5');
  await entry.press('Enter');
  const lines = page.getByRole('table', { name: 'Lines' });
  await expect(lines.getByRole('row')).toHaveCount(4);
  // What was typed survives leaving the page.
  await page.goto('/promises');
  await page.goto('/promises/new');
  await expect(lines.getByRole('row')).toHaveCount(4);
  await page.getByLabel('Mail').fill('ottoline at wrexley');
  await page.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByText('“ottoline at wrexley” is no mail address.')).toBeVisible();
  await page.getByLabel('Mail').fill('ottoline@wrexley.example');
  await page.getByLabel('Wanted: Fen merino 4-ply, moss').fill('today');
  await page.getByRole('button', { name: 'Take it' }).click();
  await page.waitForURL(/\/promises\/\d+$/);
  const path = new URL(page.url()).pathname;

  // 20 balls: 12 are there, 8 come with the order that is on its way.
  const moss = page.getByRole('row', { name: /moss/ });
  await expect(moss.getByRole('cell').nth(4)).toContainText('12');
  await expect(moss.getByRole('cell').nth(5)).toHaveText('8');
  await expect(moss.getByRole('link', { name: '2611-0002' })).toBeVisible();
  await expect(moss).toContainText('Tue 1 Dec');
  await expect(moss).toContainText('8 days late');

  // It is told, and a need says why.
  await page.getByRole('button', { name: 'Tell the customer' }).click();
  const window = page.getByRole('dialog');
  await expect(window.getByLabel('Text')).toHaveValue(/12 ready, the rest expected on 2026-12-01/);
  await window.getByRole('button', { name: /^Send to ottoline/ }).click();
  await expect(window).toHaveCount(0);
  await expect(moss).toContainText('told Tue 1 Dec');
  await page.goto('/needs');
  await expect(
    page.getByRole('row', { name: /Fen merino 4-ply, moss, Harbour Street, below minimum, customer waits/ }),
  ).toBeVisible();

  // It arrives: what came is put by, and the order says so at once.
  await page.goto('/arrivals/7/1');
  await page.getByRole('button', { name: 'All as expected' }).click();
  await page.getByRole('button', { name: /^Book in/ }).click();
  await expect(page.getByText(/put by for CO2611-0009, Ottoline Wrexley/)).toBeVisible();
  await page.goto(path);
  await expect(moss.getByRole('cell').nth(5)).toHaveText('–');
  // The denim is wanted later and not put by yet; it goes along all the same.
  await expect(page.getByRole('row', { name: /Denim/ })).toContainText('put by nearer the day');
  await page.getByLabel('Goes now: Denim 10 oz 150 cm, raw indigo').fill('1.5');
  await page.getByRole('button', { name: 'Hand over', exact: true }).click();
  await expect(page.getByText(/^Handed over on sale S2611-/)).toBeVisible();
  await expect(page.getByText('all handed over')).toBeVisible();
  const [row] = await world.rows<{ state: string; sold: string }>(
    `SELECT o.state, (SELECT SUM(-m.on_hand_change) FROM movement m WHERE m.document_kind = 'sale' AND m.document_id = h.document_id) AS sold
       FROM customer_order o JOIN customer_line l ON l.order_id = o.id JOIN customer_hand_over h ON h.line_id = l.id
      WHERE o.id = ? LIMIT 1`,
    [Number(path.split('/').at(-1))],
  );
  expect(row).toMatchObject({ state: 'done', sold: '21.500000' });

  // Cancelled by mistake, and undone.
  await page.goto('/promises/4');
  await page.getByRole('button', { name: 'Cancel what is open' }).click();
  await expect(page.getByText('cancelled', { exact: true }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('open', { exact: true })).toBeVisible();
  // A need is covered another way than its row shows: W and its number.
  await page.goto('/needs');
  const slate = page.getByRole('row', { name: /Fen merino 4-ply, slate, Harbour Street/ });
  await slate.focus();
  const ways = page.getByRole('heading', { name: /^Ways/ });
  await expect(ways).toContainText('stock runs out');
  const alone = page.getByRole('button', { name: /^Take way \d: Hollinmere Spinners$/ }).first();
  const number = /^Take way (\d)/.exec((await alone.getAttribute('aria-label')) ?? '')?.[1] ?? '';
  await page.keyboard.press('w');
  await expect(ways).toContainText('press its number');
  await page.keyboard.press(number);
  await expect(slate).toContainText('tray');
  const [taken] = await world.rows<{ packs: string; supplier: string }>(
    `SELECT t.pack_quantity AS packs, s.name AS supplier FROM tray_line t JOIN supplier s ON s.id = t.supplier_id ORDER BY t.id DESC LIMIT 1`,
  );
  expect(taken).toMatchObject({ packs: '10.000000', supplier: 'Hollinmere Spinners' });

  await page.goto('/promises?show=ended');
  await expect(page.getByRole('row', { name: /Ottoline Wrexley/ })).toHaveCount(2);
});
