import { expect, signIn, test } from '../support';

// A morning with the list: what can't wait first, one thing put off, one left out, one asked for besides, one split over two,
// the rest accepted at once; what it becomes is looked at before it is made, and made, and undone.
test('the list from the first look to orders that are made', async ({ page, world }) => {
  await signIn(page, 'mira');
  await page.goto('/today');
  const waits = page.getByRole('table', { name: 'What waits' });
  await expect(waits.getByRole('link', { name: /^Needs to decide: 30 needs, €/ })).toBeVisible();
  await waits.getByRole('link', { name: /^Too late already/ }).click();
  await page.waitForURL(/\/needs\?show=late&by=urgent/);
  const rows = page.getByRole('row').filter({ has: page.getByRole('gridcell') });
  await expect(rows.first()).toContainText('days short');

  // Narrowed and in another order; kept as a view for everybody.
  await page.getByLabel('Which needs').selectOption('All needs');
  await page.getByLabel('In which order').selectOption('by place');
  await expect(page.getByRole('grid').getByText('Harbour Street', { exact: true }).first()).toBeVisible();
  await page.getByLabel('Search needs').fill('merino old');
  await expect(rows.filter({ hasText: 'Fen merino' })).toHaveCount(1);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 of 30 needs');
  await page.getByText('Views', { exact: true }).click();
  await page.getByLabel('Keep this view as').fill('Merino at the mill');
  await page.getByLabel('for everybody').check();
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Merino at the mill' })).toBeVisible();

  // Put off by keyboard, and undone; left out with a reason.
  await page.goto('/needs');
  const chalk = page.getByRole('row', { name: /^Fen merino 4-ply, chalk, Old Mill/ });
  await chalk.focus();
  await page.keyboard.press('p');
  const window = page.getByRole('dialog');
  await window.getByLabel(/^Until/).fill('yesterday');
  await page.keyboard.press('Enter');
  await expect(window.getByRole('alert')).toContainText('is not a date');
  await window.getByLabel(/^Until/).fill('+7');
  await page.keyboard.press('Enter');
  await expect(window).toHaveCount(0);
  await expect(chalk).toContainText('put off until Mon 30 Nov');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(chalk.getByRole('button', { name: /^Accept/ })).toBeVisible();
  await chalk.focus();
  await page.keyboard.press('l');
  await window.getByLabel(/^Why/).fill('The shade is sold off');
  await page.keyboard.press('Enter');
  await expect(chalk).toContainText('left out');

  // Asked for by hand: a part of its need on top of the policy's.
  await page.keyboard.press('n');
  await window.getByLabel('What is needed').fill('10412-07 30');
  await page.keyboard.press('Enter');
  await expect(window.getByText(/^30 balls of Fen merino 4-ply, moss for/)).toBeVisible();
  await window.getByRole('button', { name: 'Show them in the list' }).click();
  const moss = page.getByRole('row', { name: /^Fen merino 4-ply, moss, Harbour Street/ });
  await expect(moss).toContainText('by hand');

  // Split over two who can bring it.
  const rust = page.getByRole('row', { name: /^Fen merino 4-ply, rust, Wendel Yard/ });
  await rust.focus();
  await expect(page.getByRole('heading', { name: /^Ways/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /^Take way 1/ })).toBeVisible();
  await page.keyboard.press('s');
  await window.getByRole('textbox').nth(0).fill('5');
  await window.getByRole('textbox').nth(1).fill('3');
  await window.getByRole('button', { name: 'Take these 2' }).click();
  await expect(rust).toContainText('and ');

  // Two marked, accepted together; then all that is left without a warning.
  await page.getByRole('row', { name: /^Fen merino 4-ply, slate/ }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('Space');
  const marked = page.getByRole('toolbar', { name: 'Marked needs' });
  await expect(marked).toContainText('2 marked');
  await marked.getByRole('button', { name: 'Accept as suggested' }).click();
  await expect(page.getByRole('row', { name: /^Fen merino 4-ply, slate/ })).toContainText(
    'in the Hollinmere Spinners tray',
  );
  await page.getByRole('button', { name: 'Accept all shown' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'with a warning stayed' })).toBeVisible();
  // The row under the hand is in view whole, however high those above it turn out to be.
  await rust.focus();
  await page.keyboard.press('End');
  const isWhole = () =>
    page.evaluate(() => {
      const row = document.activeElement?.closest('[role=row]')?.getBoundingClientRect();
      const grid = document.querySelector('[role=grid]')?.getBoundingClientRect();
      return row !== undefined && grid !== undefined && row.top >= grid.top && row.bottom <= grid.bottom + 1;
    });
  await expect.poll(isWhole).toBe(true);

  // What was decided, as it was.
  await page.goto('/needs/decisions?show=left_out');
  const left = page.getByRole('row', { name: /chalk/ });
  await expect(left).toContainText('for good: The shade is sold off');
  await expect(page.getByRole('heading', { name: /as it was then/ })).toBeVisible();
  await left.getByRole('button', { name: /^Bring .* back$/ }).click();
  await expect(page.getByRole('heading', { name: 'Nothing is left out' })).toBeVisible();

  // What the trays become is seen before it is made; one is held back; it is made, and undone.
  await page.goto('/trays');
  await page.getByLabel('hold it back').check();
  await expect(page.getByText('Stays here when orders are made.')).toBeVisible();
  await page.getByRole('button', { name: /^Make \d+ orders$/ }).click();
  await expect(window.getByRole('table', { name: 'Orders to be made' })).toContainText('Hollinmere Spinners');
  await expect(window.getByText(/^Held back, and stays: /)).toBeVisible();
  await window.getByRole('button', { name: /^Make \d+ orders$/ }).click();
  const made = window.getByRole('table', { name: 'Orders made' });
  await expect(made.getByRole('row', { name: /Hollinmere Spinners/ })).toContainText('a new draft');
  await window.getByRole('button', { name: 'Close' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('1 tray');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('1 tray');

  // Every decision is on file, none was lost on the way.
  const kinds = await world.rows<{ kind: string; n: number }>(
    "SELECT kind, CAST(COUNT(*) AS SIGNED) AS n FROM decision WHERE kind IN ('put_off', 'leave_out') GROUP BY kind ORDER BY kind",
  );
  expect(kinds).toEqual([
    { kind: 'put_off', n: 1 },
    { kind: 'leave_out', n: 1 },
  ]);
});
