import { scan } from '../../../scripts/benchmarks/handScript';
import { expect, needRow, ready, tabTo, test, waiting } from '../support';

test('the same by keyboard alone', async ({ page, world }) => {
  const { keyboard } = page;
  await page.goto('/needs');
  await expect(page.getByLabel('Name')).toBeFocused();
  await keyboard.type('mira');
  await keyboard.press('Tab');
  await keyboard.type('quillon');
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: '30 needs' })).toBeVisible();
  await ready(page);

  // The keys of the view, shown on demand.
  await keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys of this view' })).toBeVisible();
  await keyboard.press('Escape');

  // Rows: as suggested one key, another quantity its digits and one; the focus moves on at once.
  await tabTo(page, page.getByRole('grid', { name: 'Needs' }).locator('[data-current=true]'));
  for (
    let i = 0;
    i < 20 &&
    !(await needRow(page, 'Fen merino 4-ply, chalk', 'Old Mill').evaluate((el) => el === document.activeElement));
    i += 1
  ) {
    await keyboard.press('ArrowDown');
  }
  await keyboard.press('Enter');
  await expect(needRow(page, 'Fen merino 4-ply, moss', 'Harbour Street')).toBeFocused();
  await keyboard.type('12');
  // Ten bags and more cost less: the row follows the price list.
  const moss = needRow(page, 'Fen merino 4-ply, moss', 'Harbour Street');
  await expect(moss).toContainText('376.80');
  await expect(moss).toContainText('3.14 each');
  await keyboard.press('Enter');
  await expect(needRow(page, 'Fen merino 4-ply, rust', 'Wendel Yard')).toBeFocused();
  await keyboard.type('99');
  await keyboard.press('Escape');
  await expect(needRow(page, 'Fen merino 4-ply, rust', 'Wendel Yard')).toBeFocused();
  await expect(needRow(page, 'Fen merino 4-ply, rust', 'Wendel Yard').getByRole('textbox')).toHaveValue('13');
  // A quantity that begins like the suggestion (8) keeps its first digit.
  const slate = needRow(page, 'Fen merino 4-ply, slate', 'Harbour Street');
  await keyboard.press('ArrowDown');
  await keyboard.type('85');
  await expect(slate.getByRole('textbox')).toHaveValue('85');
  await keyboard.press('Escape');
  await expect(slate.getByRole('textbox')).toHaveValue('8');
  await expect(waiting(page, 'Needs')).toHaveText('Needs28');
  await expect(needRow(page, 'Fen merino 4-ply, moss', 'Harbour Street').getByText('12 bags')).toBeVisible();

  // To the trays and on to a draft.
  await keyboard.press('Home');
  await tabBack(waiting(page, 'Trays'));
  await keyboard.press('Enter');
  // Letters are commands on a row, unless they are switched off; what they did can be undone.
  const strip = page.getByRole('status');
  const trays = page.getByRole('grid', { name: 'Trays' });
  await trays.locator('[data-current=true]').focus();
  await keyboard.press('?');
  await page.getByLabel('Letter keys').uncheck();
  await keyboard.press('Escape');
  await trays.locator('[data-current=true]').focus();
  await keyboard.press('b');
  await keyboard.press('ArrowDown');
  await expect(trays.locator('[data-current=true]')).toHaveAccessibleName(/^Fen merino 4-ply, moss/);
  await keyboard.press('?');
  await page.getByLabel('Letter keys').check();
  await keyboard.press('Escape');
  await trays.locator('[data-current=true]').focus();
  await keyboard.press('b');
  await expect(strip).toContainText('Fen merino 4-ply, moss went back to Needs');
  await expect(page.getByText('1 line ·')).toBeVisible();
  await keyboard.press('Control+z');
  await expect(strip).toContainText('Undone: Fen merino 4-ply, moss went back to Needs');
  await expect(page.getByText('2 lines ·')).toBeVisible();
  await tabTo(page, page.getByRole('button', { name: 'Make order for Hollinmere Spinners' }));
  await keyboard.press('Enter');
  await expect(page.getByText('draft, number at approval', { exact: true })).toBeVisible();

  // Twelve bags of moss are at the break; four are not, so the price follows back up.
  await tabTo(page, page.getByLabel('Quantity of Fen merino 4-ply, moss, Harbour Street'));
  await expect(page.getByLabel('Price of Fen merino 4-ply, moss')).toHaveValue('31.40');
  await keyboard.press('Control+A');
  await keyboard.type('4');
  await keyboard.press('Enter');
  await expect(page.getByLabel('Price of Fen merino 4-ply, moss')).toHaveValue('32.80');
  await tabTo(page, page.getByLabel('Wanted date of Fen merino 4-ply, moss, Harbour Street'));
  await keyboard.press('Control+A');
  await keyboard.type('+7');
  await keyboard.press('Tab');
  await expect(page.getByLabel('Wanted date of Fen merino 4-ply, moss, Harbour Street')).toHaveValue('Mon 30 Nov');

  await tabTo(page, page.getByRole('button', { name: 'Approve' }));
  await keyboard.press('Enter');
  await expect(page.getByText('2611-0003', { exact: true })).toBeVisible();
  await tabTo(page, page.getByRole('button', { name: 'Send', exact: true }));
  await page.keyboard.press('Enter');
  await tabTo(page, page.getByLabel('How it goes'));
  await page.keyboard.type('on paper');
  await tabTo(page, page.getByRole('button', { name: 'Mark as sent, final' }));
  await page.keyboard.press('Enter');
  await expect(page.getByText('sent on paper Mon 23 Nov')).toBeVisible();

  // Booking in: a count in balls for moss at Harbour Street, Enter goes on to the button.
  await tabTo(page, page.getByRole('link', { name: 'Book in' }));
  await keyboard.press('Enter');
  await tabTo(page, page.getByRole('link', { name: 'Book in order 2611-0003 at Harbour Street' }));
  await keyboard.press('Enter');
  await tabTo(page, page.getByLabel('Counted in, for Fen merino 4-ply, moss'));
  await keyboard.type('balls');
  await page.keyboard.press('Shift+Tab');
  await keyboard.type('33');
  await keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Book in 1 line' })).toBeFocused();
  await keyboard.press('Enter');
  await expect(page.getByText('33 of 40 balls came')).toBeVisible();

  // A list comes back to the row one went away from.
  await page.goto('/items');
  const items = page.getByRole('grid', { name: 'Items' });
  await items.locator('[data-current=true]').focus();
  await keyboard.press('End');
  await expect(items.locator('[data-current=true]')).toHaveAccessibleName(/^Zip, open end, 50 cm, teal/);
  await expect(page).toHaveURL(/\/items\?row=\d+$/);
  await keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /Zip, open end, 50 cm, teal/ })).toBeVisible();
  await page.goBack();
  await expect(items.locator('[data-current=true]')).toBeFocused();
  await expect(items.locator('[data-current=true]')).toHaveAccessibleName(/^Zip, open end, 50 cm, teal/);

  // A scan in the search field leaves what is typed there and goes to its row; without a list it opens Find.
  const scanner = await page.context().newCDPSession(page);
  const search = page.getByRole('searchbox', { name: 'Search items' });
  await search.focus();
  // The list that was asked for by typing comes after the scan.
  await page.route(/\/items\?.*_rsc=/, async (route) => {
    await new Promise((later) => setTimeout(later, 700));
    await route.continue().catch(() => undefined);
  });
  await keyboard.type('needl');
  await scan(scanner, '31300-02');
  await expect(page.getByRole('heading', { name: /^\d\d items$/ })).toBeVisible();
  await expect(items.locator('[data-current=true]')).toHaveAccessibleName(/^Double-pointed needles, set of 5, 3.0 mm/);
  await expect(items.locator('[data-current=true]')).toBeFocused();
  await expect(search).toHaveValue('needl');
  await page.goto('/orders/7');
  await scan(scanner, '10412-07');
  await expect(page.getByRole('combobox', { name: 'Find or do' })).toHaveValue('10412-07');
  await expect(page.getByRole('option', { name: /Fen merino 4-ply, moss/ })).toBeVisible();
  await keyboard.press('Escape');

  // A new minimum makes another item short.
  await page.goto('/policies?q=10412-02');
  await tabTo(page, page.getByLabel('Minimum of Fen merino 4-ply, straw, Harbour Street'));
  await keyboard.press('Control+A');
  await keyboard.type('75');
  await keyboard.press('Enter');
  await expect(page.getByLabel('Minimum of Fen merino 4-ply, straw, Old Mill')).toBeFocused();
  await keyboard.press('Control+S');
  await expect(waiting(page, 'Needs')).toHaveText('Needs29');

  const where =
    "FROM item_location_state s JOIN item i ON i.id = s.item_id WHERE i.number = '10412-07' AND s.location_id = 1";
  expect(await world.rows(`SELECT on_hand AS onHand, on_the_way AS coming, need_state AS state ${where}`)).toEqual([
    { onHand: '45.000000', coming: '17.000000', state: 'none' },
  ]);
  expect(
    await world.rows(
      "SELECT min_quantity AS q FROM policy p JOIN item i ON i.id = p.item_id WHERE i.number = '10412-02' AND location_id = 1",
    ),
  ).toEqual([{ q: '75.000000' }]);

  async function tabBack(target: ReturnType<typeof page.locator>) {
    for (let n = 0; n < 40; n += 1) {
      if (await target.evaluate((el) => el === document.activeElement)) return;
      await keyboard.press('Shift+Tab');
    }
    throw new Error('not reached by Shift+Tab');
  }
});
