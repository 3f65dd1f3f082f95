import { expect, ready, signIn, test } from '../support';

// The owner invites somebody with a role of the company's own; what they may not do is not offered, and refused when tried.
test('somebody is invited, sets a password, and may do what the role says', async ({
  page,
  browser,
  world,
  baseURL,
}) => {
  await signIn(page, 'otto');
  await page.goto('/setup/people');
  await page.getByRole('button', { name: 'Add a role' }).click();
  const role = page.getByRole('dialog', { name: 'A role of your own' });
  await role.getByLabel('Called').fill('Stocktaker');
  await role.getByLabel('see items and stock').check();
  await role.getByLabel('count stock').check();
  await role.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('complementary')).toContainText('Stocktaker');

  await page.getByRole('button', { name: 'Invite somebody' }).click();
  const form = page.getByRole('dialog', { name: 'Invite somebody' });
  await form.getByLabel('Full name').fill('Pia Lund');
  await form.getByLabel('Name to sign in with').fill('Pia L');
  await form.getByLabel('Role').selectOption('Stocktaker');
  await form.getByLabel('Old Mill').check();
  await form.getByRole('button', { name: 'Invite' }).click();
  await expect(form.getByText('A name to sign in with has 2 to 60 small letters')).toBeVisible();
  await form.getByLabel('Name to sign in with').fill('pia');
  await form.getByRole('button', { name: 'Invite' }).click();
  const link = await page.getByLabel('Link').inputValue();
  await expect(page.getByRole('row', { name: /Pia Lund/ })).toContainText('invited');

  const context = await browser.newContext({ baseURL: baseURL as string, locale: 'en-GB' });
  const pia = await context.newPage();
  await pia.goto(link);
  await ready(pia);
  await pia.getByLabel('Password').fill('short');
  await pia.getByRole('button', { name: 'Set the password' }).click();
  await expect(pia.locator('main').getByRole('alert')).toContainText('at least 10 characters');
  await pia.getByLabel('Password').fill('needle and thread');
  await pia.getByRole('button', { name: 'Set the password' }).click();
  await pia.waitForURL((url) => !url.pathname.startsWith('/invitation'));
  await pia.goto('/items');
  await ready(pia);
  // No needs, no orders, no new items; only the place that is theirs.
  await expect(pia.getByRole('navigation', { name: 'Work' }).getByRole('link')).toHaveText(['Today']);
  await expect(pia.getByRole('button', { name: 'New item' })).toHaveCount(0);
  await pia.goto('/items/7/file');
  await expect(pia.getByRole('button', { name: 'Change the item' })).toHaveCount(0);
  await pia.goto('/setup/people');
  await expect(pia.getByText('This is not for your account')).toBeVisible();
  const tried = await pia.request.post('/api/commands/make-item', {
    data: { key: 'a-key-that-pia-tries-1', input: { name: 'x', unit: 'piece', price: '', number: '', code: '' } },
  });
  expect(tried.status()).toBe(403);
  // The link is good once.
  await pia.goto(link);
  await expect(pia.getByText('This link is not good any more')).toBeVisible();

  // Figures as she likes them.
  await pia.goto('/account');
  await ready(pia);
  await pia.getByLabel('written as in').selectOption({ label: 'German (Germany)' });
  await expect(pia.getByText('1234.5 is 1.234,5')).toBeVisible();

  await page.goto('/setup/changes?area=people');
  await expect(page.getByRole('row', { name: /Otto Quillon.*Pia Lund.*invited/ })).toBeVisible();
  await page.goto('/setup/people');
  await page.getByRole('button', { name: 'Change Pia Lund' }).click();
  await page.getByLabel('May sign in').uncheck();
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('row', { name: /Pia Lund/ })).toContainText('may not sign in');
  await pia.goto('/items');
  await pia.waitForURL(/\/sign-in/);
  expect(await world.rows("SELECT active FROM app_user WHERE login = 'pia'")).toEqual([{ active: 0 }]);
  await context.close();
});
