import { expect, signIn, startStandins, startWorker, test } from '../support';

test('a new order by keyboard: begun, typed line by line, approved, told, confirmed otherwise, changed', async ({
  world,
  page,
}) => {
  await signIn(page, 'mira');
  await page.goto('/orders');
  await page.getByRole('link', { name: 'New order' }).press('Enter');

  // The supplier by a few letters: terms, address and contact fill in.
  await expect(page.getByLabel('Supplier', { exact: true })).toBeFocused();
  await page.keyboard.type('hollin');
  await page.keyboard.press('Enter');
  await expect(page.getByText('14 days 2 %, 30 days net')).toBeVisible();
  await page.keyboard.press('Enter');

  // Line after line in the one field; it is ready for the next at once.
  const field = page.getByRole('combobox', { name: 'Add a line' });
  await expect(field).toBeFocused();
  await page.keyboard.type('6 bag fen moss');
  await expect(page.getByRole('listbox', { name: 'What fits' }).getByRole('option').first()).toContainText(
    '6 bags · Fen merino 4-ply, moss',
  );
  await page.keyboard.press('Enter');
  await expect(page.getByText('Added: 6 bag Fen merino 4-ply, moss.')).toBeVisible();
  // By hand: a scan is quicker.
  await page.keyboard.type('10412-04 10', { delay: 60 });
  await page.keyboard.press('Enter');
  await expect(page.getByText('Added: 10 bag Fen merino 4-ply, brick.')).toBeVisible();
  await expect(page.getByLabel('Price of Fen merino 4-ply, brick')).toHaveValue('31.40');

  // Rows from a spreadsheet: what is understood is taken, the rest given back.
  await page.getByRole('button', { name: 'Paste rows' }).click();
  await page.getByLabel('Rows').fill('10412-01\t2\tbag\nno such thing\t4');
  await page.getByRole('button', { name: 'Take the rows' }).click();
  await expect(page.getByText('“no such thing 4” is no item of ours.')).toBeVisible();
  await expect(page.getByLabel('Rows')).toHaveValue('no such thing\t4');

  // A charge, and a line over two deliveries.
  await page.getByRole('button', { name: 'Something else' }).click();
  await page.getByLabel('What it is').selectOption('charge');
  await page.getByLabel('Description').fill('Dyeing to our shade');
  await page.getByLabel('Price each').fill('35');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByText('Added: Dyeing to our shade.')).toBeVisible();
  await page.getByRole('button', { name: 'Split Fen merino 4-ply, brick, Harbour Street' }).click();
  await page.getByLabel('Packs', { exact: true }).fill('4');
  await page.getByLabel('Wanted', { exact: true }).fill('18 dec');
  await page.getByRole('button', { name: 'Split off' }).click();
  await expect(page.getByText('together 10 bags, 100 balls')).toBeVisible();

  await page.getByRole('button', { name: 'Approve', exact: true }).click();
  await expect(page.getByText('2611-0003', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Send', exact: true }).click();
  await page.getByLabel('How it goes').selectOption('phone');
  await page.getByLabel('Told to').fill('Ms Ferrow');
  await page.getByRole('button', { name: 'Mark as sent, final' }).click();
  await expect(page.getByText(/sent by phone to Ms Ferrow/)).toBeVisible();

  // Confirmed with another date and another price.
  await page.getByRole('button', { name: 'Confirmed', exact: true }).click();
  await page.getByLabel('Comes on, Fen merino 4-ply, moss, Harbour Street').fill('11 dec');
  await page.getByLabel('Their price of Fen merino 4-ply, moss').fill('33.40');
  await page.getByRole('button', { name: 'Confirmed like this' }).click();
  await expect(page.getByText('wanted Tue 1 Dec')).toBeVisible();
  await expect(page.getByText('as confirmed')).toBeVisible();

  // A change has a number, says what differs, and can be dropped.
  await page.getByRole('button', { name: 'Change it' }).click();
  await page.getByLabel('Quantity of Fen merino 4-ply, moss, Harbour Street').fill('8');
  await page.keyboard.press('Enter');
  await expect(page.getByText('6 bags → 8 bags')).toBeVisible();
  await page.getByRole('button', { name: 'Approve change 1' }).click();
  await expect(page.getByText(/Change 1, approved by Mira Rook/)).toBeVisible();
  expect(await world.rows("SELECT state, amendment_no AS no FROM purchase_order WHERE number = '2611-0003'")).toEqual([
    { state: 'approved', no: 1 },
  ]);

  // Its paper is a PDF.
  const pdf = await page.request.get((await page.getByRole('link', { name: 'PDF' }).getAttribute('href')) ?? '');
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  const standins = await startStandins(world);
  const worker = await startWorker(world, standins.env);
  // From the list: marked and sent together, asked about with one key; what is to be seen again is kept.
  await page.goto('/orders?q=order:2611-0003');
  const row = page.getByRole('row', { name: /2611-0003/ });
  await row.focus();
  await page.keyboard.press('Space');
  await expect(page.getByText('1 order marked')).toBeVisible();
  await page.getByRole('button', { name: 'Send 1 by mail, final' }).click();
  await expect(page.getByText('1 order done.')).toBeVisible();
  await expect(page.getByText('1 order marked')).toBeHidden();
  await expect
    .poll(() => world.rows("SELECT state FROM purchase_order WHERE number = '2611-0003'"), { timeout: 20_000 })
    .toEqual([{ state: 'sent' }]);
  await page.reload();
  await row.focus();
  await page.keyboard.press('m');
  await expect(page.getByText(/is asked about 2611-0003 by mail, and again on/)).toBeVisible();
  await page.getByText('Views', { exact: true }).click();
  await page.getByLabel('Keep this view as').fill('The moss order');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.goto('/orders');
  await page.getByText('Views 1', { exact: true }).click();
  await page.getByRole('link', { name: 'The moss order' }).click();
  await expect(page.getByRole('heading', { name: '1 order' })).toBeVisible();
  worker.kill();
  standins.child.kill();
});
