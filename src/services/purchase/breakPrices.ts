import { packsIn } from '@/core/packs';
import { fromDecimal } from '@/core/quantity';
import { type OrderLineRow, readOrderLines, updateOrderLine } from '@/data/repositories/orders';
import type { Tx } from '@/data/sql';
import { type BuyingBook, readBuying } from '../catalogue/buying';
import { breakLineOf, breakPacks, countTogether, expectedPrice } from './pricing';

/** Lines of an order as they are now get the price of the list at the quantity that their breaks count: those whose quantity changed,
 *  and those that count with one of these over their item or price group. A price that somebody set stays; what is expected is kept
 *  beside it. Breaks are counted in the packs that the list is for, whatever pack a line is ordered in. */
export async function followBreaks(
  tx: Tx,
  lines: readonly OrderLineRow[],
  changed: readonly OrderLineRow[],
  today: string,
): Promise<void> {
  const ids = new Set(changed.map((l) => l.id));
  // What is gone from the order counts nothing any more, and others counted it.
  const gone = changed.filter((l) => !lines.some((x) => x.id === l.id));
  const all = [...lines, ...gone];
  const book = await bookOf(tx, all, changed);
  const breaks = all.map((l) => breakOf(book, l, gone.includes(l)));
  const at = all.flatMap((l, i) => (ids.has(l.id) ? [i] : []));
  for (const [i, l] of lines.entries()) {
    const own = ids.has(l.id);
    // What came without being ordered has the price that was said then.
    if (l.unordered === 1) {
      if (own) await updateOrderLine(tx, l);
      continue;
    }
    if (!own && !at.some((k) => countTogether(breaks, i, k))) continue;
    const expected = expectedPrice(book.bySource.get(l.sourceId ?? 0), breakPacks(breaks, i), today);
    if (!own && expected.expectedAmount === l.expectedAmount) continue;
    const follows = l.priceAmount === l.expectedAmount && l.priceOrigin === null;
    await updateOrderLine(tx, { ...l, ...(follows ? expected : { expectedAmount: expected.expectedAmount }) });
  }
}

/** The same where lines were entered: the first of them has this number, the others follow it. */
export async function followEntered(tx: Tx, orderId: number, fromLineNo: number, today: string): Promise<void> {
  const lines = await readOrderLines(tx, [orderId]);
  await followBreaks(
    tx,
    lines,
    lines.filter((l) => l.lineNo >= fromLineNo),
    today,
  );
}

/** How the items of these lines are bought, as far as it matters: where nothing that changed has a price group, of the same items. */
async function bookOf(tx: Tx, all: readonly OrderLineRow[], changed: readonly OrderLineRow[]): Promise<BuyingBook> {
  const items = (of: readonly OrderLineRow[]) => [...new Set(of.flatMap((l) => l.itemId ?? []))];
  const book = await readBuying(tx, items(changed));
  const grouped = changed.some((l) => book.bySource.get(l.sourceId ?? 0)?.source.priceGroup);
  return grouped ? readBuying(tx, items(all)) : book;
}

function breakOf({ bySource }: BuyingBook, l: OrderLineRow, gone: boolean) {
  const buying = bySource.get(l.sourceId ?? 0);
  const counts = buying !== undefined && !gone && l.unordered === 0;
  return breakLineOf(buying, counts ? packsIn(fromDecimal(l.baseQuantity), buying.content) : 0);
}
