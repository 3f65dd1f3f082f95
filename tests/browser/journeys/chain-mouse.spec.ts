import { expect, needRow, signIn, test, waiting } from '../support';

test('a short shelf becomes goods on the shelf, by mouse', async ({ page, world }) => {
  await signIn(page, 'mira');
  await expect(page.getByRole('heading', { name: '30 needs' })).toBeVisible();
  await expect(waiting(page, 'Needs')).toHaveText('Needs30');

  // Why: the sum as on paper.
  const moss = needRow(page, 'Fen merino 4-ply, moss', 'Harbour Street');
  await moss.getByText('below min').click();
  const panel = page.getByRole('complementary', { name: 'Reckoning' });
  await expect(panel.getByRole('heading', { name: 'Why 54' })).toBeVisible();
  await expect(panel.getByText('Refill to maximum').locator('../..')).toContainText('76');
  await expect(panel.getByText('Whole bags of 10').locator('../..')).toContainText('60');
  await expect(panel.getByText('6 balls more than needed, €19.68')).toBeVisible();
  await expect(panel.getByText('Hollinmere Spinners, 8 bags')).toBeVisible();

  // Accept one as suggested, one corrected, one of another supplier.
  await moss.getByRole('button', { name: 'Accept' }).click();
  await expect(moss.getByText('in the Hollinmere Spinners tray')).toBeVisible();
  const chalk = needRow(page, 'Fen merino 4-ply, chalk', 'Old Mill');
  await chalk.getByRole('textbox').fill('7');
  await expect(chalk.getByText('70 balls')).toBeVisible();
  await chalk.getByRole('button', { name: 'Accept' }).click();
  await expect(chalk.getByText('in the Hollinmere Spinners tray')).toBeVisible();
  const linen = needRow(page, 'Half-linen 150 cm, natural', 'Wendel Yard');
  await page.mouse.wheel(0, 2_000);
  await expect(linen.getByText('150.876 m')).toBeVisible();
  await linen.getByRole('button', { name: 'Accept' }).click();
  await expect(linen.getByText('in the Tesselow Weaving tray')).toBeVisible();
  await expect(waiting(page, 'Needs')).toHaveText('Needs27');
  await expect(waiting(page, 'Trays')).toHaveText('Trays2');

  // Trays, and out again into Needs.
  await waiting(page, 'Trays').click();
  const sums = page.getByRole('complementary', { name: 'Sums' });
  await expect(sums.getByText('Hollinmere Spinners').last().locator('../..')).toContainText('426.40');
  await page.getByRole('button', { name: 'Back to Needs: Half-linen 150 cm, natural at Wendel Yard' }).click();
  await expect(page.getByRole('heading', { name: '1 tray' })).toBeVisible();
  await expect(waiting(page, 'Needs')).toHaveText('Needs28');

  // A draft, put back once, made again.
  await page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).click();
  await expect(page.getByText('draft, number at approval', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Put back into trays' }).click();
  await page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).click();
  await expect(page.getByText('draft, number at approval', { exact: true })).toBeVisible();

  // Corrected in the draft: a quantity, a day, a price that differs from the list. The page shows the price before the
  // answer to it is read, and Approve is pressed in between.
  const slowReads = [0, 700, 2_500];
  await page.route('**/api/reads/frame', async (route) => {
    await new Promise((r) => setTimeout(r, slowReads.shift() ?? 0));
    await route.continue();
  });
  await page.getByLabel('Quantity of Fen merino 4-ply, chalk, Old Mill').fill('6');
  await page.getByLabel('Wanted date of Fen merino 4-ply, chalk, Old Mill').fill('wk 50');
  await page.getByLabel('Price of Fen merino 4-ply, moss').fill('32,10');
  await page.getByLabel('Price of Fen merino 4-ply, moss').press('Enter');
  await expect(page.getByText('list 32.80')).toBeVisible();
  await expect(page.getByLabel('Wanted date of Fen merino 4-ply, chalk, Old Mill')).toHaveValue('Mon 7 Dec');
  const order = page.getByRole('complementary', { name: 'Sums and approval' });
  await expect(order.getByText('Order, net').locator('../..')).toContainText('389.40');
  await expect(order.getByText('10.60 short of the minimum of 400.00')).toBeVisible();

  await order.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByText('2611-0003', { exact: true })).toBeVisible();
  await page.unrouteAll({ behavior: 'wait' });

  // On paper.
  await order.getByRole('link', { name: 'Print' }).click();
  await expect(page.getByRole('heading', { name: 'Purchase order 2611-0003' })).toBeVisible();
  await expect(page.getByText('6 × bag, = 60 ball, Harbour Street')).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await page.emulateMedia({ media: 'screen' });
  await page.getByRole('link', { name: 'Back to the order' }).click();

  await order.getByRole('button', { name: 'Send', exact: true }).click();
  await order.getByLabel('How it goes').selectOption('on paper');
  await order.getByRole('button', { name: 'Mark as sent, final' }).click();
  await expect(page.getByText('sent on paper Mon 23 Nov')).toBeVisible();

  // Part of the goods for Harbour Street, in bags; later the rest.
  await order.getByRole('link', { name: 'Book in' }).click();
  await page.getByRole('link', { name: 'Book in order 2611-0003 at Harbour Street' }).click();
  await page.getByLabel('Counted Fen merino 4-ply, moss').fill('4');
  await expect(page.getByText('20 balls stay expected')).toBeVisible();
  await page.getByLabel('Delivery note').fill('DN 5511');
  await page.getByRole('button', { name: 'Book in 1 line' }).click();
  await expect(page.getByText('40 of 60 balls came')).toBeVisible();
  await expect(page.getByText('delivery note DN 5511')).toBeVisible();
  expect(
    await world.rows(
      "SELECT on_hand AS q FROM level l JOIN item i ON i.id = l.item_id WHERE i.number = '10412-07' AND location_id = 1",
    ),
  ).toEqual([{ q: '52.000000' }]);

  await waiting(page, 'Arrivals').click();
  await page.getByRole('link', { name: 'Book in order 2611-0003 at Harbour Street' }).click();
  await page.getByRole('button', { name: 'All as expected' }).click();
  await page.getByRole('button', { name: 'Book in 1 line' }).click();
  await expect(page.getByText('60 of 60 balls came')).toBeVisible();

  // The item's page tells it all.
  await page.getByRole('link', { name: 'Fen merino 4-ply, moss' }).click();
  await expect(page.getByRole('row', { name: /^Harbour Street own min\/max/ })).toContainText('72');
  await expect(page.getByRole('row', { name: /goods receipt R2611-0004/ })).toContainText('+20');
  expect(await world.rows('SELECT state, number FROM purchase_order ORDER BY id DESC LIMIT 2')).toEqual([
    { state: 'sent', number: '2611-0003' },
    { state: 'put_back', number: null },
  ]);
  // 60 balls came for 192.60; nothing was rounded away between the two receipts.
  expect(
    await world.rows(
      'SELECT SUM(value_minor) AS v FROM goods_receipt_line x JOIN goods_receipt r ON r.id = x.receipt_id JOIN purchase_order o ON o.id = r.order_id WHERE o.number = ?',
      ['2611-0003'],
    ),
  ).toEqual([{ v: '19260' }]);
});
