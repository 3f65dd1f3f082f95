import { scan } from '../../../scripts/benchmarks/handScript';
import { expect, signIn, test, waiting } from '../support';

// A buyer keeps the catalogue true: an item made from an unknown barcode, its supplier and price, its form with a fault.
test('an unknown barcode becomes an item that can be bought', async ({ page, world }) => {
  await signIn(page, 'mira');
  // A scan in the middle of the needs: nothing in the list has it.
  await expect(page.getByRole('heading', { name: '30 needs' })).toBeVisible();
  await scan(await page.context().newCDPSession(page), '96385074');
  await page.getByRole('button', { name: 'Find it or make it' }).click();
  await page.getByRole('option', { name: /Make a new item with the barcode/ }).click();
  const form = page.getByRole('dialog', { name: 'New item' });
  await expect(form.getByLabel('Barcode')).toHaveValue('96385074');
  await form.getByLabel('Name').fill('Sashiko thread, indigo');
  await form.getByLabel('Price it sells at').fill('1.250');
  await form.getByRole('button', { name: 'Make the item' }).click();
  await expect(form.getByRole('alert')).toContainText('is that 1,250 or 1.25');
  await form.getByLabel('Price it sells at').fill('6.40');
  await form.getByRole('button', { name: 'Make the item' }).click();
  await page.waitForURL(/\/items\/\d+\/file$/);
  await expect(page.getByText('Missing: a category, a supplier, a policy')).toBeVisible();

  // Its supplier and what it charges, typed where they belong.
  await page.getByRole('button', { name: 'Add a source' }).click();
  const source = page.getByRole('dialog', { name: 'New source' });
  await expect(source.getByText('Still missing: Supplier')).toBeVisible();
  await source.getByLabel('Supplier *').fill('NOBODY');
  await source.getByRole('button', { name: 'Save' }).click();
  await expect(source.getByRole('alert')).toHaveText('There is no supplier “NOBODY”.');
  // Leaving with something typed is said first.
  await page.keyboard.press('Escape');
  await expect(source.getByText('What you typed is not saved yet.')).toBeVisible();
  await expect(source.getByRole('button', { name: 'Leave without saving' })).toBeVisible();
  await source.getByLabel('Supplier *').fill('SIL');
  await source.getByRole('button', { name: 'Save' }).click();
  await expect(source).toHaveCount(0);
  await page.getByRole('button', { name: 'Add a price' }).click();
  const price = page.getByRole('dialog', { name: 'New price' });
  await price.getByLabel('Price *').fill('9.99');
  await page.keyboard.press('Escape');
  await expect(price.getByText('What you typed is not saved yet.')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(price).toHaveCount(0);
  await page.getByRole('button', { name: 'Add a price' }).click();
  await expect(price.getByLabel('Price *')).toHaveValue('');
  await price.getByLabel('Supplier *').fill('SIL');
  await price.getByLabel('Valid from *').fill('2026-11-01');
  await price.getByLabel('Price *').fill('3.30');
  await price.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByRole('complementary')).toContainText('Goods, CHF');
  await expect(page.getByText('Missing: a category, a policy')).toBeVisible();
  const item = await world.rows<{ id: number; n: string }>(
    `SELECT i.id, i.number AS n FROM item i JOIN barcode b ON b.item_id = i.id JOIN source s ON s.item_id = i.id
       JOIN price p ON p.source_id = s.id WHERE b.code = '00000096385074' AND p.amount = 3.3`,
  );
  expect(item).toHaveLength(1);

  // The form keeps what was typed when something in it is wrong; undo puts a change back.
  await page.getByRole('button', { name: 'Change the item' }).click();
  const change = page.getByRole('dialog', { name: /^Item N/ });
  await change.getByLabel('Category', { exact: true }).fill('Thread > Sashiko');
  await change.getByText('Customs').click();
  await change.getByLabel('HS code').fill('12');
  await change.getByRole('button', { name: 'Save' }).click();
  await expect(change.getByRole('alert')).toHaveText('“12” is no HS code; it has 4, 6, 8 or 10 digits.');
  await expect(change.getByLabel('Category', { exact: true })).toHaveValue('Thread > Sashiko');
  await change.getByLabel('HS code').fill('520420');
  await change.getByRole('button', { name: 'Save' }).click();
  await expect(change).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText(/Undone/)).toBeVisible();
  expect(await world.rows('SELECT hs_code FROM item WHERE id = ?', [item[0]?.id])).toEqual([{ hs_code: '' }]);

  await page.getByRole('link', { name: 'What happened' }).click();
  await expect(page.getByText('barcodes added')).toBeVisible();
  await expect(waiting(page, 'Needs')).toHaveText('Needs30');

  // And on a delivery: what was counted stays while an item is made of what nobody ordered.
  await page.goto('/arrivals');
  await page.getByRole('link', { name: 'Book in order 2611-0002 at Market Hall' }).click();
  await page.getByLabel('Counted Fen merino 4-ply, brick').fill('1');
  const scanner = await page.context().newCDPSession(page);
  await scan(scanner, '2999999000017');
  await expect(form.getByLabel('Barcode')).toHaveValue('2999999000017');
  await form.getByLabel('Name').fill('Sock blocker, beech');
  await form.getByRole('button', { name: 'Make the item' }).click();
  await expect(page.getByLabel('Came of Sock blocker, beech')).toBeFocused();
  await page.getByLabel('Came of Sock blocker, beech').fill('3');
  await page.getByRole('button', { name: 'Book in 2 lines' }).click();
  await expect(page.getByText('What Sock blocker, beech costs is not on file')).toBeVisible();
  await page.getByLabel(/^Price in EUR per .* of Sock blocker, beech$/).fill('4.80');
  // Scanned again it is gone to where it stands, as is what was ordered.
  await page.getByLabel('Delivery note').focus();
  await scan(scanner, '2999999000017');
  await expect(page.getByLabel('Came of Sock blocker, beech')).toBeFocused();
  await page.getByRole('button', { name: 'Book in 2 lines' }).click();
  await page.waitForURL(/\/orders\/\d+$/);
  await expect(page.getByText('came without being ordered', { exact: true })).toBeVisible();
  expect(
    await world.rows(
      `SELECT l.on_hand AS q, l.value_minor AS v FROM level l JOIN item i ON i.id = l.item_id
        WHERE i.name = 'Sock blocker, beech' AND l.location_id = 3`,
    ),
  ).toEqual([{ q: '3.000000', v: 1_440 }]);
});

// A buyer changes many at once, seeing first what would change; keeps the view; finds things though a letter is wrong.
test('many items at once, shown before it happens', async ({ page, world }) => {
  const { startWorker } = await import('../support');
  const worker = await startWorker(world);
  await signIn(page, 'mira');
  await page.goto('/items');
  const search = page.getByLabel('Search items');
  await search.pressSequentially('fen merion', { delay: 40 });
  const grid = page.getByRole('grid', { name: 'Items' });
  await expect(page.getByRole('heading', { name: '12 items' })).toBeVisible();
  await grid.getByRole('row', { name: /^Fen merino 4-ply, chalk/ }).focus();
  await page.keyboard.press('Space');
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Space');
  await expect(page.getByText('2 items marked')).toBeVisible();
  const bar = page.getByRole('form', { name: 'Change many items' });
  await bar.getByLabel('What to change').selectOption('Sale price');
  await bar.getByLabel('Sale price', { exact: true }).fill('12.50');
  await bar.getByRole('button', { name: 'Show what would change' }).click();
  await page.waitForURL(/\/sheets\/\d+$/);
  await expect(page.getByRole('button', { name: '2 changed' })).toBeVisible();
  const before = await world.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM item WHERE sale_price = 12.5 AND number LIKE '10412%'",
  );
  expect(before).toEqual([{ n: 0 }]);
  await page.getByRole('button', { name: 'Bring in 2 rows' }).click();
  await expect(page.getByRole('status')).toContainText('0 new, 2 changed');
  const after = await world.rows<{ n: number }>(
    "SELECT COUNT(*) AS n FROM item WHERE sale_price = 12.5 AND number LIKE '10412%'",
  );
  expect(after).toEqual([{ n: 2 }]);

  await page.goto('/items?category=Yarn&cols=on_hand,sale_price,last_cost');
  await expect(grid.getByRole('columnheader', { name: 'Sale price' })).toBeVisible();
  await page.getByText(/^Views/).click();
  await page.getByLabel('Keep this view as').fill('Yarn prices');
  await page.getByRole('button', { name: 'Keep' }).click();
  await page.goto('/items');
  await page.getByText(/^Views/).click();
  await page.getByRole('link', { name: 'Yarn prices' }).click();
  await expect(grid.getByRole('columnheader', { name: 'Sale price' })).toBeVisible();
  worker.kill();
});
