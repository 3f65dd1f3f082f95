import { err } from '@/core/result';
import { drawNumber } from '@/data/repositories/bookkeeping';
import { write } from '@/data/transaction';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { type Books, freshBooks, mira, must, otto, req, violations } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

async function draft(price: string): Promise<number> {
  const { orderId } = must(await newOrder(books.deps, mira, req({ supplierId: 1, locationId: 1, addressId: null })));
  const sign = { kind: 'non_stock' as const, description: `Sign ${orderId}`, quantity: '1', unit: '', price };
  must(await addOtherLine(books.deps, mira, req({ orderId, ...sign, locationId: 1 })));
  return orderId;
}

test('forty approvals at once, drawings that are rolled back between them: no number twice, none missing', async () => {
  const ids: number[] = [];
  for (let i = 0; i < 40; i++) ids.push(await draft('45'));
  const unpriced = await draft('');
  const approve = async (orderId: number, actor = mira) => {
    const { version } = must(await readOrder(books.deps, otto, orderId)).head;
    return approveOrder(books.deps, actor, req({ orderId, version }));
  };
  // Drawn, and then the whole step comes to nothing.
  const rolledBack = () =>
    write(books.deps.pool, async (tx) => {
      await drawNumber(tx, 'PO', '2611');
      return err('given up' as const);
    });
  const outcomes = await Promise.all(
    ids.flatMap((id, i) => [
      approve(id),
      ...(i % 2 === 0 ? [rolledBack()] : []),
      ...(i % 8 === 0 ? [approve(unpriced)] : []),
    ]),
  );
  const numbers = outcomes.flatMap((o) =>
    o.ok && typeof o.value === 'object' && o.value !== null && 'number' in o.value ? [o.value.number as string] : [],
  );
  const [first] = [...numbers].sort();
  const from = Number(first?.slice(-4));
  expect([...numbers].sort()).toEqual(
    Array.from({ length: 40 }, (_, i) => `2611-${String(from + i).padStart(4, '0')}`),
  );
  // The next one goes on where they ended.
  const next = must(await approve(await draft('45')));
  expect(next.number).toBe(`2611-${String(from + 40).padStart(4, '0')}`);
  expect(await violations(books)).toEqual([]);
});
