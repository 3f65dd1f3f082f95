import Link from 'next/link';
import type { Outlook } from '@/services/planning/readOutlook';
import { type Format, plural } from '../format';
import { ListBar } from '../frame/list';
import { ListAndPanel } from '../frame/states';
import { OutlookChart } from './outlook-chart.client';
import { adviceSentence } from './words';

/** Stock of an item at a place through time: the chart, its dates and advice, and the same figures as a table. */
export function OutlookPage({ outlook, format }: { outlook: Outlook; format: Format }) {
  const { item, days, today } = outlook;
  const units = plural(item.unit, 2_000_000);
  const q = (n: number) => format.quantity(Math.round(n / 1e5) * 1e5);
  const marked = new Set([...outlook.receipts, ...outlook.demands].map((d) => d.date));
  // Every day of the first two weeks, then those on which something happens and every seventh.
  const shown = days.filter((d, i) => i < 14 || i % 7 === 0 || marked.has(d.date) || d.date === outlook.runOut);
  const docs = (date: string, of: Outlook['receipts']) => of.filter((d) => d.date === date);
  return (
    <ListAndPanel label="Dates and advice" panel={<Dates outlook={outlook} format={format} />}>
      <ListBar
        title={
          <Link href={`/items/${item.id}`} className="name" prefetch={false}>
            {item.name}
          </Link>
        }
        about={
          <>
            <span className="code">{item.number}</span> at {outlook.location}, the next {days.length} days in {units}
          </>
        }
      >
        <nav className="ml-auto flex flex-wrap gap-2" aria-label="Places">
          {outlook.places.map((p) => (
            <Link
              key={p.id}
              className="chip"
              aria-current={p.name === outlook.location ? 'true' : undefined}
              href={`/items/${item.id}/outlook?location=${p.id}`}
              prefetch={false}
            >
              {p.name}
            </Link>
          ))}
        </nav>
      </ListBar>
      <OutlookChart outlook={outlook} unit={item.unit} />
      <table className="sheet">
        <thead>
          <tr>
            <th>Day</th>
            <th className="figure">Comes in</th>
            <th className="figure">Goes out</th>
            <th className="figure">At the close</th>
            <th className="max-sm:hidden">Documents</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((d) => (
            <tr key={d.date} className="one">
              <td className="whitespace-nowrap">
                {format.date(d.date)}
                {d.date === today && <span className="second"> today</span>}
                {d.date === outlook.runOut && <span className="marker ml-2">runs out</span>}
              </td>
              <td className="figure">{d.receipts === 0 ? '–' : `+${q(d.receipts)}`}</td>
              <td className="figure">{d.demand === 0 ? '–' : q(d.demand)}</td>
              <td
                className={`figure font-semibold ${d.closing < 0 ? 'text-stop' : d.closing < outlook.safety ? 'text-attention' : ''}`}
              >
                {q(d.closing)}
              </td>
              <td className="max-sm:hidden">
                {[...docs(d.date, outlook.receipts), ...docs(d.date, outlook.demands)].map((doc) => (
                  <span key={`${doc.kind}${doc.ref}${doc.quantity}`} className="mr-3">
                    {doc.href ? (
                      <Link className="link" href={doc.href} prefetch={false}>
                        {doc.ref}
                      </Link>
                    ) : (
                      doc.ref
                    )}{' '}
                    <span className="second">
                      {doc.kind === 'asked' || doc.kind === 'planned' ? '−' : '+'}
                      {q(doc.quantity)}
                      {doc.lateDays > 0 && `, ${format.days(doc.lateDays)} late`}
                    </span>
                  </span>
                ))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ListAndPanel>
  );
}

function Dates({ outlook, format }: { outlook: Outlook; format: Format }) {
  const date = (d: string | null, none: string) => (d === null ? none : format.due(d, outlook.today).text);
  const units = plural(outlook.item.unit, 2_000_000);
  const rows: readonly (readonly [string, string, boolean])[] = [
    ['Falls below safety stock', date(outlook.belowSafety, 'not in this time'), false],
    ['Runs out', date(outlook.runOut, 'not in this time'), outlook.runOut !== null],
    [
      'Order by, to stay above safety',
      date(outlook.orderBySafety, outlook.belowSafety ? 'too late for it' : '–'),
      false,
    ],
    [
      'Order by, to stay above zero',
      date(outlook.orderByZero, outlook.runOut ? 'too late for it' : '–'),
      outlook.tooLate,
    ],
    ['Ordered now, it comes', date(outlook.arrives, 'no supplier yet'), false],
  ];
  return (
    <div className="grid gap-6">
      <section>
        <h2 className="head">Dates</h2>
        {rows.map(([name, value, stop]) => (
          <div key={name} className="flex justify-between gap-3 py-[3px]">
            <span>{name}</span>
            <span className={`text-right font-semibold whitespace-nowrap ${stop ? 'text-stop' : ''}`}>{value}</span>
          </div>
        ))}
      </section>
      <section>
        <h2 className="head">Open orders</h2>
        {outlook.advice.length === 0 ? (
          <p className="second">
            {outlook.receipts.length === 0 ? 'Nothing is on the way.' : 'Nothing to change about what is on the way.'}
          </p>
        ) : (
          <ul className="grid gap-2">
            {outlook.advice.map((a) => (
              <li key={`${a.ref}${a.day}`}>{adviceSentence(a, format)}</li>
            ))}
          </ul>
        )}
      </section>
      <section>
        <h2 className="head">What it is made of</h2>
        <p className="second">
          {format.quantity(outlook.stock)} {units} here
          {outlook.owed > 0 && `, ${format.quantity(outlook.owed)} of them promised`};{' '}
          {outlook.perDay > 0
            ? `${format.quantity(Math.round(outlook.perDay / 10_000) * 10_000)} a day, the mean of the last 91 days without those of empty shelves`
            : 'nothing was sold in the last 91 days'}
          . Receipts count at the start of their day, by confirmed date, else promised, else wanted. Safety stock{' '}
          {format.quantity(outlook.safety)}.
        </p>
      </section>
    </div>
  );
}
