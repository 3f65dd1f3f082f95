import { expect, signIn, test } from '../support';

test.use({ viewport: { width: 390, height: 844 } });

test('shop staff book goods in, standing, on a phone', async ({ page, world }) => {
  await signIn(page, 'jun');
  await expect(page).toHaveURL(/\/arrivals/);
  await expect(page.getByRole('heading', { name: '1 arrival expected' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'Needs' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Book in order 2611-0002 at Market Hall' }).click();

  await page.getByLabel('Counted Fen merino 4-ply, brick').fill('2');
  await page.getByRole('button', { name: 'Book in 1 line' }).click();
  await expect(page.getByRole('heading', { name: 'This is not for your account' })).toBeHidden();
  await expect(page.getByText('Booked in as R2611-')).toBeVisible();
  // One bag was ordered, two came: booked as they came.
  const where = "FROM level l JOIN item i ON i.id = l.item_id WHERE i.number = '10412-04' AND l.location_id = 3";
  const [level] = await world.rows<{ q: string; sum: string }>(
    `SELECT on_hand AS q, (SELECT SUM(on_hand_change) FROM movement m WHERE m.item_id = l.item_id AND m.location_id = 3) AS sum ${where}`,
  );
  expect(level?.q).toBe(level?.sum);
  expect(await world.rows('SELECT base_quantity AS q FROM goods_receipt_line ORDER BY id DESC LIMIT 1')).toEqual([
    { q: '20.000000' },
  ]);

  // Nothing is wider than the phone.
  for (const path of ['/arrivals', '/items', '/items/4']) {
    await page.goto(path);
    await expect(page.getByRole('heading').first()).toBeVisible();
    const overflow = await page.evaluate(
      () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
    );
    expect([path, overflow]).toEqual([path, 0]);
  }
  const forbidden = await page.goto('/needs');
  expect(forbidden?.status()).toBe(200);
  await expect(page.getByRole('heading', { name: 'This is not for your account' })).toBeVisible();
});
