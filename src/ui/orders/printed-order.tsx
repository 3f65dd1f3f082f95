import Link from 'next/link';
import { termsLine } from '@/core/purchase';
import type { OrderView } from '@/services/purchase/readOrders';
import { type Format, plural } from '../format';
import { PrintButton } from './print-button.client';

/** The purchase order on paper: parties, terms, lines with their deliveries, sum. */
export function PrintedOrder({ order, format }: { order: OrderView; format: Format }) {
  const { head, buyer } = order;
  const lines = order.lines.filter((l) => !l.unordered && l.base > 0);
  const net = lines.reduce((sum, l) => sum + l.net, 0);
  const places = new Map(lines.flatMap((l) => l.parts).map((p) => [p.location, p.address]));
  const address = (text: string) =>
    text.split('\n').map((line) => (
      <span key={line} className="block">
        {line}
      </span>
    ));
  return (
    <main className="min-h-screen bg-paper print:bg-white">
      <div className="screen-only bar">
        <Link className="link" href={`/orders/${head.id}`}>
          Back to the order
        </Link>
        <span className="ml-auto">
          <PrintButton />
        </span>
      </div>
      <article className="mx-auto my-6 max-w-[190mm] bg-white p-[14mm] text-[13px] text-black max-sm:my-0 max-sm:p-3 print:m-0 print:p-0">
        <header className="mb-8 flex justify-between gap-8">
          <div>
            <h1 className="text-xl font-semibold">Purchase order {head.number}</h1>
            <p>{format.dateWithYear(head.orderDate)}</p>
          </div>
          <p className="text-right font-semibold">{buyer.name}</p>
        </header>
        <div className="mb-7 grid grid-cols-3 gap-6 max-sm:grid-cols-1 max-sm:gap-3 print:grid-cols-3">
          <div>
            <h2 className="mb-1 border-b border-black pb-0.5 text-xs font-semibold">Supplier</h2>
            {address(head.supplierAddress)}
          </div>
          <div>
            <h2 className="mb-1 border-b border-black pb-0.5 text-xs font-semibold">Deliver to</h2>
            {[...places].map(([name, where]) => (
              <span key={name} className="mb-1.5 block">
                {places.size > 1 && <strong className="block font-semibold">{name}</strong>}
                {address(where)}
              </span>
            ))}
          </div>
          <div>
            <h2 className="mb-1 border-b border-black pb-0.5 text-xs font-semibold">Invoice to</h2>
            {address(buyer.invoiceAddress)}
          </div>
        </div>
        <p className="mb-5">
          {termsLine({ payment: head.paymentTerms, delivery: head.deliveryTerms, shippingWay: head.shippingWay })}{' '}
          Prices in {head.currency}, without tax.
        </p>
        {head.orderText && <p className="mb-5 whitespace-pre-line">{head.orderText}</p>}
        <table className="w-full border-collapse max-sm:text-[11px] print:text-[10pt]">
          <thead>
            <tr className="border-b border-black text-left text-xs">
              <th className="w-6 py-1 font-semibold">#</th>
              <th className="py-1 font-semibold">Item</th>
              <th className="py-1 font-semibold">Quantity, place and day</th>
              <th className="figure py-1 font-semibold max-sm:whitespace-normal">Price per pack</th>
              <th className="figure py-1 pl-4 font-semibold">Net</th>
            </tr>
          </thead>
          <tbody>
            {lines.map((l) => (
              <tr key={l.id} className="break-inside-avoid border-b border-neutral-300 align-top">
                <td className="py-1.5">{l.lineNo}</td>
                <td className="py-1.5 pr-3 max-sm:pr-1">
                  {l.description}
                  <span className="block text-xs">
                    {l.edition && <span className="block">Edition {l.edition}</span>}
                    {l.supplierItemNumber && `Your number ${l.supplierItemNumber}`}
                    {l.itemNumber && <span className="block sm:whitespace-nowrap">Our number {l.itemNumber}</span>}
                  </span>
                </td>
                <td className="py-1.5 pr-3 max-sm:pr-1">
                  {l.parts.map((p) => (
                    <span key={p.id} className="block">
                      {format.quantity(p.packs)} {plural(l.packName, p.packs)} ({format.quantity(p.base)}{' '}
                      {plural(l.unit, p.base)}), {p.location}
                      {p.wantedDate && (
                        <span className="sm:whitespace-nowrap">, {format.dateWithYear(p.wantedDate)}</span>
                      )}
                    </span>
                  ))}
                </td>
                <td className="figure py-1.5">
                  {l.freeOfCharge
                    ? 'free of charge'
                    : l.price && `${format.price(l.price)}${l.per === '1' ? '' : ` for ${l.per}`}`}
                </td>
                <td className="figure py-1.5">{format.amount(l.net, head.currency)}</td>
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="font-semibold">
              <td colSpan={4} className="py-2 pr-4 text-right">
                Order, net
              </td>
              <td className="figure py-2">{format.money(net, head.currency)}</td>
            </tr>
          </tfoot>
        </table>
        <p className="mt-10 text-xs">
          Approved by {head.approvedBy}. Please quote the order number on delivery note and invoice.
        </p>
      </article>
    </main>
  );
}
