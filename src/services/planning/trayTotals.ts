import { lineNet } from '@/core/money';
import { baseQuantity } from '@/core/packs';
import { fromDecimal } from '@/core/quantity';
import type { TrayLineRow } from '@/data/repositories/trays';
import type { BuyingBook } from '../catalogue/buying';

/** What goes on one order line: the same item in the same pack from the same source. */
export const lineKey = (l: Pick<TrayLineRow, 'itemId' | 'sourceId' | 'packId'>): string =>
  `${l.itemId}/${l.sourceId}/${l.packId ?? 0}`;

export const groupByLine = (tray: readonly TrayLineRow[]): TrayLineRow[][] => {
  const groups = new Map<string, TrayLineRow[]>();
  for (const l of tray) groups.set(lineKey(l), [...(groups.get(lineKey(l)) ?? []), l]);
  return [...groups.values()];
};

/** Net value of each supplier's tray at the prices in force for the quantities of the coming order lines. */
export function trayTotals(
  lines: readonly TrayLineRow[],
  book: BuyingBook,
  today: string,
  currency: string,
): Map<number, number> {
  const totals = new Map<number, number>();
  for (const group of groupByLine(lines)) {
    const first = group[0] as TrayLineRow;
    const buying = book.bySource.get(first.sourceId);
    const packs = group.reduce((sum, l) => sum + fromDecimal(l.packQuantity), 0);
    const price = buying?.priceAt(packs, today);
    const net = buying && price ? lineNet(baseQuantity(packs, buying.content), price, currency) : 0;
    totals.set(first.supplierId, (totals.get(first.supplierId) ?? 0) + net);
  }
  return totals;
}
