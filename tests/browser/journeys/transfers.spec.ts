import { expect, signIn, test } from '../support';

// A shop asks, the warehouse approves less, sends, the shop books in what came; stock is put right with a reason.
test('goods are asked for, approved, sent and booked in between two places', async ({
  page,
  world,
  browser,
  baseURL,
}) => {
  const level = async (number: string, place: number) => {
    const [row] = await world.rows<{ onHand: string; allocated: string }>(
      `SELECT l.on_hand AS onHand, l.allocated FROM level l JOIN item i ON i.id = l.item_id
        WHERE i.number = ? AND l.location_id = ?`,
      [number, place],
    );
    return { onHand: Number(row?.onHand), allocated: Number(row?.allocated) };
  };
  const [there, here] = [await level('10412-02', 4), await level('10412-02', 3)];

  // Jun, of Market Hall, asks.
  const shop = await (await browser.newContext({ baseURL: baseURL as string })).newPage();
  await signIn(shop, 'jun');
  await shop.goto('/stock/transfers');
  await shop.getByRole('button', { name: 'Ask for goods' }).click();
  const dialog = shop.getByRole('dialog', { name: 'Ask for goods' });
  await dialog.getByLabel('From').selectOption('Wendel Yard');
  await dialog.getByLabel('Another item').fill('10412-02');
  await dialog.getByRole('button', { name: /straw/ }).first().click();
  await dialog.getByLabel('Quantity of Fen merino 4-ply, straw').fill('many');
  await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(dialog.getByRole('alert')).toContainText('many');
  await dialog.getByLabel('Quantity of Fen merino 4-ply, straw').fill('9');
  await dialog.getByLabel('Wanted on').fill('fri');
  await dialog.getByRole('button', { name: 'Ask', exact: true }).click();
  await shop.waitForURL(/\/stock\/transfers\/\d+$/);
  await expect(shop.getByRole('button', { name: 'Approve' })).toHaveCount(0);
  const path = new URL(shop.url()).pathname;
  expect(await level('10412-02', 4)).toEqual(there);

  // Mira approves six of nine: promised there from now on.
  await signIn(page, 'mira');
  await page.goto(path);
  await page.getByLabel(/: Fen merino 4-ply, straw$/).fill('6');
  await page.getByRole('button', { name: 'Approve' }).click();
  await expect(page.getByRole('button', { name: 'Send it' })).toBeVisible();
  expect(await level('10412-02', 4)).toEqual({ ...there, allocated: there.allocated + 6 });
  await page.getByRole('button', { name: 'Send it' }).click();
  await expect(page.getByRole('button', { name: 'Send it' })).toHaveCount(0);
  expect(await level('10412-02', 4)).toEqual({ ...there, onHand: there.onHand - 6 });
  await page.goto(`${path.replace('/stock', '')}/print`);
  await expect(page.getByText('Fen merino 4-ply, straw')).toBeVisible();

  // Five came; the sixth is explained.
  await shop.reload();
  await shop.getByLabel(/^(?!Lost|Why).*: Fen merino 4-ply, straw$/).fill('5');
  await shop.getByLabel('Lost: Fen merino 4-ply, straw').fill('1');
  await shop.getByLabel('Why lost: Fen merino 4-ply, straw').fill('wet in the van');
  await shop.getByRole('button', { name: 'Book in' }).click();
  await expect(shop.getByRole('button', { name: 'Book in' })).toHaveCount(0);
  expect(await level('10412-02', 3)).toEqual({ ...here, onHand: here.onHand + 5 });

  // Everything that moved, in one list.
  await page.goto('/stock/movements?q=10412-02&kind=transfer');
  await expect(page.getByText('wet in the van').first()).toBeVisible();

  // Stock is put right where it stands, with a reason; what it crosses is said.
  await page.goto('/stock?q=10412-02&at=MH');
  await page.getByRole('grid', { name: 'Stock' }).locator('[data-current=true]').focus();
  await page.getByText('Put stock right').first().click();
  await page.getByLabel('How').first().selectOption('to');
  await page.getByLabel('Quantity in balls').first().fill('1');
  await page.getByLabel('Reason').first().selectOption('Missing');
  await page.getByRole('button', { name: 'Post the correction' }).first().click();
  await expect(page.getByText(/^Posted as K2611-/)).toBeVisible();
  await expect(page.getByText(/at Market Hall has come to its minimum: 1 of/)).toBeVisible();
  expect((await level('10412-02', 3)).onHand).toBe(1);
  await shop.context().close();
});
