import { findings, orderTotals, unprintable } from '@/core/purchase';
import { fromDecimal } from '@/core/quantity';
import type { OrderLineRow, OrderRow, PartRow } from '@/data/repositories/orders';
import { totalLineOf } from './pricing';

/** What is missing on an order and worth knowing, from its rows. */
export function findingsOf(
  order: OrderRow,
  lines: readonly OrderLineRow[],
  parts: readonly PartRow[],
  today: string,
  rateKnown: boolean,
) {
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
        parts: parts
          .filter((p) => p.lineId === l.id)
          .map((p) => ({ wantedDate: p.wantedDate, hasLocation: p.locationId !== null })),
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
    orderMinimum: order.orderMinimum,
    net: orderTotals(lines.map(totalLineOf), order.currency).net,
    rateMissing: rateKnown ? null : order.currency,
    today,
  });
}
