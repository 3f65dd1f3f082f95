import { expect, signIn, test } from '../support';

/** The most JavaScript that a page may need before it works, compressed as it is sent. */
const MOST_BYTES = 250_000;

// What the page itself names as scripts; what is fetched when it is wanted (Find, charts) is not among it.
test('no page needs more than 250 kB of JavaScript to begin with', async ({ page, world }) => {
  expect(world.url).not.toBe('');
  const weights: Record<string, number> = {};
  const weigh = async (path: string) => {
    const html = await (await page.request.get(path)).text();
    const scripts = new Set([...html.matchAll(/<script[^>]+src="([^"]+\.js[^"]*)"/g)].map((m) => m[1] as string));
    expect(scripts.size).toBeGreaterThan(2);
    await page.goto(path);
    const sizes = await page.evaluate(
      () =>
        performance
          .getEntriesByType('resource')
          .map((e) => [
            new URL(e.name).pathname + new URL(e.name).search,
            (e as PerformanceResourceTiming).encodedBodySize,
          ]) as [string, number][],
    );
    const wanted = sizes.filter(([name]) => [...scripts].some((s) => s.split('?')[0] === name.split('?')[0]));
    weights[path] = wanted.reduce((sum, [, size]) => sum + size, 0);
  };
  await weigh('/sign-in');
  await signIn(page, 'mira');
  for (const path of [
    '/today',
    '/needs',
    '/needs/decisions?show=all',
    '/trays',
    '/orders',
    '/orders/7',
    '/orders/new',
    '/arrivals',
    '/arrivals/7/1',
    '/items',
    '/items/7',
    '/policies',
    '/stock',
    '/stock/movements',
    '/stock/transfers/1',
    '/promises',
    '/promises/4',
    '/promises/new',
    '/stock/counts',
    '/stock/counts/18',
    '/stock/movers',
    '/alerts',
    '/items/7/outlook?location=1',
    '/mailbox',
    '/items/7/file',
    '/items/7/history',
    '/suppliers',
    '/suppliers/1/file',
    '/setup',
    '/setup/locations',
    '/setup/changes',
    '/setup/books',
    '/setup/papers',
    '/work',
  ]) {
    await weigh(path);
  }
  console.log(JSON.stringify(weights));
  // Something was really weighed.
  expect(Math.min(...Object.values(weights))).toBeGreaterThan(50_000);
  expect(Object.entries(weights).filter(([, bytes]) => bytes > MOST_BYTES)).toEqual([]);
});
