import Link from 'next/link';
import type { PromiseLine } from '@/services/promise/readPromises';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { coverWords, isBehind, slackWords } from './words';

/** How it came about that a line waits, and what covers it: the sum as on paper, then each document. */
export function PromisePanel({ line: l }: { line: PromiseLine }) {
  const format = useFormat();
  const q = format.quantity.bind(format);
  const terms = [
    { operator: '', label: 'ordered', quantity: l.ordered },
    { operator: '−', label: 'handed over', quantity: l.handedOver },
    { operator: '−', label: 'cancelled', quantity: l.cancelled },
    { operator: '−', label: 'put by, lies ready', quantity: Math.min(l.ready, l.open) },
  ].filter((t) => t.operator === '' || t.quantity > 0);
  return (
    <div className="grid gap-4">
      <header>
        <h2 className="name text-[15px] font-semibold">{l.name}</h2>
        <p className="second">
          <span className="code">{l.number}</span> · for {l.customer} at {l.location}
        </p>
      </header>
      <table className="w-full tabular-nums" aria-label="How it came about">
        <tbody>
          {terms.map((t) => (
            <tr key={t.label}>
              <td className="w-5 text-muted">{t.operator}</td>
              <td>{t.label}</td>
              <td className="figure">{q(t.quantity)}</td>
            </tr>
          ))}
          <tr className="border-t border-rule-strong font-semibold">
            <td className="text-muted">=</td>
            <td>waits</td>
            <td className="figure">
              {q(l.backordered)} <span className="second">{plural(l.unit, l.backordered)}</span>
            </td>
          </tr>
        </tbody>
      </table>
      {l.about && <p className="second">What comes last of this kit is {l.about}:</p>}
      {l.covers.length > 0 && (
        <ul className="grid gap-2" aria-label="What covers it">
          {l.covers.map((c) => (
            <li key={`${c.kind}${c.ref}${c.date}`} className="grid grid-cols-[1fr_auto] items-baseline gap-x-3">
              <span>
                {c.href ? (
                  <Link className="link" href={c.href} prefetch={false}>
                    {coverWords(c)}
                  </Link>
                ) : (
                  coverWords(c)
                )}
                , {c.kind === 'stock' ? 'there now' : format.date(c.date)}
              </span>
              <span className="figure">{q(c.quantity)}</span>
              {c.kind !== 'stock' && (
                <span className={`second col-span-2 ${c.lateDays > 0 ? 'text-stop' : ''}`}>
                  {q(c.ordered)} ordered, {q(c.received)} received
                  {c.lateDays > 0 && `, overdue by ${format.days(c.lateDays)}`}
                </span>
              )}
            </li>
          ))}
        </ul>
      )}
      {l.backordered > 0 && (
        <dl className="grid grid-cols-[1fr_auto] gap-x-3 gap-y-1">
          <dt>wanted</dt>
          <dd className="figure">{format.date(l.wanted)}</dd>
          {l.promise && (
            <>
              <dt>all of it can be handed over</dt>
              <dd className="figure font-semibold">{format.date(l.promise.date)}</dd>
              {l.promise.cautious !== l.promise.date && (
                <>
                  <dt>said with care (nine of ten deliveries)</dt>
                  <dd className="figure">{format.date(l.promise.cautious)}</dd>
                </>
              )}
            </>
          )}
          {l.missing > 0 && (
            <>
              <dt className="text-stop">nothing covers</dt>
              <dd className="figure text-stop">{q(l.missing)}</dd>
              <dt>if it is ordered today</dt>
              <dd className="figure">{l.ifOrdered ? format.date(l.ifOrdered) : 'no supplier'}</dd>
            </>
          )}
        </dl>
      )}
      {l.backordered > 0 && <p className={isBehind(l) ? 'text-stop' : 'second'}>{slackWords(l, format)}</p>}
      {l.told && (
        <p className={l.moved ? 'text-attention' : 'second'}>
          {l.customer} was told {l.told.date ? format.date(l.told.date) : 'that no date is known'}
          {l.moved && ', and that has moved since'}.
        </p>
      )}
      <p className="flex gap-4">
        <Link className="link" href={`/promises/${l.orderId}`} prefetch={false}>
          {l.order}
        </Link>
        <Link className="link" href={`/items/${l.itemId}/outlook`} prefetch={false}>
          Outlook of the item
        </Link>
      </p>
    </div>
  );
}
