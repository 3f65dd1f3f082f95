import { expect, needRow, signIn, test } from '../support';

test('two people at once lose nothing', async ({ page: mira, browser, baseURL, world }) => {
  const other = await browser.newContext({ baseURL, locale: 'en-GB', viewport: { width: 1280, height: 800 } });
  const otto = await other.newPage();
  await signIn(mira, 'mira');
  await signIn(otto, 'otto');

  // The same need: one wins, the other is told who and what, in the row.
  const ember = ['Marl sock yarn, ember', 'Market Hall'] as const;
  await needRow(mira, ...ember)
    .getByRole('button', { name: 'Accept' })
    .click();
  await expect(needRow(mira, ...ember).getByText('in the Narrowick Wool tray')).toBeVisible();
  await needRow(otto, ...ember)
    .getByRole('textbox')
    .fill('5');
  await needRow(otto, ...ember)
    .getByRole('button', { name: 'Accept' })
    .click();
  await expect(needRow(otto, ...ember).getByRole('alert')).toContainText(/already decided|changed meanwhile/);
  await expect(needRow(otto, ...ember).getByRole('textbox')).toHaveValue('5');
  expect(await world.rows('SELECT COUNT(*) AS n FROM tray_line')).toEqual([{ n: 1 }]);

  // Changes by others wait until they are asked for.
  await needRow(otto, 'Upland aran, granite', 'Harbour Street').getByRole('button', { name: 'Accept' }).click();
  await needRow(mira, 'Fen merino 4-ply, moss', 'Harbour Street').getByRole('button', { name: 'Accept' }).click();
  await mira.getByRole('button', { name: '1 changed, show' }).click();
  await expect(needRow(mira, 'Upland aran, granite', 'Harbour Street')).toHaveCount(0);

  // The same order.
  await mira.goto('/trays');
  await mira.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).click();
  await expect(mira.getByText('draft, number at approval', { exact: true })).toBeVisible();
  await otto.goto(mira.url());
  const moss = 'Fen merino 4-ply, moss';
  const quantity = `Quantity of ${moss}, Harbour Street`;
  const fill = async (page: typeof mira, label: string, value: string) => {
    await page.getByLabel(label).fill(value);
    await page.getByLabel(label).press('Enter');
  };
  await fill(mira, quantity, '8');
  await expect(mira.getByText('80 balls')).toBeVisible();
  // Cells that don't touch are both kept.
  await fill(otto, 'Price of Upland aran, granite', '24');
  await expect(otto.getByText('list 24.75')).toBeVisible();
  await expect(otto.getByLabel(quantity)).toHaveValue('8');
  // The same cell is shown, and what was typed stays.
  await fill(mira, quantity, '9');
  await expect(mira.getByText('90 balls')).toBeVisible();
  await fill(otto, quantity, '11');
  await expect(otto.getByText('Mira Rook changed this meanwhile to “9”. Your entry is still here.')).toBeVisible();
  await expect(otto.getByLabel(quantity)).toHaveValue('11');
  await otto.getByLabel(quantity).press('Escape');

  // Approving what was not read is refused and says who changed what.
  await fill(mira, 'Price of Upland aran, granite', '23.5');
  await expect(mira.getByText('list 24.75')).toBeVisible();
  await otto.getByRole('button', { name: 'Approve' }).click();
  await expect(otto.getByRole('complementary').getByRole('alert')).toContainText(
    'Mira Rook changed this order meanwhile',
  );
  await otto.getByRole('button', { name: 'Show it as it is now' }).click();
  await expect(otto.getByLabel('Price of Upland aran, granite')).toHaveValue('23.50');
  await otto.getByRole('button', { name: 'Approve' }).click();
  await expect(otto.getByText('2611-0003', { exact: true })).toBeVisible();
  expect(
    await world.rows(
      'SELECT description AS d, pack_quantity AS packs, price_amount AS price FROM order_line l JOIN purchase_order o ON o.id = l.order_id WHERE o.number = ? ORDER BY line_no',
      ['2611-0003'],
    ),
  ).toEqual([
    { d: moss, packs: '9.000000', price: '32.800000' },
    { d: 'Upland aran, granite', packs: '6.000000', price: '23.500000' },
  ]);
  await other.close();
});
