import { termsLine } from '@/core/purchase';
import type { OrderView } from '@/services/purchase/readOrders';
import { type Format, plural } from '../format';
import { Address, Paper, Parties, Party } from '../frame/paper';

/** The purchase order on paper: parties, terms, lines with their deliveries, sum. */
export function PrintedOrder({ order, format }: { order: OrderView; format: Format }) {
  const { head, buyer } = order;
  const lines = order.lines.filter((l) => !l.unordered && l.base > 0);
  const net = lines.reduce((sum, l) => sum + l.net, 0);
  const places = new Map(lines.flatMap((l) => l.parts).map((p) => [p.location, p.address]));
  return (
    <Paper
      title={`Purchase order ${head.number}`}
      day={format.dateWithYear(head.orderDate)}
      company={buyer.name}
      back={{ href: `/orders/${head.id}`, words: 'Back to the order' }}
    >
      <Parties>
        <Party title="Supplier">
          <Address text={head.supplierAddress} />
        </Party>
        <Party title="Deliver to">
          {[...places].map(([name, where]) => (
            <span key={name} className="mb-1.5 block">
              {places.size > 1 && <strong className="block font-semibold">{name}</strong>}
              <Address text={where} />
            </span>
          ))}
        </Party>
        <Party title="Invoice to">
          <Address text={buyer.invoiceAddress} />
        </Party>
      </Parties>
      <p className="mb-5">
        {termsLine({ payment: head.paymentTerms, delivery: head.deliveryTerms, shippingWay: head.shippingWay })} Prices
        in {head.currency}, without tax.
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
                {!l.freeOfCharge && l.discount !== '0' && (
                  <span className="block text-xs">less {format.percent(l.discount)} %</span>
                )}
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
    </Paper>
  );
}
