import { cpSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, endServer, serve, startWorker } from './lib/application.mjs';
import { bootstrap } from './lib/bootstrap.mjs';
import { Database, freePort } from './lib/database.mjs';
import { main, root, say } from './lib/say.mjs';
import { CLOCK, seededFolder } from './lib/testData.mjs';

/** The pictures of docs/screenshots, from the demo data on the tests' day. */
main(async () => {
  await bootstrap(['database', 'browser']);
  await build();
  const folder = join(root, '.data', 'screenshots');
  rmSync(folder, { recursive: true, force: true });
  cpSync(await seededFolder(), folder, { recursive: true });
  const database = await new Database(folder).start();
  const port = await freePort();
  const env = { ...database.env(), VORRAT_CLOCK: CLOCK };
  const server = await serve({ port, env, output: 'ignore' });
  const worker = await startWorker({ env, output: 'ignore' });
  const { chromium } = await import('@playwright/test');
  const launchOptions = JSON.parse(readFileSync(join(root, 'scripts', 'lib', 'chromium.json'), 'utf8'));
  const browser = await chromium.launch(launchOptions);
  try {
    await pictures(browser, `http://127.0.0.1:${port}`);
  } finally {
    await browser.close();
    await endServer(server);
    await endServer(worker);
    await database.stop('SIGKILL');
    rmSync(folder, { recursive: true, force: true });
  }
});

/** A price list as a supplier sends it, with what goes wrong in such files. */
const priceList = [
  'Item number;Vendor;Valid from;Price;Per;Packing;From quantity;Discount %',
  '10412-07;HOL;01.01.2027;33,60;1;bag;0;',
  '10412-11;HOL;01.01.2027;33,60;1;bag;0;',
  '10412-12;HOL;01.01.2027;33,60;1;sack;0;',
  '10412-03;HOL;01.01.2027;33.60;1;bag;0;',
  '99412-01;HOL;01.01.2027;33,60;1;bag;0;',
  '10412-02;HOL;31.02.2027;33,60;1;bag;0;',
  '10412-07;HOL;01.01.2027;31,90;1;bag;20;120',
  '22017-01;HOL;01.01.2027;12,10;1;;0;',
].join('\n');

async function open(browser, baseURL, login, options = {}) {
  const context = await browser.newContext({
    baseURL,
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    ...options,
  });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByLabel('Name').fill(login);
  await page.getByLabel('Password').fill('quillon');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await page.waitForURL((url) => !url.pathname.startsWith('/sign-in'));
  return page;
}

async function pictures(browser, baseURL) {
  const out = join(root, 'docs', 'screenshots');
  mkdirSync(out, { recursive: true });
  const shoot = async (page, name) => {
    await page.waitForLoadState('networkidle');
    await page.getByText('Loading', { exact: true }).first().waitFor({ state: 'detached' });
    await page.screenshot({ path: join(out, `${name}.png`) });
    say(name);
  };
  const row = (page, name) => page.getByRole('row', { name: new RegExp(`^${name}, [^,]*, below minimum`) });
  /** Only rows near the window are drawn. */
  const scrollTo = async (page, name) => {
    await page.mouse.move(400, 500);
    for (let i = 0; i < 20 && (await row(page, name).count()) === 0; i += 1) {
      await page.mouse.wheel(0, 300);
      await page.waitForTimeout(150);
    }
  };

  const phone = await open(browser, baseURL, 'jun', { viewport: { width: 390, height: 844 } });
  await phone.goto('/arrivals/7/3');
  await phone.getByLabel('Counted Fen merino 4-ply, brick').fill('1');
  await shoot(phone, 'phone');

  const page = await open(browser, baseURL, 'mira');
  await page.goto('/needs');
  await row(page, 'Fen merino 4-ply, moss').focus();
  await page.getByRole('button', { name: /^Take way 1/ }).waitFor();
  await shoot(page, 'needs');
  for (const name of [
    'Fen merino 4-ply, chalk',
    'Fen merino 4-ply, moss',
    'Fen merino 4-ply, slate',
    'Marl sock yarn, ember',
    'Half-linen 150 cm, natural',
  ]) {
    await scrollTo(page, name);
    await row(page, name).getByRole('button').click();
    await row(page, name).getByText('tray').waitFor();
  }
  const dark = await open(browser, baseURL, 'mira', { colorScheme: 'dark' });
  await dark.goto('/needs?by=urgent');
  await dark.getByRole('row', { name: /^Sewing pattern, Dunlin trousers/ }).focus();
  await dark.getByRole('button', { name: /^Take way 1/ }).waitFor();
  await shoot(dark, 'needs-dark');

  await page.goto('/trays');
  await shoot(page, 'trays');
  await page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).click();
  await page.getByText('draft, number at approval', { exact: true }).waitFor();
  const price = page.getByLabel('Price of Fen merino 4-ply, slate');
  await price.fill('32.10');
  await price.press('Enter');
  await page.getByText('list 32.80').waitFor();
  await shoot(page, 'order');
  await page.goto('/orders');
  await shoot(page, 'orders');
  await page.goto('/orders/7/print');
  await shoot(page, 'print');
  await page.goto('/arrivals');
  await shoot(page, 'arrivals');
  await page.goto('/arrivals/5/2');
  await page.getByLabel('Counted Satin ribbon 15 mm, ivory').fill('1');
  await shoot(page, 'book-in');
  await page.goto('/items');
  await shoot(page, 'items');
  await page.goto('/items/7');
  await shoot(page, 'item');
  await page.goto('/items/7/file');
  await shoot(page, 'item-on-file');
  await page.goto('/stock?at=HS&show=below');
  await page.getByRole('grid', { name: 'Stock' }).locator('[data-current=true]').focus();
  await shoot(page, 'stock');
  await page.goto('/stock/counts');
  await page.getByRole('link', { name: 'Needles' }).first().click();
  await page.getByRole('columnheader', { name: 'Difference' }).waitFor();
  await shoot(page, 'count');
  await page.goto('/today');
  await page.locator('[data-chart=weeks] svg').waitFor();
  await shoot(page, 'today');
  await page.goto('/suppliers/1');
  await shoot(page, 'supplier');
  await page.goto('/sheets');
  const buffer = Buffer.from(priceList);
  const file = { name: 'Hollinmere price list 2027.csv', mimeType: 'text/csv', buffer };
  await page.getByLabel('File of Price lists').setInputFiles(file);
  await page.getByRole('button', { name: 'Check the rows' }).click();
  await page.getByText('Before anything changes').waitFor();
  await shoot(page, 'spreadsheet');
  await page.goto('/policies?q=fen+merino');
  const max = page.getByLabel('Maximum of Fen merino 4-ply, heather, Old Mill');
  await page.getByLabel('Minimum of Fen merino 4-ply, fog, Harbour Street').focus();
  if ((await max.count()) > 0) {
    await max.fill('5');
    await max.press('Enter');
    await page.getByText('is above maximum').waitFor();
  }
  await shoot(page, 'policies');

  const owner = await open(browser, baseURL, 'otto');
  await owner.goto('/promises');
  await owner.locator('[data-index="5"]').click();
  await shoot(owner, 'promises');
}
