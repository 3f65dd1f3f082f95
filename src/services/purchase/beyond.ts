import type { FindingOrder } from '@/core/purchase';
import { fromDecimal, MICRO } from '@/core/quantity';
import type { OrderLineRow, PartRow } from '@/data/repositories/orders';
import { readBeyondMaximum } from '@/data/repositories/planning';
import type { Tx } from '@/data/sql';
import type { Exchange } from '../cost/exchange';
import { groupBy, pairKey, pairMap } from '../grouping';
import { pairsOf } from './loadOrder';
import { goods } from './orderParts';
import { spendingOf } from './spending';

/** What a draft goes beyond: maximums of its places, budgets of the month. */
export async function beyondOf(
  tx: Tx,
  { today, currency, exchange }: { readonly today: string; readonly currency: string; readonly exchange: Exchange },
  lines: readonly OrderLineRow[],
  parts: readonly PartRow[],
  places: ReadonlyMap<number, { readonly name: string }>,
): Promise<Pick<FindingOrder, 'beyondMaximum' | 'overBudget'>> {
  const pairs = pairsOf(lines, parts);
  const over = pairMap(await readBeyondMaximum(tx, pairs));
  const partsOf = groupBy(goods(parts), (p) => p.lineId);
  const beyondMaximum = lines.flatMap((l) => {
    if (over.size === 0) return [];
    return [...new Set((partsOf.get(l.id) ?? []).map((p) => p.locationId ?? 0))].flatMap((locationId) => {
      const found = l.itemId === null ? undefined : over.get(pairKey(l.itemId, locationId));
      const content = (l.contentNum / l.contentDen) * MICRO;
      // Whole packs go a little beyond it everywhere.
      if (!found || fromDecimal(found.over) <= content) return [];
      return { lineNo: l.lineNo, place: places.get(locationId)?.name ?? '', over: fromDecimal(found.over) };
    });
  });
  const spending = await spendingOf(tx, today, currency, exchange, []);
  const overBudget = spending.flatMap((s) => (s.left < 0 ? { category: s.category, over: -s.left, currency } : []));
  return { beyondMaximum, overBudget };
}
