import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, mira, must, req } from './support';

/** The rows of every table, in an order of their own, and the id that its next row gets. */
async function contentOf(books: Books): Promise<Record<string, unknown>> {
  const tables = await books.rows<{ name: string; nextId: number | null }>(
    `SELECT table_name AS name, auto_increment AS nextId FROM information_schema.tables
      WHERE table_schema = DATABASE() ORDER BY 1`,
  );
  const content: Record<string, unknown> = {};
  for (const { name, nextId } of tables) {
    const rows = await books.rows(`SELECT * FROM \`${name}\``);
    content[name] = [nextId, ...rows.map((r) => JSON.stringify(r)).sort()];
  }
  return content;
}

test('books that were used are given to the next test as they were at first', async () => {
  const books = await freshBooks();
  const first = await contentOf(books);
  expect(Object.keys(first).length).toBeGreaterThan(80);
  const lines = [{ itemId: 7, quantity: '3', allocationId: null }];
  must(await sellGoods(books.deps, mira, req({ locationId: 1, businessDate: '', lines })));
  await books.rows('DELETE FROM policy LIMIT 3');
  await books.rows(`INSERT INTO count_plan (id, name, location_id, what, every_days, blind, next_on)
                    VALUES (900, 'all', 1, 'marked', 7, 0, '2026-11-30')`);
  await books.rows('INSERT INTO count_plan_item (plan_id, item_id) VALUES (900, 7)');
  const used = await contentOf(books);
  expect(Object.keys(first).filter((t) => JSON.stringify(first[t]) !== JSON.stringify(used[t])).length).toBeGreaterThan(
    4,
  );
  await books.close();
  // It may be other books that somebody used: they have to be as good as new, too.
  const again = await freshBooks();
  expect(await contentOf(again)).toEqual(first);
  await again.close();
});

test('books whose tables a test has changed are given to nobody', async () => {
  const books = await freshBooks();
  await books.rows('CREATE TABLE of_a_test (id INT PRIMARY KEY)');
  await books.close();
  const [next, other] = [await freshBooks(), await freshBooks()];
  for (const b of [next, other]) {
    expect(b.name).not.toBe(books.name);
    expect(
      await b.rows(
        "SELECT 1 FROM information_schema.tables WHERE table_schema = DATABASE() AND table_name = 'of_a_test'",
      ),
    ).toEqual([]);
    await b.close();
  }
});
