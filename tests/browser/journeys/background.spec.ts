import { expect, signIn, startStandins, startWorker, test } from '../support';

// What happens beside the page: mail goes out and arrives, needs are reckoned afresh, goods booked in by mistake go back.
test('mail, work in the background, a receipt reversed, and closed books', async ({
  page,
  world,
  browser,
  baseURL,
}) => {
  const standins = await startStandins(world);
  const worker = await startWorker(world, standins.env);
  await signIn(page, 'otto');

  // An approved order goes out by mail and arrives as it was written.
  await page.goto('/orders/7');
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByRole('button', { name: /^Send to .*, final$/ }).click();
  await expect(page.getByText(/Goes out by mail to|sent by mail/).first()).toBeVisible();
  await page.goto('/mailbox');
  await expect(async () => {
    await page.reload();
    await expect(page.getByText('As it arrived in the mailbox stand-in.')).toBeVisible({ timeout: 500 });
  }).toPass();
  await expect(page.getByRole('complementary')).toContainText('from "Quillon Yarn & Cloth"');
  await expect(page.getByRole('complementary')).toContainText('6 × bag, = 60 ball, Wendel Yard');
  await expect(page.getByRole('complementary')).toContainText('Beside it: order-2611-0002.pdf');
  await page.goto('/orders/7');
  await expect(page.getByText(/sent by mail to .* Mon 23 Nov/)).toBeVisible();

  // Goods booked in are taken back whole, and expected again.
  await page.goto('/arrivals/7/4');
  await page.getByRole('button', { name: 'All as expected' }).click();
  await page.getByRole('button', { name: 'Book in 1 line' }).click();
  await expect(page).toHaveURL(/\/orders\/7$/);
  await page.getByRole('button', { name: /^Reverse receipt R/ }).click();
  await page.getByLabel('Why').fill('the neighbour’s pallet');
  await page.getByRole('button', { name: /^Reverse R/ }).click();
  await expect(page.getByText('reversed by Otto Quillon: the neighbour’s pallet')).toBeVisible();
  const [level] = await world.rows<{ same: number }>(
    `SELECT l.on_hand = (SELECT SUM(m.on_hand_change) FROM movement m WHERE m.item_id = l.item_id AND m.location_id = 4
        AND m.document_kind <> 'receipt') AS same
       FROM level l JOIN order_line o ON o.item_id = l.item_id AND o.order_id = 7 WHERE l.location_id = 4 LIMIT 1`,
  );
  expect(level?.same).toBe(1);

  // Needs that are out of date are found and mended by the worker; the page says how far it is.
  await page.goto('/work');
  await world.rows('UPDATE item_location_state SET fingerprint = 1 WHERE item_id < 40');
  await page.getByRole('button', { name: 'Reckon all needs afresh' }).click();
  const job = page.getByRole('row', { name: /All needs, reckoned afresh/ });
  const [{ n }] = (await world.rows<{ n: number }>('SELECT COUNT(*) AS n FROM item')) as [{ n: number }];
  await expect(job.getByText(`${n} of ${n} items`)).toBeVisible();
  await expect(job.getByText('done')).toBeVisible();
  expect(await world.rows('SELECT * FROM item_location_state WHERE fingerprint = 1')).toEqual([]);

  // The bookkeeper closes October; nothing is posted there any more.
  const books = await (await browser.newContext({ baseURL, locale: 'en-GB' })).newPage();
  await signIn(books, 'edda');
  await books.goto('/setup/books');
  await books.getByLabel('Closed to and with').fill('2026-10-31');
  await books.getByRole('button', { name: 'Close', exact: true }).click();
  await expect(books.getByText('closed to 31 Oct 2026')).toBeVisible();
  const lines = [{ itemId: 1, quantity: '1', allocationId: null }];
  const late = await page.request.post('/api/commands/sell-goods', {
    data: { key: 'a-sale-in-october-1', input: { locationId: 1, businessDate: '2026-10-31', lines } },
  });
  expect(late.status()).toBe(422);
  expect(await late.json()).toEqual({ ok: false, failure: { kind: 'books_closed', to: '2026-10-31' } });
  worker.kill();
  standins.child.kill();
});
