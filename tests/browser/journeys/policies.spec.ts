import { expect, signIn, test, waiting } from '../support';

// The policy sheet as a spreadsheet: select, fill, paste, set by rule; what it would do is known before it is saved.
test('minimums are filled down, pasted and set by rule, looked at, saved and undone', async ({ page, world }) => {
  await signIn(page, 'mira');
  await page.goto('/policies?q=10412-02');
  const min = (place: string) => page.getByLabel(`Minimum of Fen merino 4-ply, straw, ${place}`);
  const max = (place: string) => page.getByLabel(`Maximum of Fen merino 4-ply, straw, ${place}`);
  const bar = page.getByRole('region', { name: 'Changes not saved' });
  const ownMin = (number: string) =>
    world.rows<{ place: number; q: string }>(
      `SELECT p.location_id AS place, p.min_quantity AS q FROM policy p JOIN item i ON i.id = p.item_id
        WHERE i.number = ? AND p.location_id IS NOT NULL AND p.min_quantity IS NOT NULL ORDER BY 1`,
      [number],
    );
  const before = await ownMin('10412-02');
  const needs = await waiting(page, 'Needs').textContent();

  // Typed in one place, filled down to the next two.
  await min('Harbour Street').fill('31');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Shift+ArrowDown');
  await page.keyboard.press('Control+d');
  await expect(min('Old Mill')).toHaveValue('31');
  await expect(min('Market Hall')).toHaveValue('31');
  await expect(bar).toContainText('3 cells changed');
  await expect(bar).toContainText(/tied up at max/);
  // Nothing is saved yet.
  expect(await ownMin('10412-02')).toEqual(before);

  // A fault is marked in its cell before anything is sent; the rest can be saved.
  await max('Old Mill').fill('4');
  await expect(page.getByText('Minimum 31 is above maximum 4.')).toBeVisible();
  await expect(min('Old Mill')).toHaveAttribute('aria-invalid', 'true');
  await expect(bar.getByRole('button', { name: 'Save what is right' })).toBeEnabled();

  // Pasted from a spreadsheet over it: two columns, two rows.
  await min('Old Mill').focus();
  await page.keyboard.press('Escape');
  await min('Old Mill').evaluate((cell) => {
    const data = new DataTransfer();
    data.setData('text/plain', '40\t120\n22\t66');
    cell.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
  });
  await expect(max('Old Mill')).toHaveValue('120');
  await expect(min('Market Hall')).toHaveValue('22');
  await expect(max('Market Hall')).toHaveValue('66');
  await expect(page.getByText('is above maximum')).toHaveCount(0);

  // Saved in one step, with one Undo.
  await bar.getByRole('button', { name: 'Save' }).click();
  await expect(bar).toHaveCount(0);
  const saved = new Map((await ownMin('10412-02')).map((r) => [r.place, Number(r.q)]));
  expect([saved.get(1), saved.get(2), saved.get(3)]).toEqual([31, 40, 22]);
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/^Undone: /)).toBeVisible();
  expect(await ownMin('10412-02')).toEqual(before);
  await expect(waiting(page, 'Needs')).toHaveText(needs ?? '');

  // By rule, for what is shown; one change after the other can be taken back before it is saved.
  await page.getByRole('button', { name: 'Set by rule' }).click();
  const dialog = page.getByRole('dialog', { name: 'Set by rule' });
  await dialog.getByLabel('Number of days').fill('none');
  await dialog.getByRole('button', { name: 'Put into the sheet' }).click();
  await expect(dialog.getByRole('alert')).toHaveText('“none” is no number of days.');
  await dialog.getByLabel('Number of days').fill('12');
  const all = dialog.getByLabel(/^all \d+ lines? shown$/);
  await all.check();
  await dialog.getByRole('button', { name: 'Put into the sheet' }).click();
  await expect(bar).toContainText(/\d cells changed/);
  const figure = Number(await min('Harbour Street').inputValue());
  expect(figure % 10).toBe(0);
  await bar.getByRole('button', { name: 'Undo' }).click();
  await expect(bar).toHaveCount(0);
  expect(await ownMin('10412-02')).toEqual(before);

  // What is advised stands beside the line with its parts, and is taken with one press.
  await min('Harbour Street').focus();
  const take = page.getByRole('button', { name: 'Take this value' });
  await expect(take).toBeVisible();
  await take.click();
  await expect(bar).toContainText('1 cell changed');
});
