import { decimalsOf, withCents } from '@/core/money';
import { deliveryAddress, invoiceAddress, type LineDifference, orderTotals, termsLine } from '@/core/purchase';
import { fromDecimal, toDecimal } from '@/core/quantity';
import type { Location } from '@/data/repositories/company';
import type { OrderLineRow, OrderRow, PartRow } from '@/data/repositories/orders';
import { totalLineOf } from './pricing';

const plain = (decimal: string) => toDecimal(fromDecimal(decimal));

/** The purchase order as the text of a mail: lines with their deliveries, addresses, terms, sum. Dates are ISO 8601. */
export function orderMail(
  order: OrderRow,
  all: readonly OrderLineRow[],
  parts: readonly PartRow[],
  places: readonly Location[],
  buyer: { readonly name: string; readonly invoiceAddress: string },
  changes: readonly LineDifference[] = [],
): { subject: string; body: string } {
  const lines = all.filter((l) => l.unordered === 0 && fromDecimal(l.baseQuantity) > 0);
  const totals = orderTotals(lines.map(totalLineOf), order.currency);
  const digits = decimalsOf(order.currency);
  const amount = (minor: number) => (minor / 10 ** digits).toFixed(digits);
  const place = (id: number | null) => places.find((p) => p.id === id);
  const shown = new Set(lines.map((l) => l.id));
  const used = places.filter((l) => parts.some((p) => p.locationId === l.id && shown.has(p.lineId)));
  const linesText = lines.map((l, i) => {
    const own = parts.filter((p) => p.lineId === l.id);
    const per = plain(l.pricePer);
    const price =
      l.freeOfCharge === 1
        ? 'free of charge'
        : `${withCents(plain(l.priceAmount ?? '0'))} ${per === '1' ? 'per' : `for ${per}`} ${l.packName}${fromDecimal(l.discountPercent) > 0 ? `, less ${plain(l.discountPercent)} %` : ''}`;
    return [
      `${l.lineNo}. ${l.description}${l.edition ? `, edition ${l.edition}` : ''}`,
      `   your number ${l.supplierItemNumber || '-'}, our number ${l.itemNumber ?? '-'}`,
      ...own.map(
        (p) =>
          `   ${plain(p.packQuantity)} ${l.packName} (${plain(p.baseQuantity)} ${l.unitName ?? ''}) to ${place(p.locationId)?.name ?? '-'}${p.wantedDate ? `, wanted ${p.wantedDate}` : ''}`,
      ),
      `   ${price}, net ${amount(totals.lines[i] as number)}`,
      '',
    ].join('\n');
  });
  const body = [
    `Purchase order ${order.number}, ${order.orderDate}`,
    `from ${buyer.name}`,
    '',
    ...(order.amendmentNo > 0
      ? [`Change ${order.amendmentNo} of this order. What differs from what you have:`, ...changes.map(changeText), '']
      : []),
    ...linesText,
    `Order net ${amount(totals.net)} ${order.currency}, without tax`,
    termsLine({ payment: order.paymentTerms, delivery: order.deliveryTerms, shippingWay: order.shippingWay }),
    ...(order.orderText ? ['', order.orderText] : []),
    '',
    'Deliver to:',
    ...used.map((l) => deliveryAddress(l, buyer.invoiceAddress).replaceAll('\n', ', ')),
    '',
    `Invoice to: ${(order.invoiceAddress || invoiceAddress(used, buyer.invoiceAddress)).replaceAll('\n', ', ')}`,
    '',
    `Approved by ${order.approvedBy ?? ''}. Please quote the order number on delivery note and invoice.`,
  ].join('\n');
  const change = order.amendmentNo > 0 ? `, change ${order.amendmentNo},` : '';
  return { subject: `Purchase order ${order.number}${change} from ${buyer.name}`, body };
}

/** One difference as a line of text. */
function changeText(d: LineDifference): string {
  const packs = (q: number) => `${toDecimal(q)} ${d.packName}`;
  const head = `   line ${d.lineNo}, ${d.description}:`;
  switch (d.kind) {
    case 'added':
      return `${head} added, ${packs(d.now)}`;
    case 'taken_off':
      return `${head} taken off (was ${packs(d.was)})`;
    case 'quantity':
      return `${head} ${packs(d.now)} instead of ${packs(d.was)}`;
    case 'price':
      return `${head} price ${d.now ?? '-'} instead of ${d.was ?? '-'}`;
    case 'discount':
      return `${head} less ${d.now} % instead of ${d.was} %`;
    case 'date':
      return `${head} wanted ${d.now.join(', ') || '-'} instead of ${d.was.join(', ') || '-'}`;
    case 'place':
      return `${head} for other places`;
  }
}
