import type { Actor } from '@/core/people';
import { unwrap } from '@/core/result';
import { readSnapshot } from '@/data/transaction';
import { orderPdf } from '@/formats/orderPdf';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { newOrder } from '@/services/purchase/newOrder';
import { paperOf } from '@/services/purchase/orderPaper';
import { pasteLines } from '@/services/purchase/pasteLines';
import { readOrder } from '@/services/purchase/readOrder';
import { type Figure, median } from './figure';
import { largeBooks } from './largeBooks';

const ROUNDS = 15;
const buyer: Actor = {
  ...{ userId: 1, name: 'Mira Rook', initials: 'MR', role: 'buyer', locations: null, approvalLimit: null, locale: '' },
};

async function timed(body: () => Promise<unknown>): Promise<number> {
  await body();
  const times: number[] = [];
  for (let n = 0; n < ROUNDS; n += 1) {
    const started = performance.now();
    await body();
    times.push(performance.now() - started);
  }
  return median(times);
}

/** An order of 500 lines as its page reads it, serialised, against the bare SELECT of its rows; the PDF of 500 lines against that of
 *  50. */
export async function ordersBench(): Promise<Figure[]> {
  const { pool } = await largeBooks();
  const deps = { pool, clock: () => new Date() };
  let keys = 0;
  const request = <I>(input: I) => {
    keys += 1;
    return { key: `bench-orders-${Date.now()}-${keys}`, input };
  };
  const sold = await readSnapshot(pool, (tx) =>
    tx.rows<{ supplierId: number; number: string }>(
      `SELECT f.supplier_id AS supplierId, i.number FROM source f JOIN item i ON i.id = f.item_id
        WHERE f.supplier_id = (SELECT supplier_id FROM source GROUP BY supplier_id ORDER BY COUNT(*) DESC LIMIT 1)
          AND i.status = 'active' ORDER BY i.id LIMIT 500`,
    ),
  );
  const of = async (lines: number): Promise<number> => {
    const supplierId = sold[0]?.supplierId ?? 0;
    const { orderId } = unwrap(await newOrder(deps, buyer, request({ supplierId, locationId: 1, addressId: null })));
    const rows = sold.slice(0, lines).map((s) => `${s.number}\t6`);
    const { added } = unwrap(await pasteLines(deps, buyer, request({ orderId, locationId: 1, rows })));
    // Where fewer items are sold, the rest is bought by its description.
    for (let n = added; n < lines; n += 1) {
      const line = {
        orderId,
        kind: 'non_stock' as const,
        description: `Sample ${n}`,
        quantity: '2',
        unit: '',
        price: '4',
      };
      unwrap(await addOtherLine(deps, buyer, request({ ...line, locationId: 1 })));
    }
    return orderId;
  };
  const [large, small] = [await of(500), await of(50)];
  const read = await timed(async () => JSON.stringify(unwrap(await readOrder(deps, buyer, large))));
  const bare = await timed(() =>
    readSnapshot(pool, (tx) =>
      tx.rows(
        `SELECT o.*, l.*, d.*, i.number, i.name FROM purchase_order o JOIN order_line l ON l.order_id = o.id
           JOIN delivery_part d ON d.order_line_id = l.id LEFT JOIN item i ON i.id = l.item_id WHERE o.id = :large`,
        { large },
      ),
    ),
  );
  const paper = async (id: number) => {
    const found = await readSnapshot(pool, (tx) => paperOf(deps, tx, id));
    if (!found) throw new Error(`no order ${id}`);
    return { ...found, number: found.number || 'BENCH' };
  };
  const [p500, p50] = [await paper(large), await paper(small)];
  const pdf500 = await timed(() => orderPdf(p500));
  const pdf50 = await timed(() => orderPdf(p50));
  const figure = (name: string, value: number, baseline: number, goal: number): Figure => ({
    ...{ name, value: Number(value.toFixed(1)), unit: 'ms', baseline: Number(baseline.toFixed(1)) },
    ...{ ratio: Number((value / baseline).toFixed(2)), goal },
  });
  return [
    figure('orders: 500 lines read and serialised; baseline: bare SELECT of its rows', read, bare, 5),
    figure('orders: PDF of 500 lines; baseline: PDF of 50 lines', pdf500, pdf50, 12),
  ];
}
