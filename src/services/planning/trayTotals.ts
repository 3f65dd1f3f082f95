import { lineNet, type Price } from '@/core/money';
import { baseQuantity } from '@/core/packs';
import { fromDecimal } from '@/core/quantity';
import type { SupplierRow } from '@/data/repositories/catalogue';
import type { TrayLineRow } from '@/data/repositories/trays';
import type { Buying, BuyingBook } from '../catalogue/buying';
import { groupBy } from '../grouping';
import { breakLineOf, breakPacks, countTogether } from '../purchase/pricing';

/** What goes on one order line: the same item in the same pack from the same source. */
const lineKey = (l: Pick<TrayLineRow, 'itemId' | 'sourceId' | 'packId'>): string =>
  `${l.itemId}/${l.sourceId}/${l.packId ?? 0}`;

export const groupByLine = (tray: readonly TrayLineRow[]): TrayLineRow[][] => [...groupBy(tray, lineKey).values()];

/** The lines of one supplier's tray, order by order: all places on one, or one order per place. */
export const ordersOfTray = (tray: readonly TrayLineRow[], rule: SupplierRow['trayRule']): TrayLineRow[][] =>
  tray.length === 0 ? [] : rule === 'one_order' ? [[...tray]] : [...groupBy(tray, (l) => l.locationId).values()];

/** The lines that groups become, as their breaks are counted. */
export const breaksOf = (groups: readonly (readonly TrayLineRow[])[], book: BuyingBook) =>
  groups.map((g) =>
    breakLineOf(
      book.bySource.get(g[0]?.sourceId ?? 0),
      g.reduce((sum, l) => sum + fromDecimal(l.packQuantity), 0),
    ),
  );

export type ComingLine = {
  readonly lines: readonly TrayLineRow[];
  readonly price: Price | null;
  readonly net: number;
  /** Packs that its breaks count, and the other lines of its order that count with it. */
  readonly over: number;
  readonly beside: readonly { readonly buying: Buying; readonly packs: number }[];
};

/** The order lines that these tray lines will become, priced for the quantities they will have.
 *  Net in minor units of the supplier's currency; 0 where no price is on file. */
export function comingLines(
  lines: readonly TrayLineRow[],
  book: BuyingBook,
  suppliers: readonly Pick<SupplierRow, 'id' | 'trayRule'>[],
  today: string,
): ComingLine[] {
  const rules = new Map(suppliers.map((s) => [s.id, s.trayRule]));
  const orders = [...groupBy(lines, (l) => l.supplierId)].flatMap(([supplierId, tray]) =>
    ordersOfTray(tray, rules.get(supplierId) ?? 'one_order'),
  );
  return orders.flatMap((order) => {
    const groups = groupByLine(order);
    const breaks = breaksOf(groups, book);
    return groups.map((group, i) => {
      const buying = book.bySource.get(group[0]?.sourceId ?? 0);
      const over = breakPacks(breaks, i);
      const price = buying?.priceAt(over, today) ?? null;
      const beside = groups.flatMap((g, k) => {
        const other = book.bySource.get(g[0]?.sourceId ?? 0);
        const counts = k !== i && other !== undefined && countTogether(breaks, i, k);
        return counts ? [{ buying: other, packs: breaks[k]?.packs ?? 0 }] : [];
      });
      const packs = breaks[i]?.packs ?? 0;
      const net = buying && price ? lineNet(baseQuantity(packs, buying.content), price, buying.source.currency) : 0;
      return { lines: group, price, net, over, beside };
    });
  });
}

/** Net value of each supplier's tray, in its currency. */
export function trayTotals(coming: readonly ComingLine[]): Map<number, number> {
  const totals = new Map<number, number>();
  for (const { lines, net } of coming) {
    const supplierId = lines[0]?.supplierId ?? 0;
    totals.set(supplierId, (totals.get(supplierId) ?? 0) + net);
  }
  return totals;
}
