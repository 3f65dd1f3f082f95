import { type FindingOrder, findings, orderTotals, unprintable } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import type { OrderLineRow, OrderRow, PartRow } from '@/data/repositories/orders';
import { groupBy } from '../grouping';
import type { CostOfOrder } from './orderCosts';
import { totalLineOf } from './pricing';

/** What is missing on an order and worth knowing, from its rows. */
export function findingsOf(
  order: OrderRow,
  lines: readonly OrderLineRow[],
  parts: readonly PartRow[],
  today: string,
  rateKnown: boolean,
  costs?: CostOfOrder,
  beyond: Pick<FindingOrder, 'beyondMaximum' | 'overBudget'> = {},
) {
  const partsOf = groupBy(parts, (p) => p.lineId);
  return findings({
    // What was taken off counts nothing any more.
    lines: lines
      .filter((l) => fromDecimal(l.baseQuantity) > 0)
      .map((l) => ({
        lineNo: l.lineNo,
        kind: l.kind,
        packQuantity: fromDecimal(l.packQuantity),
        priceAmount: l.priceAmount,
        freeOfCharge: l.freeOfCharge === 1,
        parts: (partsOf.get(l.id) ?? []).map((p) => ({ wantedDate: p.wantedDate, hasLocation: p.locationId !== null })),
      })),
    supplierBlocked: order.supplierBlocked === 1,
    supplierAddress: order.supplierAddress.trim() !== '',
    unprintable: unprintable(
      [
        order.supplierAddress,
        order.orderText,
        order.supplierName,
        ...lines.flatMap((l) => [l.description, l.printedNote]),
      ].join(''),
    ),
    ...(costs && openOf(costs)),
    ...beyond,
    orderMinimum: order.orderMinimum,
    net: orderTotals(lines.map(totalLineOf), order.currency).net,
    rateMissing: rateKnown ? null : order.currency,
    today,
  });
}

/** What of its costs is not known yet. */
function openOf({ cost, charges }: CostOfOrder) {
  const unknown = new Set(
    cost.faults.flatMap((f) => (f.kind === 'no_rate' ? [cost.charges[f.charge]?.charge.name] : [])),
  );
  return {
    chargesOpen: charges
      .filter((c) => !c.leftOut && ((c.amountKind !== 'duty' && c.amount === null) || unknown.has(c.name)))
      .map((c) => c.name),
    untaxed: cost.tax.sums.flatMap((t) => (t.percent === null && t.taxable !== 0 ? [t.category] : [])),
  };
}
