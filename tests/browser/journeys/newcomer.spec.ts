import { newcomer } from '../../newcomer';
import { emptyCompany, expect, needRow, ready, SETUP_CODE, startWorker, test, waiting } from '../support';

const titles: Readonly<Record<keyof typeof newcomer, string>> = {
  locations: 'Locations',
  suppliers: 'Suppliers',
  items: 'Items',
  packs: 'Packs',
  sources: 'Sources',
  prices: 'Price lists',
  'opening-stock': 'Opening stock',
};

// Monday morning with three spreadsheets; by noon there is an order.
test('an empty company brings its files, sets a minimum, and orders', async ({ page, world, request }) => {
  await emptyCompany(world);
  const worker = await startWorker(world);

  // Nobody can sign in yet, and nobody without the code becomes the owner.
  await page.goto('/needs');
  await expect(page).toHaveURL(/\/welcome$/);
  await page.getByLabel('As the start command has printed it').fill('guessed');
  await page.getByLabel('Name', { exact: true }).fill('Tansy & Thread');
  await page.getByLabel('Full name').fill('Wilma Tansy');
  await page.getByLabel('Name to sign in with').fill('wilma');
  await page.getByLabel('Password, 10 characters or more').fill('thimble and thread');
  await page.getByRole('button', { name: 'Set up the company' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'not the code' })).toBeVisible();
  expect(await world.rows('SELECT id FROM company')).toEqual([]);
  await page.getByLabel('As the start command has printed it').fill(SETUP_CODE);
  await page.getByLabel('Password, 10 characters or more').fill('short');
  await page.getByRole('button', { name: 'Set up the company' }).click();
  await expect(page.getByText('A password needs at least 10 characters')).toBeVisible();
  await page.getByLabel('Password, 10 characters or more').fill('thimble and thread');
  await expect(page.getByLabel('Time zone')).toHaveValue('Europe/Berlin');
  await page.getByRole('button', { name: 'Set up the company' }).click();
  await expect(page).toHaveURL(/\/sheets$/);
  await ready(page);

  // The template that one fills in, and what is on file, come as files.
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Items: template as XLSX' }).click();
  expect((await download).suggestedFilename()).toBe('Items-template.xlsx');

  for (const [kind, title] of Object.entries(titles) as [keyof typeof newcomer, string][]) {
    await page.goto('/sheets');
    const buffer = Buffer.from(newcomer[kind] as string | Buffer);
    await page
      .getByLabel(`File of ${title}`, { exact: true })
      .setInputFiles({ name: `${kind}.csv`, mimeType: 'text/csv', buffer });
    await expect(page.getByRole('button', { name: 'Check the rows' })).toBeVisible();
    if (kind === 'suppliers') {
      // How the file is read is shown, with what tells it.
      await expect(page.getByText('CSV, windows-1252, separated by semicolon.')).toBeVisible();
      await expect(page.getByRole('radio', { name: 'comma: 1234,5' })).toBeChecked();
      await expect(page.getByText('“150,00” tells')).toBeVisible();
      await expect(page.getByLabel('Delivery time is our')).toHaveValue('lead_time_days');
    }
    await page.getByRole('button', { name: 'Check the rows' }).click();
    if (kind === 'items') {
      await expect(page.getByRole('button', { name: '2 wrong' })).toHaveAttribute('aria-pressed', 'true');
      await expect(page.getByText('Unit: “XYZ” is no unit')).toBeVisible();
      await expect(page.getByText('Sale price: “abc” is not a number with a decimal point.')).toBeVisible();
      const faulty = page.waitForEvent('download');
      await page.getByRole('link', { name: 'The 2 wrong rows as a file' }).click();
      const stream = await (await faulty).createReadStream();
      let text = '';
      for await (const chunk of stream) text += chunk;
      expect(
        text
          .replace('\ufeff', '')
          .split('\r\n')
          .map((l) => l.slice(0, 6)),
      ).toEqual(['Number', '0811,L', '0900,T', '']);
      await page.getByRole('button', { name: '4 new' }).click();
      await expect(page.getByRole('row', { name: /0701/ })).toContainText('Marrow wool, ash');
      expect(await world.rows('SELECT id FROM item')).toEqual([]);
    }
    await page.getByRole('button', { name: /^Bring in \d row/ }).click();
    await expect(page.getByRole('status')).toContainText(/\d new, 0 changed/);
  }

  // The same file again is on file just so.
  await page.goto('/sheets');
  const again = { name: 'stock.csv', mimeType: 'text/csv', buffer: Buffer.from(newcomer['opening-stock']) };
  await page.getByLabel('File of Opening stock').setInputFiles(again);
  await page.getByRole('button', { name: 'Check the rows' }).click();
  await expect(page.getByText('No row is new or changed: there is nothing to bring in.')).toBeVisible();

  // The pages show it.
  await page.goto('/items');
  await expect(page.getByRole('heading', { name: '4 items' })).toBeVisible();
  await expect(page.getByText('stock worth €289.33')).toBeVisible();
  await expect(page.getByRole('row', { name: /^Marrow wool, ash/ })).toContainText('Olmbrücke Garne');

  // A minimum is set, a need appears, an order is made.
  await page.goto('/policies?q=0701');
  await page.getByLabel('Minimum of Marrow wool, ash, Station Road').fill('10');
  await page.getByLabel('Maximum of Marrow wool, ash, Station Road').fill('40');
  await page.getByLabel('Maximum of Marrow wool, ash, Station Road').press('Control+S');
  await expect(waiting(page, 'Needs')).toHaveText('Needs1');
  await waiting(page, 'Needs').click();
  const need = needRow(page, 'Marrow wool, ash', 'Station Road');
  await need.getByRole('button', { name: 'Accept' }).click();
  await expect(need.getByText('in the Olmbrücke Garne tray')).toBeVisible();
  await waiting(page, 'Trays').click();
  await page.getByRole('button', { name: 'Make order for Olmbrücke Garne' }).click();
  await expect(page.getByText('draft, number at approval', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByText('2611-0001', { exact: true })).toBeVisible();
  // 36 short, in bags of 10: 4 bags at 31.00.
  expect(
    await world.rows('SELECT pack_quantity AS packs, base_quantity AS base, price_amount AS price FROM order_line'),
  ).toEqual([{ packs: '4.000000', base: '40.000000', price: '31.000000' }]);

  // What is refused says so: not signed in, an unknown kind, a body that is no file of a known size.
  expect((await request.post('/api/sheets/items', { data: 'x' })).status()).toBe(401);
  expect((await page.request.post('/api/sheets/nonsense', { data: 'x' })).status()).toBe(404);
  expect((await request.get('/api/sheets/items/records')).status()).toBe(401);
  expect((await page.request.get('/api/imports/999/faulty')).status()).toBe(404);
  worker.kill();
});
