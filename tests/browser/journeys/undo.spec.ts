import { expect, needRow, signIn, test, waiting } from '../support';

const MOSS = ['Fen merino 4-ply, moss', 'Harbour Street'] as const;

// What was done can be undone at the foot of the page; not over what somebody else has done since, and that is said.
test('two browsers: an undo takes back one’s own step, and is refused whole over another’s', async ({
  page,
  world,
  browser,
  baseURL,
}) => {
  await signIn(page, 'mira');
  const strip = page.getByRole('status').filter({ has: page.getByRole('button', { name: 'Undo' }) });
  const before = Number(await waiting(page, 'Needs').locator('span').first().textContent());
  const row = needRow(page, ...MOSS);
  await row.focus();
  await page.keyboard.press('7');
  await page.keyboard.press('Enter');
  await expect(page.getByText('in the Hollinmere Spinners tray')).toBeVisible();
  await expect(strip).toContainText('7 bags of Fen merino 4-ply, moss for Harbour Street');
  await expect(waiting(page, 'Needs')).toContainText(String(before - 1));

  // By keyboard: the row is open again, with what was typed.
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: 7 bags of Fen merino 4-ply, moss')).toBeVisible();
  await expect(row.getByRole('button', { name: 'Accept' })).toBeVisible();
  await expect(waiting(page, 'Needs')).toContainText(String(before));
  await expect(waiting(page, 'Trays')).toContainText('0');

  await row.focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('in the Hollinmere Spinners tray')).toBeVisible();
  await page.goto('/trays');
  await page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).click();
  await page.waitForURL(/\/orders\/\d+$/);
  await expect(strip).toContainText('A draft was made from Hollinmere Spinners');

  // Find, from anywhere: an item by its name, a page by its own; Enter takes the first.
  const order = new URL(page.url()).pathname;
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do' }).fill('merino 4-ply, slate');
  await expect(page.getByRole('option', { name: /Fen merino 4-ply, slate/ })).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Fen merino 4-ply, slate/ })).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.getByRole('combobox', { name: 'Find or do' }).fill('hollinmere');
  await page.getByRole('option', { name: /^draft/ }).click();
  await expect(page).toHaveURL(new RegExp(`${order}$`));

  const other = await (await browser.newContext({ baseURL, locale: 'en-GB' })).newPage();
  await signIn(other, 'otto');
  await other.goto(order);
  const quantity = other.getByLabel(/^Quantity of Fen merino 4-ply, moss/);
  await quantity.fill('9');
  await quantity.press('Enter');
  await expect(other.getByRole('status')).toContainText('The quantity was changed to 9');

  await strip.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Not undone' })).toContainText(
    'Otto Quillon has worked on this since (line 1: quantity); nothing was undone.',
  );
  const states = () =>
    world.rows(
      'SELECT o.state, t.state AS line FROM purchase_order o JOIN tray_line t ORDER BY o.id DESC, t.id DESC LIMIT 1',
    );
  expect(await states()).toEqual([{ state: 'draft', line: 'ordered' }]);

  // Otto takes back his own step; then nothing of his stands in the way of his own undo, but Mira's is still refused.
  await other.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(other.getByText('Undone: The quantity was changed to 9')).toBeVisible();
  await expect(quantity).toHaveValue('7');
});
