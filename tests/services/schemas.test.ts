import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, mira, must, req } from './support';

/** Content of every table, as a checksum of its rows. */
async function checksums(books: Books): Promise<Record<string, number | null>> {
  const tables = await books.rows<{ name: string }>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY 1',
  );
  const rows = await books.rows<{ Table: string; Checksum: number | null }>(
    `CHECKSUM TABLE ${tables.map((t) => `\`${t.name}\``).join(', ')}`,
  );
  return Object.fromEntries(rows.map((r) => [r.Table.split('.')[1], r.Checksum]));
}

test('books that were used are given to the next test as they were at first', async () => {
  const books = await freshBooks();
  const first = await checksums(books);
  expect(Object.keys(first).length).toBeGreaterThan(80);
  const lines = [{ itemId: 7, quantity: '3', allocationId: null }];
  must(await sellGoods(books.deps, mira, req({ locationId: 1, businessDate: '', lines })));
  await books.rows('DELETE FROM policy LIMIT 3');
  await books.rows(`INSERT INTO count_plan (id, name, location_id, what, every_days, blind, next_on)
                    VALUES (900, 'all', 1, 'marked', 7, 0, '2026-11-30')`);
  await books.rows('INSERT INTO count_plan_item (plan_id, item_id) VALUES (900, 7)');
  const used = await checksums(books);
  expect(Object.keys(first).filter((t) => first[t] !== used[t]).length).toBeGreaterThan(4);
  await books.close();
  // It may be other books that somebody used: they have to be as good as new, too.
  const again = await freshBooks();
  expect(await checksums(again)).toEqual(first);
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
