import type { TransferView } from '@/services/stock/readTransfers';
import { type Format, plural } from '../format';
import { Address, Paper, Parties, Party } from '../frame/paper';

/** The paper that goes with a transfer: from where to where, what, and room to tick it off. */
export function PrintedTransfer({ view, format }: { view: TransferView; format: Format }) {
  const sent = view.state !== 'approved';
  const lines = view.lines.filter((l) => (sent ? l.shipped : l.approved) > 0);
  return (
    <Paper
      title={`Transfer ${view.number}`}
      day={format.dateWithYear(view.businessDate)}
      company={view.company}
      back={{ href: `/stock/transfers/${view.id}`, words: 'Back to the transfer' }}
    >
      <Parties>
        <Party title="From">
          <strong className="block font-semibold">{view.from}</strong>
          <Address text={view.fromAddress} />
        </Party>
        <Party title="To">
          <strong className="block font-semibold">{view.to}</strong>
          <Address text={view.toAddress} />
        </Party>
        <Party title="Wanted">
          {view.wantedDate ? format.date(view.wantedDate) : '–'}
          {view.note && <span className="mt-1 block">{view.note}</span>}
        </Party>
      </Parties>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-black text-left text-xs">
            <th className="py-1 font-semibold">Item</th>
            <th className="py-1 font-semibold">Number</th>
            <th className="py-1 text-right font-semibold">{sent ? 'Sent' : 'To be sent'}</th>
            <th className="w-24 py-1 pl-6 font-semibold">Packed</th>
            <th className="w-24 py-1 pl-6 font-semibold">Came</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => {
            const q = sent ? l.shipped : l.approved;
            return (
              <tr key={l.lineNo} className="border-b border-neutral-300 break-inside-avoid">
                <td className="py-2">{l.name}</td>
                <td className="py-2 font-mono text-[11px]">{l.number}</td>
                <td className="py-2 text-right whitespace-nowrap">
                  {format.quantity(q)} {plural(l.unit, q)}
                </td>
                <td className="py-2 pl-6">
                  <span className="inline-block size-4 border border-black" />
                </td>
                <td className="py-2 pl-6">
                  <span className="inline-block size-4 border border-black" />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-10 grid grid-cols-2 gap-10 text-xs">
        <span className="border-t border-black pt-1">Sent by</span>
        <span className="border-t border-black pt-1">Received by</span>
      </p>
    </Paper>
  );
}
