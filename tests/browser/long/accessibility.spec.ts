import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { TIMES } from '../../campaign';
import { emptyCompany, expect, signIn, startWorker, test } from '../support';

test.setTimeout(1_200_000);

const sizes = {
  desk: { width: 1280, height: 800 },
  wide: { width: 1920, height: 1080 },
  phone: { width: 390, height: 844 },
  'zoomed to 200 %': { width: 640, height: 400 },
};

const themes = ['paper', 'ink'] as const;
const all = { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] } as const;
/** Those of them that look at colours. */
const ofColours = { type: 'rule', values: ['color-contrast', 'link-in-text-block'] } as const;

/** Every element with what the other rules look at: its attributes, where it stands, whether it is seen. */
const shapeOf = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .map((e) => {
        const { x, y, width, height } = e.getBoundingClientRect();
        const attributes = [...e.attributes].map((a) => `${a.name}=${a.value}`);
        const { display, visibility, opacity } = getComputedStyle(e);
        return [e.tagName, ...attributes, x, y, width, height, display, visibility, opacity].join(' ');
      })
      .join('\n'),
  );

/** Changes the colours of the page as its own command does. */
const choose = (page: Page, theme: string) =>
  page.evaluate((name) => {
    // biome-ignore lint/suspicious/noDocumentCookie: as the application itself, on plain http.
    document.cookie = `theme=${name}; path=/; samesite=lax`;
    document.documentElement.dataset.theme = name;
  }, theme);

/** Marks rows that are built like two before them: the same elements, classes, attributes and states, only other figures. */
const markAlike = (page: Page) =>
  page.evaluate(() => {
    const states = /^(role|tabindex|type|disabled|data-current|aria-(?!label|describedby|rowindex|activedescendant))/;
    const built = (e: Element): string => {
      const attributes = [...e.attributes].map((a) => {
        if (a.name === 'class' || states.test(a.name)) return `${a.name}=${a.value}`;
        return a.name === 'style' ? `style=${a.value.replace(/[\d.]+/g, '')}` : a.name;
      });
      const text = [...e.childNodes].some((n) => n.nodeType === Node.TEXT_NODE) ? 'text' : '';
      return `${e.tagName} ${attributes.join(' ')} (${[...e.children].map(built).join('')}${text})`;
    };
    const seen = new Map<string, number>();
    for (const row of document.querySelectorAll('[role=row], tr, li')) {
      const same = (seen.get(built(row)) ?? 0) + 1;
      seen.set(built(row), same);
      if (same > 2 && !row.closest('[data-alike]')) row.setAttribute('data-alike', '');
    }
  });
const unmark = (page: Page) =>
  page.evaluate(() => {
    for (const row of document.querySelectorAll('[data-alike]')) row.removeAttribute('data-alike');
  });

for (const [name, viewport] of Object.entries(sizes)) {
  // Every row of every list at the desk, in the theme that the page comes with (in a campaign always); else rows that are built
  // alike twice each.
  const everyRow = (other: boolean) => TIMES > 1 || (name === 'desk' && !other);
  test(`every view, ${name}, in both themes: no serious finding, nothing wider than the window`, async ({
    page,
    world,
    context,
    baseURL,
  }) => {
    await page.setViewportSize(viewport);
    await context.addCookies([{ name: 'theme', value: themes[0], url: baseURL as string }]);
    const checkNow = async (what: string, runOnly: typeof all | typeof ofColours, every: boolean) => {
      const axe = new AxeBuilder({ page });
      if (!every) {
        await markAlike(page);
        axe.exclude('[data-alike]');
      }
      const { violations } = await axe
        // No frames of others: without a second page for each look. Only what is wrong is asked for.
        .setLegacyMode(true)
        .options({ runOnly: { ...runOnly, values: [...runOnly.values] }, resultTypes: ['violations'] })
        .analyze();
      await unmark(page);
      const serious = violations.filter((v) => v.impact === 'serious' || v.impact === 'critical');
      expect([what, serious.map((v) => `${v.id}: ${v.nodes.map((n) => n.target).join(' ')}`)]).toEqual([what, []]);
      const overflow = await page.evaluate(
        () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
      );
      expect([what, overflow]).toEqual([what, 0]);
    };
    /** In the theme that the page came with, then in the other, which the next page comes with. Of a page that is the same but for
     *  its colours, only the rules on colours can find something else then. */
    const check = async (what: string) => {
      await expect(page.getByRole('heading').first()).toBeVisible();
      const theme = await page.locator('html').getAttribute('data-theme');
      const [other] = themes.filter((t) => t !== theme);
      expect(themes).toContain(theme);
      const before = await shapeOf(page);
      await checkNow(`${what}, ${theme}`, all, everyRow(false));
      await choose(page, other as string);
      await checkNow(`${what}, ${other}`, (await shapeOf(page)) === before ? ofColours : all, everyRow(true));
    };
    await page.goto('/sign-in');
    await check('sign-in');
    await signIn(page, 'mira');
    await check('needs');
    await page.keyboard.press('?');
    await check('keys');
    await page.keyboard.press('Escape');

    await page.keyboard.press('Control+k');
    await page.getByRole('combobox', { name: 'Find or do' }).fill('merino');
    await expect(page.getByRole('option').first()).toBeVisible();
    await check('find');
    await page.keyboard.press('Escape');

    // A row that was accepted and one that was refused, then a tray and a draft.
    const needs = await world.rows<{ id: number; fingerprint: string }>(
      "SELECT id, fingerprint FROM need WHERE state = 'open' AND source_id IS NOT NULL ORDER BY id LIMIT 4",
    );
    for (const n of needs.slice(1)) {
      const input = { needId: n.id, fingerprint: n.fingerprint, packs: '2' };
      const sent = await page.request.post('/api/commands/accept-need', {
        data: { key: `accessibility-need-${n.id}-x`, input },
      });
      expect(sent.status()).toBe(200);
    }
    const field = page.getByRole('grid', { name: 'Needs' }).locator('[data-current=true]').getByRole('textbox');
    await field.fill('six');
    await field.press('Enter');
    await expect(page.getByRole('alert').filter({ hasText: 'not a number' })).toBeVisible();
    await check('needs with a fault');
    await page.goto('/trays');
    await check('trays');
    const made = await page.request.post('/api/commands/make-orders', {
      data: { key: 'accessibility-orders-x', input: { supplierIds: [1] } },
    });
    const { value } = (await made.json()) as { value: { orderId: number }[] };
    for (const path of [
      `/orders/${value[0]?.orderId}`,
      '/orders',
      '/orders?show=all',
      '/orders?show=unconfirmed',
      '/orders/new',
      '/orders/8',
      '/orders/10',
      '/orders/11',
      '/orders/5',
      '/orders/7/print',
      '/orders/print?ids=6,7',
      '/arrivals',
      '/arrivals/6/2',
      '/items',
      '/items?q=nothing+has+this',
      '/items?at=HS',
      '/items/1',
      '/suppliers',
      '/suppliers/1',
      '/policies?q=10412',
      '/stock?at=HS',
      '/stock?show=below',
      '/stock',
      '/stock/movements?q=10412-07&at=HS',
      '/promises',
      '/promises?show=late',
      '/promises/4',
      '/promises/new',
      '/stock/transfers',
      '/stock/transfers/1',
      '/stock/transfers/2',
      '/stock/value',
      '/stock/counts',
      '/stock/counts/17',
      '/stock/counts/18',
      '/stock/counts/differences',
      '/counts/18/print',
      '/stock/movers?order=idle',
      '/alerts',
      '/transfers/2/print',
      '/items/7/outlook?location=1',
      '/mailbox',
      '/items/7/file',
      '/items/7/history',
      '/suppliers/12/file',
      '/account',
      '/setup',
      '/setup/locations',
      '/setup/calendar',
      '/setup/charges',
      '/setup/rates',
      '/setup/budgets',
      '/today',
      '/needs/decisions?show=all',
      '/needs?by=urgent',
      '/setup/changes',
      '/setup/limits',
      '/setup/papers',
      '/setup/jobs',
      '/setup/reasons',
      '/setup/books',
      '/work',
      '/orders/99999',
    ]) {
      await page.goto(path);
      await check(path);
    }

    // The form of an item, a charge as a sentence, a new item.
    await page.goto('/items/7/file');
    await page.getByRole('button', { name: 'Change the item' }).click();
    await check('the form of an item');
    await page.keyboard.press('Escape');
    await page.goto('/suppliers/12/file');
    await page.getByRole('button', { name: 'Change Air freight' }).click();
    await check('a charge');
    await page.goto('/items?view=to_complete');
    await page.getByRole('grid', { name: 'Items' }).locator('[data-current=true]').focus();
    await page.keyboard.press('Space');
    await check('marked items');
    await page.getByRole('button', { name: 'New item' }).click();
    await check('a new item');
    await page.keyboard.press('Escape');

    // A spreadsheet on its way in, and the first page of a new company.
    const worker = await startWorker(world);
    await page.goto('/sheets');
    await check('spreadsheets');
    const rows = 'Number;Name;Price;Kept by\n10412-07;Renamed;1.234;Mira\nNEW;New;12;\nBAD;;x;\n';
    const file = { name: 'items.csv', mimeType: 'text/csv', buffer: Buffer.from(rows) };
    await page.getByLabel('File of Items', { exact: true }).setInputFiles(file);
    await expect(page.getByRole('button', { name: 'Check the rows' })).toBeVisible();
    await check('a file to be mapped');
    // What could be read either way is asked.
    await page.getByRole('radio', { name: 'comma: 1234,5' }).check();
    await page.getByRole('button', { name: 'Check the rows' }).click();
    await expect(page.getByText('Before anything changes')).toBeVisible();
    await check('wrong rows');
    await page.getByRole('button', { name: '1 changed' }).click();
    await expect(page.getByRole('list').getByText('Renamed')).toBeVisible();
    await check('changed rows');
    await page.getByRole('button', { name: 'Let it go' }).click();
    await expect(page.getByText('This file was let go.')).toBeVisible();
    await check('a file let go');
    worker.kill();
    await emptyCompany(world);
    await page.goto('/welcome');
    await check('a new company');
  });
}
