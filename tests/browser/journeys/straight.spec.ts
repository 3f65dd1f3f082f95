import { expect, signIn, startWorker, test } from '../support';

// A customer wants what is not there, sent to them by its supplier: from their order over need, tray and purchase order to the dispatch
// that closes both. What others lack is decided in one window; and needs are split across suppliers together.
test('straight to a customer, what others lack, and needs split across suppliers', async ({ page, world }) => {
  await signIn(page, 'mira');
  await page.goto('/promises?show=waiting');
  await page.getByRole('button', { name: 'Decide what is short' }).click();
  const window = page.getByRole('dialog');
  await expect(window.getByRole('row', { name: /^Tailor’s shears/ })).toContainText('Hob Tarrow');
  await window.getByLabel(/^To decide: Sewing pattern/).fill('');
  await window.getByLabel(/^To decide: Tailor/).fill('12');
  await window.getByRole('button', { name: 'Decide 1' }).click();
  await expect(window).toHaveCount(0);
  await expect(page.getByText('1 need of customers’ orders decided')).toBeVisible();

  // Decided on the customer's order.
  await page.getByRole('link', { name: 'Sewing circle of the Weir House' }).first().click();
  const line = page.getByRole('row', { name: /^Sewing pattern, Dunlin trousers/ });
  await line.getByLabel(/^Way of/).selectOption('straight from the supplier');
  await expect(line).toContainText('no address of Sewing circle of the Weir House is on file');
  await expect(line).toContainText('6 by nothing');
  await line.getByRole('button', { name: 'Into the tray' }).click();
  await expect(line).toContainText('in the tray');

  // Fixed where it is bought: the order names the customer, and no place expects it.
  await page.goto('/trays');
  await page.getByRole('button', { name: 'Make order for Kestrelby Patterns' }).click();
  await page.waitForURL(/\/orders\/\d+/);
  await expect(page.getByRole('row', { name: /Dunlin trousers/ })).toContainText(
    'straight to Sewing circle of the Weir House',
  );
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByRole('heading', { name: 'Sent straight to customers' })).toBeVisible();
  await page.getByLabel('Dispatch note').fill('KP 118');
  await page.getByLabel(/^Sent of/).fill('7');
  await page.getByRole('button', { name: 'Confirm dispatch' }).click();
  await expect(
    page.getByText(/^CO2611-0004 of Sewing circle of the Weir House: 6 handed over, receipt R/),
  ).toContainText('1 more than it asks for');
  const [sewn] = await world.rows<{ handed: string; moved: number }>(
    `SELECT l.handed_over AS handed, (SELECT COUNT(*) FROM movement m WHERE m.item_id = l.item_id AND m.document_kind = 'receipt') AS moved
       FROM customer_line l JOIN customer_order o ON o.id = l.order_id WHERE o.number = 'CO2611-0004' AND l.way = 'straight'`,
  );
  expect(sewn).toMatchObject({ handed: '6.000000' });

  // Six needs together: below the minimum of one supplier, then with none.
  const split = async () => {
    await page.goto('/needs');
    await page
      .getByRole('row', { name: /^Satin ribbon/ })
      .first()
      .focus();
    for (let n = 0; n < 6; n += 1) await page.keyboard.press('Space');
    await page
      .getByRole('toolbar', { name: 'Marked needs' })
      .getByRole('button', { name: /^Split/ })
      .click();
  };
  const worker = await startWorker(world);
  await split();
  await expect(window.getByRole('status')).toContainText('No assignment reaches every supplier’s minimum', {
    timeout: 40_000,
  });
  await expect(window.getByRole('button', { name: 'Take it over' })).toBeDisabled();
  await window.getByRole('button', { name: 'Leave it' }).click();
  await world.rows('UPDATE supplier SET order_minimum_minor = 0');
  await split();
  const costs = window.getByRole('table', { name: 'What it costs' });
  await expect(costs.getByRole('row', { name: /^As assigned/ })).toBeVisible({ timeout: 40_000 });
  await expect(window.getByRole('table', { name: 'How needs are assigned' }).getByRole('row')).toHaveCount(7);
  await window.getByRole('button', { name: 'Take it over' }).click();
  await expect(window).toHaveCount(0);
  await expect(page.getByText('6 needs went into trays as assigned')).toBeVisible();
  await expect(page.getByRole('row', { name: /^Satin ribbon/ }).first()).toContainText('tray');
  worker.kill();
});
