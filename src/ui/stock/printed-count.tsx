import type { CountView } from '@/services/stock/readCounts';
import { type Format, plural } from '../format';
import { Paper, Parties, Party } from '../frame/paper';

/** The sheet to count by: in the order of the shelves, with room for the figures; a blind one says nothing of what is expected. */
export function PrintedCount({ view, format }: { view: CountView; format: Format }) {
  const posted = view.state === 'posted';
  const expected = posted || view.blind === 0;
  return (
    <Paper
      title={`Count ${view.number}`}
      day={format.dateWithYear(view.businessDate)}
      company={view.company}
      back={{ href: `/stock/counts/${view.id}`, words: 'Back to the count' }}
    >
      <Parties>
        <Party title="What">{view.name}</Party>
        <Party title="At">{view.location}</Party>
        <Party title="Begun by">{view.begunBy}</Party>
      </Parties>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-black text-left text-xs">
            <th className="py-1 font-semibold">Shelf</th>
            <th className="py-1 font-semibold">Item</th>
            <th className="py-1 font-semibold">Number</th>
            {expected && <th className="py-1 text-right font-semibold">Expected</th>}
            <th className="w-28 py-1 pl-6 font-semibold">Counted</th>
            <th className="w-28 py-1 pl-6 font-semibold">{posted ? 'Difference' : 'Again'}</th>
          </tr>
        </thead>
        <tbody>
          {view.rows.map((r) => {
            const found = r.again ?? r.counted;
            return (
              <tr key={r.itemId} className="border-b border-neutral-300 break-inside-avoid">
                <td className="py-2 font-mono text-[11px]">{r.shelf}</td>
                <td className="py-2">
                  {r.name} <span className="text-[11px]">({plural(r.unit, 2e6)})</span>
                </td>
                <td className="py-2 font-mono text-[11px]">{r.number}</td>
                {expected && (
                  <td className="py-2 text-right">{r.expected === null ? '' : format.quantity(r.expected)}</td>
                )}
                <td className="py-2 pl-6">{posted && found !== null ? format.quantity(found) : <Line />}</td>
                <td className="py-2 pl-6">
                  {posted ? r.difference === null ? '–' : format.quantity(r.difference) : <Line />}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <p className="mt-10 grid grid-cols-3 gap-10 text-xs">
        <span className="border-t border-black pt-1">Counted by</span>
        <span className="border-t border-black pt-1">From, to (time)</span>
        <span className="border-t border-black pt-1">Counted again by</span>
      </p>
    </Paper>
  );
}

const Line = () => <span className="inline-block h-5 w-20 border-b border-black" />;
