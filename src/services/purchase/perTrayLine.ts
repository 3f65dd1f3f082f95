import { fromDecimal, toDecimal } from '@/core/quantity';
import type { PartRow } from '@/data/repositories/orders';

/** What lies on an order of each tray line; a line that is split over several deliveries counts with all of them. */
export function perTrayLine(
  parts: readonly PartRow[],
): ReadonlyMap<number, { readonly packQuantity: string; readonly baseQuantity: string }> {
  const found = new Map<number, { packQuantity: string; baseQuantity: string }>();
  const sum = (a: string, b: string) => toDecimal(fromDecimal(a) + fromDecimal(b));
  for (const { trayLineId, packQuantity, baseQuantity } of parts) {
    if (trayLineId === null) continue;
    const had = found.get(trayLineId);
    found.set(trayLineId, {
      packQuantity: had ? sum(had.packQuantity, packQuantity) : packQuantity,
      baseQuantity: had ? sum(had.baseQuantity, baseQuantity) : baseQuantity,
    });
  }
  return found;
}
