import { expect, needRow, signIn, test, waiting } from '../support';

const KEY = 'a-key-of-this-test-000001';

test('bad input, a lost session and a lost database lose nothing', async ({ page, world }) => {
  await signIn(page, 'mira');

  // Typed figures: a clear sentence in the row, the entry stays, nothing is saved.
  const moss = needRow(page, 'Fen merino 4-ply, moss', 'Harbour Street');
  const field = moss.getByRole('textbox');
  for (const [typed, sentence] of [
    ['six', '“six” is not a number.'],
    ['-4', 'A quantity can’t be negative here.'],
    ['0.1234567', '“0.1234567” has more than 6 decimals.'],
    ['4006381333931', 'can’t be right: at most 99,999 packs on a line.'],
    ['1.250', '1.250: is that 1,250 or 1.25? Type 1250 or 1.25.'],
  ] as const) {
    await field.fill(typed);
    await field.press('Enter');
    await expect(moss.getByRole('alert')).toContainText(sentence);
    await expect(field).toHaveValue(typed);
  }
  expect(await world.rows('SELECT COUNT(*) AS n FROM tray_line')).toEqual([{ n: 0 }]);

  // Minimum above maximum: marked in the cell.
  await page.goto('/policies?q=10412-02');
  const max = page.getByLabel('Maximum of Fen merino 4-ply, straw, Harbour Street');
  await max.fill('5');
  await max.press('Control+S');
  // In its cell; what was not saved says it as well.
  const sheet = page.getByRole('grid', { name: 'Policies' });
  await expect(sheet.getByText('Minimum 28 is above maximum 5.')).toBeVisible();
  await expect(max).toHaveValue('5');
  await expect(max).toHaveAttribute('aria-invalid', 'true');

  // The session ends in the middle of work: sign in again in place, and it goes on.
  await page.goto('/needs');
  await field.fill('7');
  await page.context().clearCookies();
  await field.press('Enter');
  const dialog = page.getByRole('dialog', { name: 'Sign in again' });
  await dialog.getByLabel('Name').fill('mira');
  await dialog.getByLabel('Password').fill('wrong');
  await dialog.getByRole('button').click();
  await expect(dialog.getByRole('alert')).toHaveText('Name and password don’t belong together.');
  await dialog.getByLabel('Password').fill('quillon');
  await dialog.getByRole('button').click();
  await expect(moss.getByText('7 bags')).toBeVisible();
  await expect(moss.getByText('in the Hollinmere Spinners tray')).toBeVisible();

  await expect(waiting(page, 'Needs')).toHaveText('Needs29');

  // The database is gone: said at the foot of the page; the entry waits and goes through by itself once it is back.
  const chalk = needRow(page, 'Fen merino 4-ply, chalk', 'Old Mill');
  await chalk.getByRole('textbox').fill('3');
  await world.database.stop('SIGKILL');
  await chalk.getByRole('textbox').press('Enter');
  const strip = page.getByRole('status');
  await expect(strip).toContainText(
    'Vorrat can’t be reached: one entry waits here and will be saved when the line is back.',
  );
  await expect(chalk.getByRole('textbox')).toHaveValue('3');
  const down = await page.request.post('/api/commands/take-back', { data: { key: KEY, input: { trayLineId: 1 } } });
  expect(down.status()).toBe(503);
  await page
    .context()
    .newPage()
    .then(async (second) => {
      await second.goto('/orders');
      await expect(second.getByRole('heading', { name: 'The database can’t be reached' })).toBeVisible();
      await second.close();
    });
  await world.startDatabase();
  await expect(strip).not.toContainText('can’t be reached');
  await expect(chalk.getByText('in the Hollinmere Spinners tray')).toBeVisible();
  expect(await world.rows('SELECT pack_quantity AS packs FROM tray_line ORDER BY id')).toEqual([
    { packs: '7.000000' },
    { packs: '3.000000' },
  ]);

  // The same form sent twice makes one order.
  await page.goto('/trays');
  await page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }).dblclick();
  await expect(page.getByText('draft, number at approval', { exact: true })).toBeVisible();
  expect(await world.rows("SELECT COUNT(*) AS n FROM purchase_order WHERE state = 'draft'")).toEqual([{ n: 1 }]);

  // Addresses that lead nowhere are 404, with a way back; so is the paper of an order that is a draft again.
  const [approved] = await world.rows<{ version: number }>('SELECT version FROM purchase_order WHERE id = 7');
  await page.goto('/orders/7/print');
  await expect(page.getByRole('heading', { name: 'Purchase order 2611-0002' })).toBeVisible();
  const reopen = { key: 'bad-input-reopens-order-7', input: { orderId: 7, version: approved?.version } };
  expect((await page.request.post('/api/commands/reopen-order', { data: reopen })).status()).toBe(200);
  for (const address of [
    '/orders/99999',
    '/orders/x',
    '/items/0',
    '/items/99999999999',
    '/arrivals/99999/1',
    '/orders/8/print',
    '/orders/7/print',
    '/nowhere',
  ]) {
    const response = await page.goto(address);
    expect([address, response?.status()]).toEqual([address, 404]);
    await expect(page.getByRole('heading', { name: 'There is nothing at this address' })).toBeVisible();
  }
});

test('what the handlers answer to what pages never send', async ({ page, playwright, world, baseURL }) => {
  const stranger = await playwright.request.newContext({ baseURL });
  const send = (data: unknown, name = 'take-back', headers = {}) =>
    page.request.post(`/api/commands/${name}`, { data, headers });
  expect((await stranger.post('/api/commands/take-back', { data: {} })).status()).toBe(401);
  await signIn(page, 'mira');

  const statuses = {
    'no body': (
      await page.request.post('/api/commands/take-back', { headers: { 'content-type': 'application/json' }, data: '{' })
    ).status(),
    'no key': (await send({ input: { trayLineId: 1 } })).status(),
    'text for an id': (await send({ key: KEY, input: { trayLineId: 'one' } })).status(),
    'an unknown field': (await send({ key: KEY, input: { trayLineId: 1, extra: true } })).status(),
    'an unknown command': (await send({ key: KEY, input: {} }, 'drop-everything')).status(),
    'a property of objects': (await send({ key: KEY, input: {} }, 'constructor')).status(),
    'an unknown line': (await send({ key: KEY, input: { trayLineId: 77 } })).status(),
    'another origin': (
      await send({ key: KEY, input: { trayLineId: 1 } }, 'take-back', { origin: 'http://elsewhere.example' })
    ).status(),
    'a page in a sandbox': (
      await send({ key: KEY, input: { trayLineId: 1 } }, 'take-back', { origin: 'null' })
    ).status(),
    'an empty count': (
      await send(
        { key: KEY, input: { orderId: 7, locationId: 1, deliveryNote: '', businessDate: '', counted: [] } },
        'receive-goods',
      )
    ).status(),
    'a stale order': (await send({ key: KEY, input: { orderId: 7, version: 1 } }, 'put-back-order')).status(),
  };
  expect(statuses).toEqual({
    'no body': 400,
    'no key': 400,
    'text for an id': 400,
    'an unknown field': 400,
    'an unknown command': 404,
    'a property of objects': 404,
    'an unknown line': 404,
    'another origin': 403,
    'a page in a sandbox': 403,
    'an empty count': 422,
    'a stale order': 409,
  });

  // Lists as files: what is short comes without a list being open; a list that is not open is gone.
  const exported = async (path: string) => {
    const answer = await page.request.get(`/api/exports/${path}`);
    return { status: answer.status(), type: answer.headers()['content-type'] ?? '', body: await answer.body() };
  };
  for (const [name, first] of [
    ['mail', 'Subject,To,'],
    ['work', 'What,State,'],
    ['arrivals', 'Expected,Where,Supplier,Order,'],
    ['changes', 'When (UTC),Who,'],
  ] as const) {
    const csv = await exported(name);
    expect([name, csv.status, csv.type]).toEqual([name, 200, 'text/csv; charset=utf-8']);
    expect(csv.body.toString('utf8')).toMatch(new RegExp(`^\ufeff${first.replace(/[()]/g, '\\$&')}`));
    const xlsx = await exported(`${name}?as=xlsx`);
    expect([name, xlsx.status, xlsx.body.subarray(0, 2).toString()]).toEqual([name, 200, 'PK']);
  }
  const others = ['people', 'needs?list=none', 'nothing', 'constructor'].map(exported);
  expect((await Promise.all(others)).map((a) => a.status)).toEqual([403, 410, 404, 404]);
  expect((await stranger.get('/api/exports/mail')).status()).toBe(401);

  // No answer carries a trace, and pages carry the security headers.
  const body = await (await send({ key: KEY, input: { trayLineId: 77 } })).text();
  expect(body).toBe('{"ok":false,"failure":{"kind":"not_found","what":"tray"}}');
  const headers = (await page.goto('/needs'))?.headers() ?? {};
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic';/);
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['x-powered-by']).toBeUndefined();
  const [cookie] = (await page.context().cookies()).filter((c) => c.name === 'vorrat_session');
  expect(cookie).toMatchObject({ httpOnly: true, sameSite: 'Lax' });
  expect(await world.rows('SELECT COUNT(*) AS n FROM tray_line')).toEqual([{ n: 0 }]);

  // Signing out ends the session for good.
  await page.getByLabel('Mira Rook, buyer').click();
  await page.getByRole('button', { name: 'Sign out' }).click();
  await expect(page.getByRole('button', { name: 'Sign in' })).toBeVisible();
  const old = await stranger.get('/api/reads/last-bought?item=1', {
    headers: { cookie: `vorrat_session=${cookie?.value}` },
  });
  expect(old.status()).toBe(401);
  await stranger.dispose();
});
