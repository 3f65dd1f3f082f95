import { expect, signIn, test } from '../support';

test('what an order costs: charges, discount, account, landed; a job taken over; numbers and paper as set up', async ({
  page,
}) => {
  // The owner sets how orders are numbered and what stands on their paper, and sees it at once.
  await signIn(page, 'otto');
  await page.goto('/setup/papers');
  await page.getByLabel('Pattern').fill('MM-##');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText(/with a month it needs the year too/)).toBeVisible();
  await page.getByLabel('Pattern').fill('PO-YY-####');
  await page.getByLabel('Next', { exact: true }).fill('120');
  await expect(page.getByRole('heading', { name: 'Purchase order PO-26-0120' })).toBeVisible();
  await page.getByLabel('Above the lines').fill('We order as agreed:');
  await page.getByLabel('their number').uncheck();
  const looks = page.getByRole('region', { name: 'How it looks' });
  await expect(looks).toContainText('We order as agreed:');
  await expect(looks).not.toContainText('Your number');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('Nothing is changed yet.')).toBeVisible();
  await page.context().clearCookies();

  // A supplier overseas: its charges fill in, what a ball costs landed follows each change.
  await signIn(page, 'mira');
  await page.goto('/orders/new');
  await page.keyboard.type('tallow');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Begin the order' }).click();
  await page.getByRole('combobox', { name: 'Add a line' }).fill('40 11340-01');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/Added: 40 bag/)).toBeVisible();
  const sums = page.getByRole('complementary');
  await expect(sums).toContainText('Sea freight');
  await expect(sums).toContainText('without tax: the customs are paid');
  const landed = page.getByRole('button', { name: /^What .* costs landed$/ });
  const before = (await landed.textContent()) ?? '';
  await page.getByRole('button', { name: 'Change Sea freight' }).click();
  await page.getByLabel('How much').fill('much');
  await page.getByRole('button', { name: 'Set it so' }).click();
  await expect(page.getByText('“much” is not a price.')).toBeVisible();
  await page.getByLabel('How much').fill('310');
  await page.getByLabel('Spread').selectOption('by value');
  await page.getByRole('button', { name: 'Set it so' }).click();
  await expect(sums).toContainText('310.00');
  await expect(sums).toContainText('usually 140.00');
  await expect(landed).not.toHaveText(before);
  await landed.click();
  await expect(page.getByText('Share of Sea freight')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(sums).not.toContainText('310.00');

  // A discount, the account by shares, and what a job of ours needs.
  await page.getByRole('button', { name: /^Discount and booking of/ }).click();
  await page.getByLabel(/^Discount on/).fill('10');
  await page.keyboard.press('Enter');
  await expect(page.getByText('less 10 %')).toBeVisible();
  await page.getByLabel(/^Account of/).fill('3400 60, 4930 window 30');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The shares come to 90 %; together they have to be 100 %.')).toBeVisible();
  await page.getByLabel(/^Account of/).fill('3400 60, 4930 window 40');
  await page.keyboard.press('Enter');
  await expect(page.getByText('booked to 3400 60 %, 4930 window 40 %')).toBeVisible();
  await page.getByRole('button', { name: 'Asked for by name' }).click();
  await page.getByLabel(/for job W-13/).check();
  await page.getByRole('button', { name: 'Take 1 line' }).click();
  await expect(page.getByText(/for job W-13, Sample blankets/)).toBeVisible();

  // The owner is asked, and approves on the phone: head, what differs, sums and who asks, nothing wider than the screen.
  await page.getByRole('button', { name: 'Ask for approval' }).click();
  await page.getByLabel('Who is asked').selectOption('Otto Quillon, by mail');
  await page.getByLabel('What to say').fill('Ten percent, by phone');
  await page.getByLabel('What to say').press('Enter');
  await expect(page.getByText(/Mira Rook asks Otto Quillon to approve/)).toBeVisible();
  await page.context().clearCookies();
  await page.setViewportSize({ width: 390, height: 844 });
  await signIn(page, 'otto');
  await page.goto('/today');
  await page.getByRole('link', { name: /Orders to approve/ }).click();
  const asked = page.getByRole('row', { name: /draft, Tallow/ });
  await asked.getByRole('link').click();
  await expect(page.getByText('Ten percent, by phone', { exact: true })).toBeVisible();
  await expect(sums).toContainText('Sea freight');
  await expect(page.getByText('less 10 %')).toBeVisible();
  expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);

  // Approved, it has the next number of the pattern, and its paper says what was agreed.
  await page.getByRole('button', { name: 'Approve', exact: true }).click();
  await expect(page.getByText('PO-26-0120', { exact: true })).toBeVisible();
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto('/orders?q=order:PO-26 net>100');
  await expect(page.getByRole('heading', { name: '1 order' })).toBeVisible();
  await page.getByRole('row', { name: /PO-26-0120/ }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('link', { name: 'Print 1' }).click();
  await expect(page.getByRole('heading', { name: '1 purchase order', exact: true })).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Purchase order PO-26-0120' })).toBeVisible();
  await expect(page.getByText('We order as agreed:')).toBeVisible();
  await expect(page.getByText('less 10 %')).toBeVisible();
  await expect(page.getByText('For W-13')).toBeVisible();

  // What else waits is approved from the list, marked.
  await page.goto('/orders?show=approve');
  await page.getByRole('row', { name: /draft, Hekkelund/ }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Approve 1' }).click();
  await expect(page.getByText('1 order done.')).toBeVisible();
  await page.goto('/orders?q=order:PO-26');
  await expect(page.getByRole('row', { name: /PO-26-0121, Hekkelund/ })).toBeVisible();
});
