import { scan } from '../../../scripts/benchmarks/handScript';
import { expect, signIn, test } from '../support';

test.use({ viewport: { width: 390, height: 844 } });

// A shelf of needles is counted on a phone: by scan, blind, the far-off one again, the rest from a list, posted as one.
test('stock is counted on a phone, by scan and from a list, and posted as one document', async ({ page, world }) => {
  const onHand = async (number: string) => {
    const [row] = await world.rows<{ q: string }>(
      'SELECT l.on_hand AS q FROM level l JOIN item i ON i.id = l.item_id WHERE i.number = ? AND l.location_id = 1',
      [number],
    );
    return Number(row?.q);
  };
  const [circular, crochet] = [await onHand('31080-06'), await onHand('31630-02')];
  const [code] = await world.rows<{ code: string }>(
    `SELECT b.code FROM barcode b JOIN item i ON i.id = b.item_id WHERE i.number = '31080-06' AND b.kind = 'gtin' LIMIT 1`,
  );

  await signIn(page, 'mira');
  await page.goto('/stock/counts');
  await page.getByRole('button', { name: 'Count stock' }).click();
  const dialog = page.getByRole('dialog', { name: 'Count stock' });
  await dialog.getByLabel('Category, with what is below it').selectOption('Needles');
  await dialog.getByRole('button', { name: 'Begin' }).click();
  await page.waitForURL(/\/stock\/counts\/\d+$/);
  await expect(page.getByRole('heading', { name: 'Needles, Harbour Street' })).toBeVisible();
  // Blind: what the books expect is not told.
  await expect(page.getByRole('columnheader', { name: 'Expected' })).toHaveCount(0);

  // A scan goes to the line; after its figure the hand is back where the next one is taken.
  await scan(await page.context().newCDPSession(page), (code?.code ?? '').replace(/^0/, ''));
  const first = page.getByLabel('Counted Circular needle 80 cm, 5.0 mm');
  await expect(first).toBeFocused();
  await page.keyboard.type('0');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('Item that is counted')).toBeFocused();
  await expect(page.getByText('1 line far off: count again.')).toBeVisible();
  const again = page.getByLabel('Counted again Circular needle 80 cm, 5.0 mm');
  await again.fill('many');
  await again.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: '“many” is not a number.' })).toBeVisible();
  await again.fill(String(circular - 1));
  await again.press('Enter');
  await expect(page.getByText(/far off/)).toHaveCount(0);

  // Others come from a list; a row that nobody knows takes nothing.
  await page.getByRole('button', { name: 'Take a file' }).click();
  await page.getByLabel('Rows').fill(`Item,Counted\n31630-02,${crochet}\nxx-1,3`);
  await page.getByRole('button', { name: 'Take 2 rows' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'row 3: “xx-1” is no item of ours' })).toBeVisible();
  await page.getByLabel('Rows').fill(`Item,Counted\n31630-02,${crochet}\n31410-01,\n`);
  await page.getByRole('button', { name: 'Take 1 row' }).click();
  await expect(page.getByLabel('Counted Crochet hook, 2.5 mm')).toHaveValue(String(crochet));

  await page.getByRole('button', { name: 'Post 2 lines' }).click();
  await expect(page.getByText('Harbour Street · posted')).toBeVisible();
  expect([await onHand('31080-06'), await onHand('31630-02')]).toEqual([circular - 1, crochet]);
  expect(
    await world.rows(
      `SELECT COUNT(*) AS n FROM movement m JOIN stock_document d ON d.id = m.document_id AND m.document_kind = 'count'
        WHERE d.note = 'Needles, Harbour Street'`,
    ),
  ).toEqual([{ n: 1 }]);

  await page.goto('/stock/counts/differences?at=HS');
  await expect(page.getByRole('link', { name: 'Circular needle 80 cm, 5.0 mm' })).toBeVisible();
  const overflow = await page.evaluate(
    () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
  );
  expect(overflow).toBe(0);
});
